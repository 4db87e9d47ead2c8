// Everything that is said of a run: the stable JSON, and what the page shows beside it.
import type { Check, Condition, Link } from '../../contract/index.ts';
import { cascadeOrder } from '../../network/index.ts';
import type { Hollow } from '../../terrain/index.ts';
import { spoken } from '../../units/index.ts';
import { type Graph, columnOf, idsOf } from '../graph/graph.ts';
import { type Run, outcomeSheets } from '../run/run.ts';
import { hydrologySheets } from '../run/watersheds.ts';
import type { Scenario } from '../scenario/scenario.ts';
import { type Laid, rainOver } from '../set/laid.ts';
import type { Looks } from '../set/rare.ts';
import type { SetRan } from '../set/set.ts';
import { exitWorst } from '../set/worst-of.ts';
import type { DeriveResult, Derived, DerivedErosion, DerivedHollow, View } from '../types.ts';
import { failureChecks } from '../water/standing.ts';
import { type Water, storesOnly } from '../water/water.ts';
import { insideOf } from '../world/catchments.ts';
import { hollowsIn } from '../world/ground-model.ts';
import { canHeal } from '../world/surfaces.ts';
import { erosionOf } from './erosion.ts';
import { type CheckParts, allOf, broughtTogether } from './check-parts.ts';
import { type Told, toldOf } from './facts.ts';
import { groundsOf } from './grounds.ts';
import { type Judged, judge } from './judge.ts';
import { knownChecks, pegsKnown } from './known.ts';
import { diagnosesOf, eachOf, handOversOf, makingOf, quantityRows } from './making.ts';
import { type Pictures, picturesFor } from './pictures.ts';
import { NO_SET, seriesOf, setJson, setView, storesTold } from './stores.ts';
import { plainVerdicts } from './verdict.ts';

/** What is said of a project without terrain: what is missing, and nothing else. */
export function withoutGround({ project, option }: Scenario): DeriveResult {
  const bare = {
    format: 'outlet-derived',
    version: 1,
    option: option.id,
    set: null,
    terrain: null,
    catchments: [],
    runoff: [],
    hollows: [],
    springs: [],
    groundAs: 'now',
    grounds: [],
    exits: [],
    erosion: null,
    stores: [],
    links: [],
    outlets: [],
    conduits: [],
    balance: null,
    checks: [],
    uncomputed: [],
    quantities: [],
    pegs: [],
    worksheets: [],
  } as const;
  return {
    derived: { ...bare, verdicts: plainVerdicts(project, { ...bare, verdicts: {} }) },
    view: {
      making: {},
      diagnoses: {},
      each: {},
      handOvers: {},
      order: [],
      series: [],
      flows: [],
      storm: null,
      ...NO_SET,
      marks: [],
      figures: {},
      sections: {},
      shapes: {},
      rings: {},
    },
  };
}

/** Everything told of the strict part of a set, and of ground found worse than usual. */
function judgements(
  { set, crests }: { readonly set: SetRan; readonly crests: Looks['crests'] },
  erosion: DerivedErosion | null,
  graph: Graph,
): { readonly told: Told; readonly judged: Judged; readonly checks: readonly Check[] } {
  const { scenario, durationsMin } = set;
  const toldBy = ({ world, water, scenario: own }: Laid, run: Run, isAside: boolean): Told =>
    // What is shown changes nothing of what is judged.
    toldOf(own.project, { isAside, durationsMin, crests, world, water, run: { ...run, rain: rainOver(own.project) }, graph });
  // Silt is a matter of years, not of how the ground is found in one storm.
  const judgedBy = (told: Told): Judged => judge(told, { erosion, exits: told.run.leaving.map((l) => l.told) });
  const apart = (name: string, laid: Laid, run: Run): readonly CheckParts[] =>
    graph.runFor(`${scenario.id}|judged-${name}`, () => judgedBy(toldBy(laid, run, true)).checks);
  const told = toldBy(set, set.worst, false);
  const judged = judgedBy(told);
  // Answers wanted at once leave out in what condition each is so grave.
  if (set.conditions.length === 1 || !set.isWhole) return { told, judged, checks: allOf(judged.checks) };
  const asFound = apart('found', set, set.asFound);
  const beyond = set.beyond.map(({ condition, laid, worst }) => ({ condition, lists: apart(condition, laid, worst) }));
  return { told, judged, checks: broughtTogether(judged.checks, { asFound, beyond, conditionOf: gravestIn(set), graph }) };
}

/** How water is found when what hangs on a work is at its worst. */
function gravestIn({ atWorst, water }: SetRan): (on: string) => Condition {
  const found = new Map<string, Condition>();
  for (const store of water.stores) {
    const { leastIn } = atWorst.storeOf(store.id);
    // Of a work of several the first store speaks, as it does for those that share it.
    for (const id of [store.id, store.work, ...(store.alsoOf ?? [])]) if (leastIn && !found.has(id)) found.set(id, leastIn);
  }
  const hosts = new Map(water.works.map(({ bound }) => [bound.work.id, bound.hostId]));
  return (on) => found.get(hosts.get(on) ?? on) ?? 'full';
}

const erosionIn = ({ scenario: { project }, world: { model, map }, water }: SetRan, graph: Graph): ReturnType<typeof erosionOf> => {
  const inside = insideOf(model, project.site.outline, graph);
  return erosionOf(project.ground, { model, graph, map, met: water.met, stores: water.stores, gathered: water.catchments, inside });
};

/** Everything that is said of a set of storms run on a scenario. */
export function tell(set: SetRan, looks: Looks, graph: Graph): DeriveResult {
  const { scenario, world, water, shown } = set;
  const { project, option } = scenario;
  const { model, map } = world;
  const { ground } = project;
  const { failures } = water;
  const { storm } = shown.hydrology;
  const erosion = erosionIn(set, graph);
  const { told, judged, checks: ofWorks } = judgements({ set, crests: looks.crests }, erosion?.told ?? null, graph);
  const inside = insideOf(model, project.site.outline, graph);
  judged.failed.forEach((f) => failures.add(f));
  const pictures = picturesFor(told);
  const pegs = pegsKnown(
    pictures.flatMap((p) => failures.of(p.pegs)),
    world,
  );
  const made = makingOf(told).flatMap(([id, one]) => {
    const value = failures.of(one);
    return value ? [[id, value] as const] : [];
  });
  const making = Object.fromEntries(made);
  const each = eachOf(told);
  const drawn = drawnOf(pictures, told);
  // Last of all, since any part of a work's results may have failed.
  const stored = storesTold(set, looks, graph);
  const ofGround = knownChecks(world, water, { stores: stored.stores, graph });
  const checks = gravestFirst([...failureChecks(failures), ...water.bridged, ...ofWorks, ...ofGround]);
  const partial: Derived = {
    format: 'outlet-derived',
    version: 1,
    option: option.id,
    set: setJson(set),
    terrain: model.stats,
    catchments: water.catchments.map((g) => g.catchment),
    runoff: water.catchments.flatMap(({ catchment }) => shown.hydrology.runoff.get(catchment.of)?.runoff ?? []),
    hollows: graph.step('hollows-told', [hollowsIn(model, graph)], (all) => all.flatMap((h) => (h.isNoise ? [] : [hollowJson(h)]))),
    springs: water.springs,
    groundAs: ground && canHeal(ground) ? (ground.as ?? 'now') : 'now',
    grounds: ground && map ? groundsOf({ ...project, ground }, { model, graph, map, inside, storm }) : [],
    exits: shown.leaving.map(({ told: exit }) => ({ ...exit, worst: exitWorst(set.members, exit.id) })),
    erosion: erosion?.told ?? null,
    ...stored,
    balance: shown.result?.balance ?? null,
    checks,
    uncomputed: failures.list().map(({ work, why, said, offM }) => ({ work, why, what: spoken(said, 'metric'), offM })),
    quantities: quantityRows(made, graph),
    pegs,
    verdicts: {},
    worksheets: [
      ...graph.step('hydrology-sheets', [shown.hydrology], hydrologySheets),
      ...judged.worksheets,
      ...outcomeSheets(set.worst),
      ...(erosion?.lines ?? []),
    ],
  };
  return {
    derived: { ...partial, verdicts: plainVerdicts(project, partial) },
    view: {
      making,
      diagnoses: diagnosesOf(told),
      each,
      handOvers: handOversOf(told),
      order: metInOrder(water, graph),
      ...seriesOf(set, graph),
      storm,
      ...setView(set),
      marks: water.works.flatMap((w) => w.placed.marks),
      figures: judged.figures,
      ...drawn,
    },
  };
}

/** Findings by severity, within it as given. */
function gravestFirst(checks: readonly Check[]): Check[] {
  const by: Record<Check['severity'], Check[]> = { mend: [], weigh: [], unknown: [], fine: [] };
  for (const check of checks) by[check.severity].push(check);
  return [...by.mend, ...by.weigh, ...by.unknown, ...by.fine];
}

/** Drawings by work, their failures noted. */
function drawnOf(pictures: readonly Pictures[], { water: { failures } }: Told): Pick<View, 'sections' | 'shapes' | 'rings'> {
  const sections: Record<string, View['sections'][string]> = {};
  const shapes: Record<string, View['shapes'][string]> = {};
  const rings: Record<string, View['rings'][string]> = {};
  for (const { id, lip, section, rings: found } of pictures) {
    if (lip) sections[id] = lip;
    const shape = failures.of(section);
    if (shape) shapes[id] = shape;
    const water = failures.of(found);
    if (water.length > 0) rings[id] = water;
  }
  return { sections, shapes, rings };
}

const NO_LINKS: readonly Link[] = [];

/** Stores as water meets them: each after those that spill into it. Found anew only when a way out leads elsewhere. */
function metInOrder({ stores, links }: Water, graph: Graph): readonly string[] {
  const ids = idsOf(stores);
  const leads = graph.each('leads', { ids, columns: [columnOf(ids, links, NO_LINKS)], isSettled: true }, (ways) => ways.map((l) => l.to));
  const order = graph.step('met-in-order', [leads.ids, leads.all], (of, all) =>
    cascadeOrder(of.map((id, k) => ({ id, outlets: all[k].map((to) => ({ to })) }))).map(({ id }) => id),
  );
  const kept = new Set(storesOnly(stores).map((s) => s.id));
  return order.filter((id) => kept.has(id));
}

function hollowJson({ at, bottomM, spillM, depthM, areaM2, volumeM3 }: Hollow): DerivedHollow {
  return { at, bottomM, spillM, depthM, areaM2, volumeM3 };
}
