// Everything that is said of a run: the stable JSON, and what the page shows beside it.
import type { Store } from '../../contract/index.ts';
import { cascadeOrder } from '../../network/index.ts';
import type { Hollow } from '../../terrain/index.ts';
import { spoken } from '../../units/index.ts';
import type { Graph } from '../graph/graph.ts';
import { type Run, outcomeSheets } from '../run/run.ts';
import type { StoreOutcome } from '../run/storm-run.ts';
import { hydrologySheets } from '../run/watersheds.ts';
import type { Scenario } from '../scenario/scenario.ts';
import type { DeriveResult, Derived, DerivedHollow, DerivedStore, FlowSeries, StoreSeries, View } from '../types.ts';
import { failureChecks } from '../water/standing.ts';
import { type Water, linksOf, storesOnly } from '../water/water.ts';
import { insideOf } from '../world/catchments.ts';
import { hollowsIn } from '../world/ground-model.ts';
import { canHeal } from '../world/surfaces.ts';
import type { World } from '../world/world.ts';
import { erosionOf } from './erosion.ts';
import { type Told, toldOf } from './facts.ts';
import { groundsOf } from './grounds.ts';
import { GRAVITY, judge } from './judge.ts';
import { makingOf, quantityRows } from './making.ts';
import { type Pictures, picturesFor } from './pictures.ts';
import { plainVerdicts } from './verdict.ts';

/** What is said of a project without terrain: what is missing, and nothing else. */
export function withoutGround({ project, option }: Scenario): DeriveResult {
  const bare = {
    format: 'outlet-derived',
    version: 1,
    option: option.id,
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
    view: { making: {}, order: [], series: [], flows: [], storm: null, marks: [], figures: {}, sections: {}, shapes: {}, rings: {} },
  };
}

export interface Rooms {
  readonly world: World;
  readonly water: Water;
  readonly run: Run;
  readonly graph: Graph;
}

export function tell({ project, option }: Scenario, rooms: Rooms): DeriveResult {
  const { world, water, run, graph } = rooms;
  const { model, map } = world;
  const { ground } = project;
  const { failures } = water;
  const { storm } = run.hydrology;
  const told = toldOf(project, rooms);
  const inside = insideOf(model, project.site.outline, graph);
  const erosion = erosionOf(ground, { model, graph, map, met: water.met, stores: water.stores, gathered: water.catchments, inside });
  const exits = run.leaving.map((l) => l.told);
  const judged = judge(told, { erosion: erosion?.told ?? null, exits });
  judged.failed.forEach((f) => failures.add(f));
  const pictures = picturesFor(told);
  const pegs = pictures.flatMap((p) => failures.of(p.pegs));
  const made = makingOf(told).flatMap(([id, one]) => {
    const value = failures.of(one);
    return value ? [[id, value] as const] : [];
  });
  const making = Object.fromEntries(made);
  const drawn = drawnOf(pictures, told);
  // Last of all, since any part of a work's results may have failed.
  const checks = [...failureChecks(failures), ...water.bridged, ...judged.checks].sort((a, b) => GRAVITY[a.severity] - GRAVITY[b.severity]);
  const partial: Derived = {
    format: 'outlet-derived',
    version: 1,
    option: option.id,
    terrain: model.stats,
    catchments: water.catchments.map((g) => g.catchment),
    runoff: water.catchments.flatMap(({ catchment }) => run.hydrology.runoff.get(catchment.of)?.runoff ?? []),
    hollows: graph.step('hollows-told', [hollowsIn(model, graph)], (all) => all.flatMap((h) => (h.isNoise ? [] : [hollowJson(h)]))),
    springs: water.springs,
    groundAs: ground && canHeal(ground) ? (ground.as ?? 'now') : 'now',
    grounds: ground && map ? groundsOf({ ...project, ground }, { model, graph, map, inside, storm }) : [],
    exits,
    erosion: erosion?.told ?? null,
    stores: storesOnly(water.stores).map((s) => graph.step(`store-json:${s.id}`, [s, run.outcomes.get(s.id) ?? null], storeJson)),
    links: [...run.flows.values()].flat(),
    outlets: run.outlets,
    conduits: [...run.conduits.values()],
    balance: run.result?.balance ?? null,
    checks,
    uncomputed: failures.list().map(({ work, why, said, offM }) => ({ work, why, what: spoken(said, 'metric'), offM })),
    quantities: quantityRows(making),
    pegs,
    verdicts: {},
    worksheets: [...hydrologySheets(run.hydrology), ...judged.worksheets, ...outcomeSheets(run), ...(erosion?.lines ?? [])],
  };
  return {
    derived: { ...partial, verdicts: plainVerdicts(project, partial) },
    view: {
      making,
      order: metInOrder(water),
      ...seriesOf(run, water, graph),
      storm,
      marks: water.works.flatMap((w) => w.placed.marks),
      figures: judged.figures,
      ...drawn,
    },
  };
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

/** Series of stores, and of flows of catchments and of places where water leaves. */
function seriesOf({ hydrology, result, leaving }: Run, { stores }: Water, graph: Graph): Pick<View, 'series' | 'flows'> {
  const stepS = result?.stepS ?? (hydrology.storm?.stepMin ?? 1) * 60;
  const runs = storesOnly(stores).flatMap((s) => result?.stores.get(s.id) ?? []);
  const series = runs.map((run) =>
    graph.step(`series:${run.id}`, [run, stepS], ({ id, levelM, inM3s, outM3s }, step): StoreSeries => ({
      id,
      stepS: step,
      levelM,
      inM3s,
      outM3s,
    })),
  );
  const flows = [...hydrology.runoff].map(([id, runoff]) =>
    graph.step(`flow:${id}`, [runoff, stepS, id], ({ flowM3s }, step, of): FlowSeries => ({
      id: of,
      stepS: step,
      flowM3s,
      withoutM3s: null,
    })),
  );
  return { series, flows: [...flows, ...leaving.map((l) => l.series)] };
}

/** Stores as water meets them: each after those that spill into it. */
function metInOrder(water: Water): string[] {
  const { stores } = water;
  const kept = new Set(storesOnly(stores).map((s) => s.id));
  const ways = new Map<string, { readonly to: string }[]>();
  for (const { from, to } of linksOf(water)) ways.set(from, [...(ways.get(from) ?? []), { to }]);
  return cascadeOrder(stores.map(({ id }) => ({ id, outlets: ways.get(id) ?? [] }))).flatMap(({ id }) => (kept.has(id) ? [id] : []));
}

function hollowJson({ at, bottomM, spillM, depthM, areaM2, volumeM3 }: Hollow): DerivedHollow {
  return { at, bottomM, spillM, depthM, areaM2, volumeM3 };
}

function storeJson(store: Store, outcome: StoreOutcome | null): DerivedStore {
  const { levelM, volumeM3, wettedM2 } = store.stage;
  const storm = outcome?.storm;
  return {
    id: store.id,
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
