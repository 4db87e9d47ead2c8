// Works that stand in one hollow of the ground stand in one water: their stores become one, with the ways out of all.
import type { Outlet, Stage, Store } from '../../contract/index.ts';
import { volumeAt } from '../../network/index.ts';
import { isSamePool, poolHolds } from '../../terrain/index.ts';
import type { Graph } from '../graph/graph.ts';

/** Stores with those of one hollow as one, and the store that stands in for each that is no more. */
export interface Shared {
  readonly stores: readonly Store[];
  readonly instead: ReadonlyMap<string, string>;
}

type InHollow = Store & Required<Pick<Store, 'hollow'>>;
const isInHollow = (store: Store): store is InHollow => store.hollow !== undefined;

/** Over the edge of a hollow it runs on once, where that is lowest. */
function waysOf(group: readonly InHollow[]): Outlet[] {
  const all = group.flatMap((s) => s.outlets);
  const on = all.filter((o) => o.role === 'on');
  const lowest = on.reduce<Outlet | null>((a, o) => (a === null || o.levelM < a.levelM ? o : a), null);
  return [...all.filter((o) => o.role !== 'on'), ...(lowest ? [lowest] : [])];
}

/** What all hold at the levels of any: the hollow once, and beside it what each has of its own. */
function stageOf(group: readonly InHollow[]): Stage {
  const [{ hollow }] = group;
  const all = Float64Array.from(group.flatMap((s) => [...s.stage.levelM])).sort();
  const levelM = all.filter((level, k) => k === 0 || level - all[k - 1] > APART_M);
  const sum = (level: number, of: 'volumeM3' | 'areaM2'): number => group.reduce((a, s) => a + s.hollow.besides(level)[of], 0);
  return {
    levelM,
    volumeM3: levelM.map((level) => poolHolds(hollow.pool, level).volumeM3 + sum(level, 'volumeM3')),
    wettedM2: levelM.map((level) => Math.max(poolHolds(hollow.pool, level).areaM2, sum(level, 'areaM2'))),
  };
}

/** Levels closer than this are one [m]. */
const APART_M = 1e-6;

function oneOf(group: readonly InHollow[]): Store {
  const [first, ...others] = group;
  const stage = stageOf(group);
  const sills = group.flatMap((s) => (s.sillM === null ? [] : [s.sillM]));
  const said = group.flatMap((s) => s.hollow.saidM ?? []);
  const wayOutM = Math.min(...group.map((s) => s.wayOutM));
  return {
    ...first,
    alsoOf: [...new Set(others.map((s) => s.work))].filter((work) => work !== first.work),
    name: group.map((s) => s.name).join(' and '),
    floorM: stage.levelM[0],
    sillM: sills.length > 0 ? Math.min(...sills) : null,
    wayOutM,
    // A sill somebody knows goes before one that is only thought of.
    crestM: Math.min(...(said.length > 0 ? said : group.map((s) => s.crestM))),
    heldM3: volumeAt(stage, wayOutM),
    stage,
    outlets: waysOf(group),
  };
}

/** Puts the stores of every hollow together, under the first of them. */
export function shareHollows(stores: readonly Store[], graph: Graph): Shared {
  const groups: InHollow[][] = [];
  for (const store of stores.filter(isInHollow)) {
    const group = groups.find(([first]) => isSamePool(first.hollow.pool, store.hollow.pool));
    if (group) group.push(store);
    else groups.push([store]);
  }
  const shared = groups.filter((g) => g.length > 1);
  if (shared.length === 0) return { stores, instead: NONE };
  const instead = new Map(shared.flatMap(([first, ...others]) => others.map((s) => [s.id, first.id] as const)));
  const merged = new Map(shared.map((group) => [group[0].id, graph.step(`hollow:${group[0].id}`, [group], oneOf)]));
  return { stores: stores.flatMap((s) => (instead.has(s.id) ? [] : [merged.get(s.id) ?? s])), instead };
}
const NONE: ReadonlyMap<string, string> = new Map();
