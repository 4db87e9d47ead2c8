// What is looked at beside the set: the storm each crest must stand by who lies below it, and the set's own at the limits of the rain.
import { type CrestStorm, type LeftBand, NOBODY_KNOWS, type Store, type Worst } from '../../contract/index.ts';
import { canFail, crestYears } from '../../checks/index.ts';
import { holdsYears, stepsOfStorm, tableAt } from '../../rain/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { Slowly } from '../graph/slowly.ts';
import { rivalLengths } from '../run/worst.ts';
import { storesOnly } from '../water/water.ts';
import { type Look, lookedAt } from './looked.ts';
import type { SetRan } from './set.ts';

/** What was looked at beside the set, by store: how crests stand the storms they must hold, and what they have left by the limits of the rain. */
export interface Looks {
  readonly crests: ReadonlyMap<string, CrestStorm>;
  readonly bands: ReadonlyMap<string, LeftBand>;
}

export const NO_LOOKS: Looks = { crests: new Map(), bands: new Map() };

/** A store whose crest must stand a storm, with the condition under which it has least left in the set. */
interface Asked {
  readonly store: Store;
  readonly years: number;
  readonly least: Worst;
}

function askedOf({ water, atWorst }: SetRan): Asked[] {
  const traits = new Map(water.works.map(({ bound: { work, traits: of } }) => [work.id, of]));
  return storesOnly(water.stores).flatMap((store): Asked[] => {
    const own = traits.get(store.work);
    const { least } = atWorst.storeOf(store.id);
    if (!own || !least || !canFail(own)) return [];
    return [{ store, years: crestYears(water.below.get(store.id) ?? NOBODY_KNOWS, own), least }];
  });
}

/**
 * How each crest stands the storm it must hold: by the set itself where that is as rare, else in rare storms of the lengths that
 * came near to deciding, on the ground and water by which it has least left. Nothing is told of storms of one's own, nor while
 * only a part of the set is run.
 */
export function* crestsOf(set: SetRan, graph: Graph): Slowly<ReadonlyMap<string, CrestStorm>> {
  const { scenario, members, isWhole } = set;
  const { rain } = scenario.project;
  const crests = new Map<string, CrestStorm>();
  if (!rain || stepsOfStorm(rain.storm) || !isWhole) return crests;
  const looks: Look[] = [];
  for (const { store, years, least } of askedOf(set)) {
    const { condition, durationMin: decides } = least;
    if (years <= rain.storm.returnYears) {
      crests.set(store.id, { years: rain.storm.returnYears, leftM: least.value, by: { durationMin: decides, condition } });
      continue;
    }
    crests.set(store.id, { years, leftM: null, by: null });
    if (!holdsYears(rain.table, years)) continue;
    const rare = { ...rain, table: tableAt(rain.table, years), storm: { ...rain.storm, returnYears: years } };
    const other = { name: `crest:${years}`, rain: rare };
    const own = members.filter((m) => m.condition === condition);
    for (const durationMin of new Set([...rivalLengths(own, store.id, rain.storm), decides]))
      looks.push({ store: store.id, durationMin, condition, other });
  }
  for (const { store, durationMin, condition, leftM: left } of yield* lookedAt(looks, set, graph)) {
    const known = crests.get(store);
    if (!known || left === null || (known.leftM !== null && left >= known.leftM)) continue;
    crests.set(store, { ...known, leftM: left, by: { durationMin, condition } });
  }
  return crests;
}

/**
 * Between what each crest has least left nine times in ten, by the limits of the rain: the storm that decides, of the depths at
 * both limits. None where the rain has no limits.
 */
export function* bandsOf(set: SetRan, graph: Graph): Slowly<ReadonlyMap<string, LeftBand>> {
  const { scenario, isWhole, water, atWorst } = set;
  const { rain } = scenario.project;
  const bands = new Map<string, LeftBand>();
  if (!rain?.limits || stepsOfStorm(rain.storm) || !isWhole) return bands;
  const { limits, table } = rain;
  const low = { name: 'rain-low', rain: { ...rain, table: { ...table, depthMm: limits.lowMm } } };
  const high = { name: 'rain-high', rain: { ...rain, table: { ...table, depthMm: limits.highMm } } };
  const leasts = storesOnly(water.stores).flatMap(({ id: store }) => {
    const { least } = atWorst.storeOf(store);
    return least ? [{ store, least }] : [];
  });
  const looks = leasts.flatMap(({ store, least: { durationMin, condition } }) =>
    [low, high].map((other): Look => ({ store, durationMin, condition, other })),
  );
  const looked = yield* lookedAt(looks, set, graph);
  leasts.forEach(({ store, least }, k) => {
    const [most, fewest] = [looked[2 * k].leftM, looked[2 * k + 1].leftM];
    if (most !== null && fewest !== null) bands.set(store, { lowM: Math.min(fewest, least.value), highM: Math.max(most, least.value) });
  });
  return bands;
}
