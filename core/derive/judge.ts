// Figures and checks of every work, worst first; and what each may read of the storm.
import type { Catchment, Check, Company, Figure, LinkFlow, Missing, Site, Store, StoreStorm, StormFacts } from '../contract/index.ts';
import { checkPin, checkRain, checkSeen, checkWay } from '../checks/index.ts';
import { Worksheet, type WorksheetLine } from '../formula/index.ts';
import type { RouteResult } from '../network/index.ts';
import type { Project } from '../project/index.ts';
import { cellAt } from '../terrain/index.ts';
import { acrossChecks } from './across.ts';
import { groundChecks } from './ground-checks.ts';
import type { GroundUnder } from './soak.ts';
import type { Failures } from './standing.ts';
import { designPeakOf } from './storm-run.ts';
import type { Placed } from './stores.ts';
import type { GroundModel } from './terrain-steps.ts';
import type { DerivedErosion, DerivedExit } from './types.ts';
import type { Hydrology } from './watersheds.ts';

/** What the project does not say yet. */
export const missingIn = ({ rain, ground }: Pick<Project, 'rain' | 'ground'>): Missing[] => [
  ...(rain ? [] : (['rain'] as const)),
  ...(ground ? [] : (['ground'] as const)),
];

interface Known {
  readonly missing: readonly Missing[];
  readonly site: Site;
  readonly stores: readonly Store[];
  readonly storms: ReadonlyMap<string, StoreStorm>;
  readonly catchments: readonly Catchment[];
  readonly hydrology: Hydrology;
  readonly flows: readonly LinkFlow[];
}

/** What the checks of a work may read. */
export function factsFinder({ missing, site, stores, storms, catchments, hydrology, flows }: Known): (id: string) => StormFacts {
  const joints = new Set(stores.flatMap((s) => s.outlets.flatMap((o) => (o.kind === 'joint' ? [o.id] : []))));
  return (id) => {
    const store = stores.find((s) => s.work === id) ?? null;
    const storm = storms.get(id) ?? null;
    const runoff = hydrology.runoff.get(id);
    const catchment = catchments.find((c) => c.of === id);
    return {
      missing,
      site,
      store,
      storm,
      catchment: catchment ?? null,
      runoff: runoff?.runoff ?? null,
      links: flows.filter((l) => l.from === id || l.work === id),
      designPeakM3s: store ? designPeakOf(store, storm, { runoff, links: flows, catchment, joints }) : null,
    };
  };
}

export interface Judged {
  readonly checks: Check[];
  readonly worksheets: WorksheetLine[];
  readonly figures: Record<string, readonly Figure[]>;
}

export const GRAVITY: Record<Check['severity'], number> = { mend: 0, weigh: 1, unknown: 2, fine: 3 };

/** Figures and checks of every work that stands. */
export function judge(
  works: readonly Placed[],
  factsOf: (id: string) => StormFacts,
  on: {
    missing: readonly Missing[];
    project: Project;
    model: GroundModel;
    flows: readonly LinkFlow[];
    hydrology: Hydrology;
    under: ReadonlyMap<string, GroundUnder>;
    erosion: DerivedErosion | null;
    stores: readonly Store[];
    result: RouteResult | null;
    exits: readonly DerivedExit[];
    failures: Failures;
  },
): Judged {
  const checks: Check[] = [];
  const worksheets: WorksheetLine[] = [];
  const figures: Record<string, readonly Figure[]> = {};
  for (const { bound, placed } of works) {
    const { work, hostId } = bound;
    if (work.status === 'retired') continue;
    const hostFacts = hostId === null ? null : factsOf(hostId);
    // A guest is judged by the storm of its host.
    const facts: StormFacts = { ...(hostFacts ?? factsOf(work.id)), links: factsOf(work.id).links };
    const company: Company = {
      host: works.find((w) => w.bound.work.id === hostId)?.placed.host ?? null,
      guests: works.filter((w) => w.bound.hostId === work.id).map((w) => w.bound.work),
      siblings: works
        .filter((w) => hostId !== null && w.bound.hostId === hostId && w.bound.work.status !== 'retired')
        .map((w) => w.bound.work),
      hostFacts,
    };
    const sheet = new Worksheet(work.id);
    figures[work.id] = on.failures.attempt(work, () => placed.figures(facts, sheet), []);
    worksheets.push(...sheet.lines);
    checks.push(...on.failures.attempt(work, () => placed.checks(facts, company), []));
  }
  for (const link of on.flows) {
    const name = works.find((w) => w.bound.work.id === link.from)?.bound.work.name ?? link.from;
    const peakWithoutM3s = on.hydrology.natural.get(link.from) ?? null;
    checks.push(...checkWay({ missing: on.missing, link, name, features: on.project.features, peakWithoutM3s }));
  }
  const { features, rain, pins } = on.project;
  checks.push(...pins.flatMap((pin) => checkPin(pin.id, cellAt(on.model.grid, pin.at) < 0)));
  // Filed under the works that store: a pin's catchment holds nothing that could fail.
  for (const { bound } of works) {
    const runoff = on.hydrology.runoff.get(bound.work.id)?.runoff;
    if (!rain || !runoff || bound.work.status === 'retired') continue;
    checks.push(...checkRain({ rain, runoff }), ...groundChecks(bound.work.id, on));
  }
  for (const feature of features) checks.push(...checkSeen({ ...on.model, feature, features }));
  checks.push(...acrossChecks(works, factsOf, on));
  return { checks, worksheets, figures };
}
