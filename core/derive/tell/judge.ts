// Figures and checks of every work, each worked out anew only when what it reads differs.
import type { Check, Company, Figure, Missing, Store, StormFacts } from '../../contract/index.ts';
import { type Uncomputed, checkPin, checkRain, checkSeen, checkWay } from '../../checks/index.ts';
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import { cellAt } from '../../terrain/index.ts';
import type { DerivedErosion, ExitFlows } from '../types.ts';
import { attempt } from '../water/standing.ts';
import type { Placed } from '../water/stores.ts';
import { pipesAmong } from '../water/water.ts';
import { acrossChecks } from './across.ts';
import type { Told } from './facts.ts';
import { oncePerWork } from './graver.ts';
import { groundChecks } from './ground-checks.ts';

export interface Judged {
  readonly checks: readonly Check[];
  readonly worksheets: readonly WorksheetLine[];
  readonly figures: Readonly<Record<string, readonly Figure[]>>;
  readonly failed: readonly (Uncomputed | null)[];
}

export const GRAVITY: Record<Check['severity'], number> = { mend: 0, weigh: 1, unknown: 2, fine: 3 };

/** What one work is judged by: itself, what is known of it, and who stands with it. */
interface Before {
  readonly one: Placed;
  readonly facts: StormFacts;
  readonly host: Placed | null;
  readonly hostFacts: StormFacts | null;
  readonly guests: readonly Placed[];
  readonly siblings: readonly Placed[];
  /** Whether its figures are wanted, or its checks alone. */
  readonly wantsFigures: boolean;
}

interface Judgement {
  readonly figures: readonly Figure[];
  readonly checks: readonly Check[];
  readonly lines: readonly WorksheetLine[];
  readonly failed: readonly (Uncomputed | null)[];
}

function judgeOne({ one, facts: own, host, hostFacts, guests, siblings, wantsFigures }: Before): Judgement {
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
  return { figures: figures.value, checks: checks.value, lines: sheet.lines, failed: [figures.failed, checks.failed] };
}

function judgementOf(one: Placed, told: Told): Judgement {
  const { work, hostId } = one.bound;
  const facts = told.facts.get(work.id);
  if (!facts) throw new Error(`nothing is known of ${work.id}`);
  const before: Before = {
    one,
    facts,
    host: hostId === null ? null : (told.placed.get(hostId) ?? null),
    hostFacts: hostId === null ? null : (told.facts.get(hostId) ?? null),
    guests: told.guests.get(work.id) ?? [],
    siblings: hostId === null ? [] : (told.guests.get(hostId) ?? []),
    wantsFigures: !told.isAside,
  };
  return told.graph.step(`judge:${work.id}`, [before], judgeOne);
}

/** Checks of the ways water takes out of every store. */
function wayChecks({ water, run, placed, graph, project, missing }: Told): Check[] {
  // What goes down into a pipe runs over no ground.
  const pipes = pipesAmong(water.stores);
  return oncePerWork(water.stores, ({ id, work }) => {
    const name = placed.get(work)?.bound.work.name ?? id;
    const peakWithoutM3s = run.hydrology.natural.get(id) ?? null;
    const on: WayOn = { missing, name, features: project.features, peakWithoutM3s };
    const flows = run.flows.get(id) ?? [];
    const down = flows.flatMap((l) => (pipes.has(l.to) ? [l.to] : []));
    const over = down.length === 0 ? flows : graph.step(`over-ground:${id}`, [flows, { down }], (links, into) => links.filter((l) => !into.down.includes(l.to))); // prettier-ignore
    return graph.step(`ways:${id}`, [over, on], (links, known) => links.flatMap((link) => checkWay({ ...known, link })));
  });
}

type WayOn = Omit<Parameters<typeof checkWay>[0], 'link'> & { readonly missing: readonly Missing[] };

/** Figures and checks of every work that stands, and of what stands between them. */
export function judge(told: Told, on: { readonly erosion: DerivedErosion | null; readonly exits: readonly ExitFlows[] }): Judged {
  const { project, world, water, graph, run, durationsMin } = told;
  const judged = water.works.map((one) => [one.bound.work.id, judgementOf(one, told)] as const);
  const { pins, features } = project;
  const { rain } = run;
  const catchmentChecks = ({ id, work }: Store): readonly Check[] => {
    const runoff = run.hydrology.runoff.get(id)?.runoff;
    if (!rain || !runoff) return [];
    return [
      ...graph.step(`rain:${id}`, [rain, { runoff, durationsMin }], (by, known) => checkRain({ rain: by, ...known })),
      ...groundChecks(work, id, { told, ...on }),
    ];
  };
  const rains = oncePerWork(water.stores, catchmentChecks);
  return {
    figures: Object.fromEntries(judged.map(([id, { figures }]) => [id, figures])),
    worksheets: judged.flatMap(([, { lines }]) => lines),
    failed: judged.flatMap(([, { failed }]) => failed),
    checks: [
      ...judged.flatMap(([, { checks }]) => checks),
      ...wayChecks(told),
      ...pins.flatMap((pin) => checkPin(pin.id, cellAt(world.model.grid, pin.at) < 0)),
      ...rains,
      ...features.flatMap((feature) =>
        graph.step(`seen:${feature.id}`, [world.model, feature, features], (model, one, all) =>
          checkSeen({ ...model, feature: one, features: all }),
        ),
      ),
      ...acrossChecks(told, on.exits),
    ],
  };
}
