// The storm each crest must stand by who lies below it, where that is rarer than the one designed for.
import { type CrestStorm, NOBODY_KNOWS, type Store, type Worst } from '../../contract/index.ts';
import { canFail, crestYears } from '../../checks/index.ts';
import { holdsYears, stepsOfStorm, tableAt } from '../../rain/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { Slowly } from '../graph/slowly.ts';
import type { Run } from '../run/run.ts';
import { rivalLengths } from '../run/worst.ts';
import { storesOnly } from '../water/water.ts';
import { rainOver, runOn } from './laid.ts';
import type { SetRan } from './set.ts';
import { leastLeft } from './worst-of.ts';

/** A store whose crest must stand a storm, with the condition under which it has least left in the set. */
interface Asked {
  readonly store: Store;
  readonly years: number;
  readonly least: Worst;
}

function askedOf({ water, members }: SetRan): Asked[] {
  const traits = new Map(water.works.map(({ bound: { work, traits: of } }) => [work.id, of]));
  return storesOnly(water.stores).flatMap((store): Asked[] => {
    const own = traits.get(store.work);
    const least = leastLeft(members, store.id);
    if (!own || !least || !canFail(own)) return [];
    return [{ store, years: crestYears(water.below.get(store.id) ?? NOBODY_KNOWS, own), least }];
  });
}

/**
 * How each crest stands the storm it must hold: by the set itself where that is as rare, else in rare storms of the lengths that
 * came near to deciding, on the ground and water by which it has least left. Nothing is told of storms of one's own, nor while only a part of
 * the set is run.
 */
export function* crestsOf(set: SetRan, graph: Graph): Slowly<ReadonlyMap<string, CrestStorm>> {
  const { scenario, members, lands, isWhole } = set;
  const { rain } = scenario.project;
  const crests = new Map<string, CrestStorm>();
  if (!rain || stepsOfStorm(rain.storm) || !isWhole) return crests;
  const known = new Map<string, Run>();
  for (const { store, years, least } of askedOf(set)) {
    const { condition } = least;
    const found = lands.get(condition);
    if (years <= rain.storm.returnYears) {
      crests.set(store.id, { years: rain.storm.returnYears, leftM: least.value, by: { durationMin: least.durationMin, condition } });
      continue;
    }
    crests.set(store.id, { years, leftM: null, by: null });
    const own = members.filter((m) => m.condition === condition);
    if (!found || !holdsYears(rain.table, years)) continue;
    for (const durationMin of new Set([...rivalLengths(own, store.id), least.durationMin])) {
      const name = `${scenario.id}|crest:${years}:${condition}:${durationMin}`;
      const rare = { ...rain, table: tableAt(rain.table, years), storm: { ...rain.storm, returnYears: years } };
      const on = { name, rain: rainOver({ rain: rare }, durationMin), startsM: found.startsM, isRaised: true, graph };
      const isNew = !known.has(name);
      const run = known.get(name) ?? graph.runFor(name, () => runOn(found.laid, on));
      known.set(name, run);
      const left = run.outcomes.get(store.id)?.storm.freeboardM ?? null;
      const { leftM = null } = crests.get(store.id) ?? {};
      if (left !== null && (leftM === null || left < leftM)) crests.set(store.id, { years, leftM: left, by: { durationMin, condition } });
      if (isNew) yield;
    }
  }
  return crests;
}
