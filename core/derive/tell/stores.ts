// What is told of stores, ways out and pipes: by the storm in which each store stood highest as found, and at its worst over the set.
import { type Below, type LinkFlow, NOBODY_KNOWS, type OutletStorm, type Store, hazardOf } from '../../contract/index.ts';
import type { StoreRun } from '../../network/index.ts';
import type { Storm } from '../../rain/index.ts';
import { type Graph, columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { CatchmentRunoff } from '../run/hydrology.ts';
import type { StoreOutcome } from '../run/outcomes.ts';
import type { Run } from '../run/run.ts';
import type { Looks } from '../set/rare.ts';
import type { SetRan } from '../set/set.ts';
import { type OutletsAtWorst, type StoreAtWorst, governingNames } from '../set/worst-of.ts';
import { breachesOf } from './breach.ts';
import type { Derived, DerivedSet, DerivedStore, FlowSeries, StoreSeries, View } from '../types.ts';
import { storesOnly } from '../water/water.ts';

/** The run a store's members are told of. */
const runFor = ({ governing, shown }: SetRan, store: string): Run => governing.get(store)?.run ?? shown;

export const setJson = ({ durationsMin, conditions, scenario }: SetRan): DerivedSet | null =>
  durationsMin && scenario.project.rain ? { returnYears: scenario.project.rain.storm.returnYears, durationsMin, conditions } : null;

type StoresTold = Pick<Derived, 'stores' | 'links' | 'outlets' | 'conduits'>;

export function storesTold(set: SetRan, { crests, bands }: Looks, graph: Graph): StoresTold {
  const { water, atWorst } = set;
  const { stores } = water;
  const breaches = breachesOf(stores, graph);
  const [ids, held] = [idsOf(stores), storesOnly(stores)];
  const heldIds = idsOf(held);
  const runs = ids.map((id) => runFor(set, id));
  const outlets = ids.map((id, k) => runs[k].outlets.get(id) ?? NO_OUTLETS);
  return {
    stores: graph.each(
      'store-json',
      {
        ids: heldIds,
        columns: [
          held,
          heldIds.map((id) => runFor(set, id).outcomes.get(id) ?? null),
          heldIds.map(atWorst.storeOf),
          columnOf(heldIds, water.below, NOBODY_KNOWS),
          columnOf(heldIds, bands, null),
          columnOf(heldIds, crests, null),
          columnOf(heldIds, breaches, null),
        ],
      },
      storeJson,
    ).all,
    links: linksTold(set, graph),
    outlets: graph
      .each(
        'outlets-json',
        { ids, columns: [outlets, columnOf(ids, set.worst.outlets, NO_OUTLETS), columnOf(ids, atWorst.outlets, NO_WORST)] },
        outletsJson,
      )
      .all.flat(),
    conduits: ids.flatMap((id, k) => runs[k].conduits.get(id) ?? []),
  };
}
const NO_OUTLETS: readonly OutletStorm[] = [];

/** Ways of stores, and those past some of them. */
function linksTold(set: SetRan, graph: Graph): Derived['links'] {
  const { water, shown } = set;
  const own = idsOf(water.stores);
  const ids = [...own, ...water.places.map(({ store }) => `${store}#past`)];
  const told = ids.map((id, k) => (k < own.length ? runFor(set, id) : shown).flows.get(id) ?? NO_FLOWS);
  return graph.each('links-told', { ids, columns: [told, columnOf(ids, set.worst.flows, NO_FLOWS)] }, waysTold).all.flat();
}
const NO_FLOWS: readonly LinkFlow[] = [];

/** Ways of a store with their greatest flows; a bank that is passed only when all is full or blocked is told too. */
function waysTold(own: readonly LinkFlow[], worst: readonly LinkFlow[]): Derived['links'] {
  const told = own.map((link) => ({ ...link, mostM3s: worst.find((w) => w.outlet === link.outlet)?.peakM3s ?? link.peakM3s }));
  const rare = worst.filter((w) => !own.some((link) => link.outlet === w.outlet));
  return [...told, ...rare.map((w) => ({ ...w, volumeM3: 0, peakM3s: 0, mostM3s: w.peakM3s, isRare: true as const }))];
}
const NO_WORST: OutletsAtWorst = {};

/** Ways out by the storm their store's members are of, with what they come to at their worst. */
const outletsJson = (own: readonly OutletStorm[], atWorst: readonly OutletStorm[], worst: OutletsAtWorst): Derived['outlets'] =>
  own.map((o) => ({ ...o, liningAtWorst: atWorst.find((w) => w.id === o.id)?.lining ?? o.lining, worst: worst[o.id] ?? {} }));

/** Series of stores, and of flows of catchments and of places where water leaves. */
export function seriesOf(set: SetRan, graph: Graph): Pick<View, 'series' | 'flows'> {
  const { hydrology, leaving, result } = set.shown;
  const stepS = result?.stepS ?? (hydrology.storm?.stepMin ?? 1) * 60;
  const ran = storesOnly(set.water.stores).flatMap(({ id }) => {
    const own = runFor(set, id);
    const run = own.result?.stores.get(id);
    const { storm } = own.hydrology;
    return run && own.result && storm ? [{ id, run, storm, stepS: own.result.stepS }] : [];
  });
  const ids = idsOf(ran);
  const series = graph.each(
    'series',
    { ids, columns: [ran.map((r) => r.run), ran.map((r) => r.storm), ran.map((r) => r.stepS), ids] },
    storeSeries,
  ).all;
  const shed = [...hydrology.runoff.keys()];
  const flows = graph.each('flow', { ids: shed, columns: [[...hydrology.runoff.values()], forAll(stepS), shed] }, flowSeries).all;
  return { series, flows: [...flows, ...leaving.map((l) => l.series)] };
}

const storeSeries = (...[{ levelM, inM3s, outM3s }, { stepsMm }, stepS, id]: [StoreRun, Storm, number, string]): StoreSeries => ({
  id,
  stepS,
  rainMm: stepsMm,
  levelM,
  inM3s,
  outM3s,
});

const flowSeries = ({ flowM3s }: CatchmentRunoff, stepS: number, id: string): FlowSeries => ({ id, stepS, flowM3s, withoutM3s: null });

type SetView = Pick<View, 'governs' | 'first' | 'isWhole' | 'peaks' | 'found' | 'starts'>;

export const NO_SET: SetView = { governs: {}, first: [], isWhole: true, peaks: {}, found: {}, starts: {} };

/** Which storms decide, and how high water stands in each. */
export function setView(set: SetRan): SetView {
  const { governing, water, isWhole, startsM, atWorst } = set;
  const stores = storesOnly(water.stores);
  const governs: Record<string, number> = {};
  const found: Record<string, SetView['found'][string]> = {};
  const peaks: Record<string, SetView['peaks'][string]> = {};
  for (const { id } of stores) {
    const member = governing.get(id);
    if (member) governs[id] = member.durationMin;
    const at = atWorst.storeOf(id);
    found[id] = at.found;
    peaks[id] = at.peaks;
  }
  return {
    governs,
    // Which decide is known once all were run.
    first: isWhole ? governingNames(set) : [],
    isWhole,
    starts: Object.fromEntries(startsM),
    found,
    peaks,
  };
}

const hollowJson = ({ pool: { lowAt, lowM, spillM } }: NonNullable<Store['hollow']>): DerivedStore['hollow'] => ({
  at: lowAt,
  lowM,
  spillM,
});

type StoreReads = [
  store: Store,
  outcome: StoreOutcome | null,
  atWorst: StoreAtWorst,
  below: Below,
  band: DerivedStore['band'],
  crest: DerivedStore['crest'],
  breach: DerivedStore['breach'],
];

function storeJson(...[store, outcome, { worst, least }, below, band, crest, breach]: StoreReads): DerivedStore {
  const { levelM, volumeM3, wettedM2 } = store.stage;
  const storm = outcome?.storm;
  return {
    id: store.id,
    work: store.work,
    name: store.name,
    ...(store.alsoOf && store.alsoOf.length > 0 ? { alsoOf: store.alsoOf } : {}),
    ...(store.hollow ? { hollow: hollowJson(store.hollow) } : {}),
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
    riseM: storm?.riseM ?? null,
    freeboardM: storm?.freeboardM ?? null,
    // Where the soil below is full first, nobody knows how long.
    drainDownH: storm && storm.soilShortM3 <= 0 ? storm.drainDownH : null,
    soilShortM3: storm?.soilShortM3 ?? null,
    holds: storm?.holds ?? null,
    peakInM3s: storm?.peakInM3s ?? null,
    peakOutM3s: storm?.peakOutM3s ?? null,
    spillsH: storm?.spillsH ?? null,
    nextDayM3: storm?.nextDayM3 ?? null,
    startM: storm?.startM ?? null,
    least,
    band,
    worst,
    hazard: hazardOf(below),
    hazardBy: below.said !== null ? 'said' : below.seen ? 'seen' : null,
    below: below.seen,
    crest,
    breach,
  };
}
