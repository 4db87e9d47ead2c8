// Figures and checks of every work, each worked out anew only when what it reads differs.
import type { Check, Company, Feature, Figure, LinkFlow, Missing, Runoff, StormFacts } from '../../contract/index.ts';
import { type Uncomputed, checkPin, checkRain, checkSeen, checkWay } from '../../checks/index.ts';
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import type { OneRain } from '../../project/index.ts';
import { cellAt } from '../../terrain/index.ts';
import { type Columns, asItself, columnOf, forAll, idsOf, knownOf } from '../graph/graph.ts';
import type { DerivedErosion, ExitFlows } from '../types.ts';
import { attempt } from '../water/standing.ts';
import type { Placed } from '../water/stores.ts';
import { pipesAmong } from '../water/water.ts';
import type { GroundModel } from '../world/ground-model.ts';
import { acrossChecks } from './across.ts';
import { type CheckParts, oncePerWork } from './check-parts.ts';
import type { Told } from './facts.ts';
import { groundChecks } from './ground-checks.ts';

export interface Judged {
  readonly checks: readonly CheckParts[];
  readonly worksheets: readonly WorksheetLine[];
  readonly figures: Readonly<Record<string, readonly Figure[]>>;
  readonly failed: readonly (Uncomputed | null)[];
}

interface Judgement {
  readonly figures: readonly Figure[];
  readonly checks: readonly Check[];
  readonly lines: readonly WorksheetLine[];
  readonly failed: readonly (Uncomputed | null)[];
}

/** What one work is judged by: itself, what is known of it, who stands with it, and whether its figures are wanted or its checks alone. */
type Before = [
  one: Placed,
  facts: StormFacts,
  host: Placed | null,
  hostFacts: StormFacts | null,
  guests: readonly Placed[],
  siblings: readonly Placed[],
  wantsFigures: boolean,
];

function judgeOne(...[one, own, host, hostFacts, guests, siblings, wantsFigures]: Before): Judgement {
  const { bound, placed } = one;
  const { work } = bound;
  // A guest is judged by the storm of its host.
  const facts: StormFacts = { ...(hostFacts ?? own), links: own.links };
  const company: Company = {
    host: host?.placed.host ?? null,
    guests: guests.map((g) => g.bound.work),
    siblings: siblings.map((s) => s.bound.work),
    hostFacts,
  };
  const sheet = new Worksheet(work.id);
  const figures = attempt(work, () => (wantsFigures ? placed.figures(facts, sheet) : []), []);
  const checks = attempt(work, () => placed.checks(facts, company), []);
  return { figures: figures.value, checks: asItself(checks.value), lines: sheet.lines, failed: [figures.failed, checks.failed] };
}

const NOBODY: readonly Placed[] = [];

/** What works are judged by. */
function beforeAll({ works, facts, placed, guests, isAside }: Told): Columns<Before> {
  const ids = idsOf(works);
  const hosts = works.map(({ one }) => one.bound.hostId);
  const ofHost = <T, U>(map: ReadonlyMap<string, T>, otherwise: U): (T | U)[] =>
    hosts.map((id) => (id === null ? otherwise : (map.get(id) ?? otherwise)));
  return [
    works.map(({ one }) => one),
    knownOf(ids, facts),
    ofHost(placed, null),
    ofHost(facts, null),
    columnOf(ids, guests, NOBODY),
    ofHost(guests, NOBODY),
    forAll(!isAside),
  ];
}

/** Checks of the ways water takes out of every store. */
function wayChecks({ water, run, placed, graph, project, missing }: Told): CheckParts {
  // What goes down into a pipe runs over no ground.
  const pipes = pipesAmong(water.stores);
  const { stores } = water;
  const ids = idsOf(stores);
  const flows = columnOf(ids, run.flows, NO_FLOWS);
  const over = pipes.size === 0 ? flows : flows.map((list) => list.filter((l) => !pipes.has(l.to)));
  const names = stores.map(({ id, work }) => placed.get(work)?.bound.work.name ?? id);
  const natural = columnOf(ids, run.hydrology.natural, null);
  const { all: lists } = graph.each(
    'ways',
    { ids, columns: [over, names, natural, forAll(missing), forAll(project.features)] },
    waysJudged,
  );
  return oncePerWork('ways', water.stores, { lists, graph });
}
const NO_FLOWS: readonly LinkFlow[] = [];

type WayOn = Parameters<typeof checkWay>[0];

function waysJudged(
  ...[links, name, peakWithoutM3s, missing, features]: [readonly LinkFlow[], string, number | null, readonly Missing[], WayOn['features']]
): Check[] {
  return links.flatMap((link) => checkWay({ missing, name, features, peakWithoutM3s, link }));
}

/** Checks of the rain and of the methods chosen for what each store catches. */
function catchmentChecks(told: Told, erosion: DerivedErosion | null): CheckParts {
  const { water, run, durationsMin, graph } = told;
  const { rain } = run;
  const grounds = groundChecks(told, erosion);
  const ids = idsOf(water.stores);
  const runoff = ids.map((id) => run.hydrology.runoff.get(id)?.runoff ?? null);
  const rains = graph.each('rain', { ids, columns: [runoff, forAll(rain), forAll(durationsMin)] }, rainJudged).all;
  const lists = graph.each('rain-and-ground', { ids, columns: [rains, columnOf(ids, grounds, NO_CHECKS)] }, bothJudged).all;
  return oncePerWork('rain', water.stores, { lists, graph });
}
const NO_CHECKS: readonly Check[] = [];

const bothJudged = (ofRain: readonly Check[], ofGround: readonly Check[]): readonly Check[] =>
  ofGround.length === 0 ? ofRain : ofRain.length === 0 ? ofGround : [...ofRain, ...ofGround];

const rainJudged = (runoff: Runoff | null, rain: OneRain | null, durationsMin: Told['durationsMin']): readonly Check[] =>
  rain && runoff ? checkRain({ rain, runoff, durationsMin }) : [];

/** Figures and checks of every work that stands, and of what stands between them. */
export function judge(told: Told, on: { readonly erosion: DerivedErosion | null; readonly exits: readonly ExitFlows[] }): Judged {
  const { project, world, graph } = told;
  const { ids, all: judged } = graph.each('judge', { ids: idsOf(told.works), columns: beforeAll(told) }, judgeOne);
  const { pins, features } = project;
  const seen = graph.each('seen', { ids: idsOf(features), columns: [features, forAll(world.model), forAll(features)] }, seenJudged);
  return {
    // Told aside, nobody asks for more than checks.
    figures: told.isAside ? {} : Object.fromEntries(judged.map(({ figures }, k) => [ids[k], figures])),
    worksheets: told.isAside ? [] : judged.flatMap(({ lines }) => lines),
    failed: told.isAside ? [] : judged.flatMap(({ failed }) => failed),
    checks: [
      { word: 'work', parts: judged.map(({ checks }, k) => ({ id: ids[k], checks })) },
      wayChecks(told),
      { word: 'pin', parts: pins.map(({ id, at }) => ({ id, checks: checkPin(id, cellAt(world.model.grid, at) < 0) })) },
      catchmentChecks(told, on.erosion),
      { word: 'seen', parts: seen.all.map((checks, k) => ({ id: seen.ids[k], checks })) },
      ...acrossChecks(told, on.exits),
    ],
  };
}

const seenJudged = (feature: Feature, model: GroundModel, features: readonly Feature[]): readonly Check[] =>
  checkSeen({ ...model, feature, features });
