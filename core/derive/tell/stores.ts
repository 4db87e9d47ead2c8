// What is told of stores, ways out and pipes: by the storm in which each store stood highest as found, and at its worst over the set.
import { type Below, type Condition, NOBODY_KNOWS, type Store, hazardOf } from '../../contract/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { StoreOutcome } from '../run/outcomes.ts';
import type { Run } from '../run/run.ts';
import type { Looks } from '../set/rare.ts';
import type { SetRan } from '../set/set.ts';
import { governingNames, leastLeft, outletWorst, storeWorst } from '../set/worst-of.ts';
import { breachesOf } from './breach.ts';
import type { Derived, DerivedSet, DerivedStore, FlowSeries, StoreSeries, View } from '../types.ts';
import { storesOnly } from '../water/water.ts';

/** The run a store's members are told of. */
const runFor = ({ governing, shown }: SetRan, store: string): Run => governing.get(store)?.run ?? shown;

export const setJson = ({ durationsMin, conditions, scenario }: SetRan): DerivedSet | null =>
  durationsMin && scenario.project.rain ? { returnYears: scenario.project.rain.storm.returnYears, durationsMin, conditions } : null;

type StoresTold = Pick<Derived, 'stores' | 'links' | 'outlets' | 'conduits'>;

export function storesTold(set: SetRan, { crests, bands }: Looks, graph: Graph): StoresTold {
  const { water, members } = set;
  const { stores } = water;
  const breaches = breachesOf(stores, graph);
  const linings = new Map(set.worst.outlets.map((o) => [o.id, o.lining]));
  return {
    stores: storesOnly(stores).map((s) => {
      const outcome = runFor(set, s.id).outcomes.get(s.id) ?? null;
      return graph.step(
        `store-json:${s.id}`,
        [
          s,
          outcome,
          {
            worst: storeWorst(members, s.id),
            least: leastLeft(members, s.id),
            below: water.below.get(s.id) ?? NOBODY_KNOWS,
            crest: crests.get(s.id) ?? null,
            band: bands.get(s.id) ?? null,
            breach: breaches.get(s.id) ?? null,
          },
        ],
        storeJson,
      );
    }),
    links: [
      ...stores.flatMap((s) => runFor(set, s.id).flows.get(s.id) ?? []),
      ...water.places.flatMap(({ store }) => set.shown.flows.get(`${store}#past`) ?? []),
    ],
    outlets: stores.flatMap((s) =>
      runFor(set, s.id).outlets.flatMap((o) =>
        o.store === s.id ? [{ ...o, liningAtWorst: linings.get(o.id) ?? o.lining, worst: outletWorst(members, o.id) }] : [],
      ),
    ),
    conduits: stores.flatMap((s) => runFor(set, s.id).conduits.get(s.id) ?? []),
  };
}

/** Series of stores, and of flows of catchments and of places where water leaves. */
export function seriesOf(set: SetRan, graph: Graph): Pick<View, 'series' | 'flows'> {
  const { hydrology, leaving, result } = set.shown;
  const stepS = result?.stepS ?? (hydrology.storm?.stepMin ?? 1) * 60;
  const series = storesOnly(set.water.stores).flatMap(({ id }): StoreSeries[] => {
    const own = runFor(set, id);
    const run = own.result?.stores.get(id);
    const { storm } = own.hydrology;
    if (!run || !own.result || !storm) return [];
    return [
      graph.step(`series:${id}`, [run, storm, own.result.stepS], ({ levelM, inM3s, outM3s }, { stepsMm }, step): StoreSeries => ({
        id,
        stepS: step,
        rainMm: stepsMm,
        levelM,
        inM3s,
        outM3s,
      })),
    ];
  });
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

type SetView = Pick<View, 'governs' | 'first' | 'isWhole' | 'peaks' | 'found' | 'starts'>;

export const NO_SET: SetView = { governs: {}, first: [], isWhole: true, peaks: {}, found: {}, starts: {} };

/** Which storms decide, and how high water stands in each. */
export function setView(set: SetRan): SetView {
  const { governing, members, water, isWhole, startsM, conditions } = set;
  const stores = storesOnly(water.stores);
  return {
    governs: Object.fromEntries(stores.flatMap(({ id }) => (governing.has(id) ? [[id, governing.get(id)?.durationMin ?? 0]] : []))),
    first: governingNames(set),
    isWhole,
    starts: Object.fromEntries(startsM),
    found: Object.fromEntries(stores.map(({ id }) => [id, conditions.flatMap((condition) => leastUnder(members, id, condition))])),
    peaks: Object.fromEntries(
      stores.map(({ id }) => [
        id,
        members.flatMap(({ durationMin, condition, brief }) => {
          const storm = brief.outcomes.get(id)?.storm;
          return storm ? [{ durationMin, condition, peakLevelM: storm.peakLevelM }] : [];
        }),
      ]),
    ),
  };
}

interface Judged extends Pick<DerivedStore, 'worst' | 'least' | 'band' | 'crest' | 'breach'> {
  readonly below: Below;
}

/** The member by which a store has least left under one condition; none where nothing was run. */
function leastUnder(members: SetRan['members'], id: string, condition: Condition): View['found'][string] {
  let least: View['found'][string][number] | null = null;
  for (const { durationMin, condition: of, brief } of members) {
    const storm = of === condition ? brief.outcomes.get(id)?.storm : undefined;
    if (!storm || (least && least.leftM <= storm.freeboardM)) continue;
    least = { durationMin, condition, peakLevelM: storm.peakLevelM, leftM: storm.freeboardM };
  }
  return least ? [least] : [];
}

const hollowJson = ({ pool: { lowAt, lowM, spillM } }: NonNullable<Store['hollow']>): DerivedStore['hollow'] => ({
  at: lowAt,
  lowM,
  spillM,
});

function storeJson(store: Store, outcome: StoreOutcome | null, { worst, least, band, below, crest, breach }: Judged): DerivedStore {
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
