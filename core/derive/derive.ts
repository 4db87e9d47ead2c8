import type { BoundWork, Host, Link, SectionShape, Site, Store, StoreStorm } from '../contract/index.ts';
import type { Line } from '../geometry/index.ts';
import { Worksheet, type WorksheetLine } from '../formula/index.ts';
import { type RouteResult, cascadeOrder } from '../network/index.ts';
import { DEFAULT_SURVEY, type Option, type Project, optionOf } from '../project/index.ts';
import type { Hollow } from '../terrain/index.ts';
import { spoken } from '../units/index.ts';
import { type Peg, finishPegs } from '../survey/index.ts';
import type { Registry } from '../works/index.ts';
import { exitGrounds, insideOf, interception, pinCatchments, workCatchments } from './catchments.ts';
import { exitFlows } from './exits.ts';
import { erosionOf } from './erosion.ts';
import { groundsOf } from './grounds.ts';
import { makingOf, quantityRows } from './making.ts';
import { Memo } from './memo.ts';
import { type GridSource, type GroundModel, type Progress, groundModel, hollowsIn } from './terrain-steps.ts';
import { AS_DESIGNED, type Conditions, caseOf, underCase } from './conditions.ts';
import { linkFlows, outletStorms, runStorm, stormOf } from './storm-run.ts';
import type { DeriveResult, Derived, DerivedHollow, DerivedStore } from './types.ts';
import { baseFlows, springsOf } from './springs.ts';
import { canHeal, groundAt, surfaceMap } from './surfaces.ts';
import { type GroundUnder, groundUnder } from './soak.ts';
import { GRAVITY, factsFinder, judge, missingIn } from './judge.ts';
import { type Failures, failureChecks, standingOf } from './standing.ts';
import { type Placed, tracedLinks } from './stores.ts';
import { hydrologyOf } from './watersheds.ts';
import { plainVerdicts } from './verdict.ts';

export interface DeriveContext {
  readonly registry: Registry;
  readonly grids: GridSource;
  /** Kept between calls, it makes an edit cost only what it touches. */
  readonly memo?: Memo;
  readonly progress?: Progress;
  readonly option?: string;
  /** A case of the project, by its id. */
  readonly case?: string;
}

/** What is computed, with the stores as they were routed: their laws are functions, which no worker can send. */
export interface DerivedStores extends DeriveResult {
  readonly stores: readonly Store[];
  /** What each work that stores or is joined lends to its guests. */
  readonly hosts: ReadonlyMap<string, Host>;
}

/** Everything computed from a document. Deterministic: same document and assets, same result. */
export function derive(project: Project, context: DeriveContext): DeriveResult {
  const { derived, view } = deriveStores(project, context);
  return { derived, view };
}

export function deriveStores(project: Project, context: DeriveContext): DerivedStores {
  const memo = context.memo ?? new Memo();
  const option = optionOf(project, context.option);
  const { project: asked, conditions } =
    context.case === undefined ? { project, conditions: AS_DESIGNED } : underCase(project, caseOf(project, context.case));
  const model = groundModel(project, { grids: context.grids, memo, progress: context.progress });
  const bound = option.works.map((work) => context.registry.bind(work));
  const result = model ? onGround(asked, model, { bound, memo, option, conditions }) : withoutGround(asked, option.id);
  memo.sweep();
  return result;
}

function withoutGround(project: Project, option: string): DerivedStores {
  const bare = {
    format: 'outlet-derived',
    version: 1,
    option,
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
    balance: null,
    checks: [],
    uncomputed: [],
    quantities: [],
    pegs: [],
    worksheets: [],
  } as const;
  return {
    derived: { ...bare, verdicts: plainVerdicts(project, { ...bare, verdicts: {} }) },
    view: { making: {}, order: [], series: [], flows: [], storm: null, marks: [], figures: {}, sections: {}, shapes: {}, rings: {} },
    stores: [],
    hosts: new Map(),
  };
}

interface OnGround {
  readonly bound: readonly BoundWork[];
  readonly memo: Memo;
  readonly option: Option;
  readonly conditions: Conditions;
}

function onGround(project: Project, model: GroundModel, on: OnGround): DerivedStores {
  const { memo, bound, conditions } = on;
  const { ground } = project;
  const map = surfaceMap(project, model, memo);
  const site: Site = {
    grid: model.grid,
    outline: project.site.outline,
    features: project.features,
    soilAt: (at) => (map ? groundAt(map.surfaces, at) : null),
  };
  const { works, stores, failures, bridged } = standingOf(bound, { model, site, memo, conditions });
  const standing = works.map((w) => w.bound);
  const met = interception(model, standing, memo);
  const gathered = [...pinCatchments(model, project, memo), ...workCatchments(model, met, memo)];
  const catchments = gathered.map((g) => g.catchment);
  const exits = ground && project.rain ? exitGrounds(model, project, { met, memo }) : [];
  const hydrology = hydrologyOf({ project, model, memo, map }, { bound: standing, catchments: gathered, exits: exits.map((e) => e.whole) });
  const under = map ? groundUnder(stores, works, map.surfaces) : new Map<string, GroundUnder>();
  const soaksIn = new Map([...under].map(([id, u]) => [id, u.rateMmPerHour]));
  const erosion = erosionOf(ground, { model, memo, map, met, stores, gathered, inside: insideOf(model, project, memo) });
  const links = tracedLinks(project, model, { option: on.option, stores, works, met, memo });
  const springs = springsOf(project, model, { met, memo });
  const stepS = (hydrology.storm?.stepMin ?? 1) * 60;
  const result: RouteResult | null =
    hydrology.storm && stores.length > 0
      ? runStorm({
          stores,
          links,
          runoff: hydrology.runoff,
          catchments,
          base: baseFlows(springs),
          storm: hydrology.storm,
          soaksIn,
          soakage: project.rain?.storm.soakage === true,
          conditions,
        })
      : null;
  const storms = new Map<string, StoreStorm>();
  const drainSheets: WorksheetLine[] = [];
  for (const store of stores) {
    const run = result?.stores.get(store.work);
    if (!run || !result) continue;
    const sheet = new Worksheet(store.work);
    storms.set(store.work, stormOf(store, run, { result, soaksIn, sheet }));
    drainSheets.push(...sheet.lines);
  }
  const flows = linkFlows(links, result, stores);
  const missing = missingIn(project);
  const factsOf = factsFinder({ missing, site, stores, storms, catchments, hydrology, flows });
  const { weather, storm } = hydrology;
  const leaving = weather && storm ? exitFlows({ weather, storm, grounds: exits, links, result }) : [];
  const told = { erosion: erosion?.told ?? null, exits: leaving.map((l) => l.told) };
  const judged = judge(works, factsOf, { missing, project, model, flows, hydrology, under, stores, result, failures, ...told });
  const survey = project.survey ?? DEFAULT_SURVEY;
  const pegs = works.flatMap(({ bound: b, placed }): Peg[] =>
    b.work.status === 'retired'
      ? []
      : finishPegs(
          b.work.id,
          failures.attempt(b.work, () => placed.pegs(survey.pegIntervalM, stores.find((s) => s.work === b.work.id)?.wayOutM ?? null), []),
          survey.heightOfCollimationM,
        ),
  );
  const making = makingOf(works, factsOf, failures);
  const sections = Object.fromEntries(works.flatMap((w) => sectionOf(w)));
  const [shapes, rings] = [shapesOf(works, storms, failures), ringsOf(works, stores, failures)];
  // Last of all, since any part of a work's results may have failed.
  const checks = [...failureChecks(failures, bound), ...bridged, ...judged.checks].sort(
    (a, b) => GRAVITY[a.severity] - GRAVITY[b.severity],
  );
  const partial: Derived = {
    format: 'outlet-derived',
    version: 1,
    option: on.option.id,
    terrain: model.stats,
    catchments,
    runoff: catchments.flatMap((c) => hydrology.runoff.get(c.of)?.runoff ?? []),
    hollows: hollowsIn(model, memo).flatMap((h) => (h.isNoise ? [] : [hollowJson(h)])),
    springs,
    groundAs: ground && canHeal(ground) ? (ground.as ?? 'now') : 'now',
    grounds: ground && map ? groundsOf({ ...project, ground }, { model, memo, map, storm }) : [],
    ...told,
    stores: stores.map((s) => storeJson(s, storms.get(s.work) ?? null)),
    links: flows,
    outlets: result ? outletStorms(stores, result, (at) => site.soilAt(at)?.cover ?? null) : [],
    balance: result?.balance ?? null,
    checks,
    uncomputed: failures.list().map(({ work, why, said, offM }) => ({ work, why, what: spoken(said, 'metric'), offM })),
    quantities: quantityRows(making),
    pegs,
    verdicts: {},
    worksheets: [...hydrology.worksheets, ...judged.worksheets, ...drainSheets, ...(erosion?.lines ?? [])],
  };
  return {
    derived: { ...partial, verdicts: plainVerdicts(project, partial) },
    view: {
      making,
      order: metInOrder(stores, links),
      series: [...(result?.stores.values() ?? [])].map((r) => ({ id: r.id, stepS, levelM: r.levelM, inM3s: r.inM3s, outM3s: r.outM3s })),
      flows: [
        ...[...hydrology.runoff].map(([id, { flowM3s }]) => ({ id, stepS, flowM3s, withoutM3s: null })),
        ...leaving.map((l) => l.series),
      ],
      storm,
      marks: works.flatMap((w) => (w.bound.work.status === 'retired' ? [] : w.placed.marks)),
      figures: judged.figures,
      sections,
      shapes,
      rings,
    },
    stores,
    hosts: new Map(works.flatMap(({ bound: { work }, placed: { host } }) => (host ? [[work.id, host] as const] : []))),
  };
}

/** Stores as water meets them: each after those that spill into it. */
function metInOrder(stores: readonly Store[], links: readonly Link[]): string[] {
  return cascadeOrder(stores.map((s) => ({ id: s.work, outlets: links.flatMap(({ from, to }) => (from === s.work ? [{ to }] : [])) }))).map(
    (s) => s.id,
  );
}

/** Sections of works that draw their own, with the highest water of their store, or of the store they let out. */
function shapesOf(works: readonly Placed[], storms: ReadonlyMap<string, StoreStorm>, failures: Failures): Record<string, SectionShape> {
  return Object.fromEntries(
    works.flatMap(({ bound, placed }) => {
      const water = storms.get(bound.work.id) ?? storms.get(bound.hostId ?? '');
      const section = failures.attempt(bound.work, () => placed.section?.(water?.peakLevelM ?? null), undefined);
      return section ? [[bound.work.id, section] as const] : [];
    }),
  );
}

/** Where water stands in each store when it is full. */
function ringsOf(works: readonly Placed[], stores: readonly Store[], failures: Failures): Record<string, readonly Line[]> {
  return Object.fromEntries(
    stores.flatMap((store) => {
      const own = works.find((w) => w.bound.work.id === store.work);
      const rings = own ? failures.attempt(own.bound.work, () => own.placed.waterRings?.(store.wayOutM) ?? [], []) : [];
      return rings.length > 0 ? [[store.work, rings] as const] : [];
    }),
  );
}

/** Mean lip and cross slope of a hosting work, read off its figures' own ground. */
function sectionOf({ bound, placed }: Placed): [string, { lipM: number; crossSlope: number; downhill: 1 | -1 }][] {
  const lip = placed.marks.find((m) => m.role === 'ground');
  const { host } = placed;
  if (!lip || !host || host.line.length < 2) return [];
  const [a, b] = host.line;
  const [nx, ny] = host.downhillAt(0);
  // Right of the direction is (dy, -dx).
  const isRight = nx * (b[1] - a[1]) - ny * (b[0] - a[0]) > 0;
  return [[bound.work.id, { lipM: lip.levelM, crossSlope: host.crossSlope, downhill: isRight ? 1 : -1 }]];
}

function hollowJson({ at, bottomM, spillM, depthM, areaM2, volumeM3 }: Hollow): DerivedHollow {
  return { at, bottomM, spillM, depthM, areaM2, volumeM3 };
}

function storeJson(store: Store, storm: StoreStorm | null): DerivedStore {
  const { levelM, volumeM3, wettedM2 } = store.stage;
  return {
    id: store.work,
    floorM: store.floorM,
    sillM: store.sillM,
    wayOutM: store.wayOutM,
    crestM: store.crestM,
    heldM3: store.heldM3,
    stage: Array.from(levelM, (level, i) => ({ levelM: level, volumeM3: volumeM3[i], wettedM2: wettedM2[i] })),
    inM3: storm?.inM3 ?? null,
    soakedM3: storm?.soakedM3 ?? null,
    spilledM3: storm?.spilledM3 ?? null,
    endM3: storm?.endM3 ?? null,
    peakLevelM: storm?.peakLevelM ?? null,
    firstSpillS: storm?.firstSpillS ?? null,
    freeboardM: storm?.freeboardM ?? null,
    drainDownH: storm?.drainDownH ?? null,
    holds: storm?.holds ?? null,
    peakInM3s: storm?.peakInM3s ?? null,
    peakOutM3s: storm?.peakOutM3s ?? null,
    spillsH: storm?.spillsH ?? null,
    nextDayM3: storm?.nextDayM3 ?? null,
  };
}
