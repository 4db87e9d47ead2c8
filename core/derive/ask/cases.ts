// What each case does, side by side, and which are worth asking.
import { type Case, type Project, optionOf } from '../../project/index.ts';
import { asDesigned, inCase, liveWorks } from '../scenario/scenario.ts';
import { boresOf } from '../scenario/standard.ts';
import type { RoomContext } from '../set/laid.ts';
import type { SetRan } from '../set/set.ts';
import { storesOnly } from '../water/water.ts';
import { setOf } from './raised.ts';
import type { Slowly } from '../graph/slowly.ts';

export interface CaseRow {
  /** Null for the works as designed. */
  readonly case: string | null;
  readonly name: string;
  readonly stores: readonly {
    readonly store: string;
    readonly peakLevelM: number | null;
    readonly freeboardM: number | null;
    readonly spillsH: number | null;
  }[];
  readonly exits: readonly { readonly exit: string; readonly isPlace: boolean; readonly peakM3s: number }[];
  /** Crests that are passed. */
  readonly passed: readonly string[];
  /** Least freeboard of all [m]. */
  readonly leastM: number | null;
}

function rowOf(name: string, id: string | null, { water, asFound: run }: SetRan): CaseRow {
  const stores = storesOnly(water.stores).map(({ id: store }) => {
    const storm = run.outcomes.get(store)?.storm;
    return { store, peakLevelM: storm?.peakLevelM ?? null, freeboardM: storm?.freeboardM ?? null, spillsH: storm?.spillsH ?? null };
  });
  const left = stores.flatMap((s) => (s.freeboardM === null ? [] : [s.freeboardM]));
  return {
    case: id,
    name,
    stores,
    exits: run.leaving.map(({ told: e }) => ({ exit: e.id, isPlace: e.isPlace, peakM3s: e.with.peakM3s })),
    passed: stores.flatMap((s) => (s.freeboardM !== null && s.freeboardM < 0 ? [s.store] : [])),
    leastM: left.length > 0 ? Math.min(...left) : null,
  };
}

/** The works as designed and under every case of the project, each in the worst storm of the set, side by side. */
export function* compareCasesSlowly(project: Project, context: RoomContext): Slowly<CaseRow[]> {
  const designed = asDesigned(project);
  const rows = [rowOf('As designed', null, setOf(designed, context))];
  for (const one of project.cases ?? []) {
    yield;
    rows.push(rowOf(one.name, one.id, setOf(inCase(designed, one.id), context)));
  }
  return rows;
}

/** Cases worth asking of these works: every pipe blocked, every way out not cut yet, and what weather and ground may do. */
export function usualCases(project: Project, { registry }: Pick<RoomContext, 'registry'>): Case[] {
  const option = optionOf(project);
  const works = liveWorks(option.works).map((work) => registry.bind(work));
  const named = (list: typeof works): { id: string; name: string }[] => list.map(({ work }) => work);
  // What holds by a wall silts up; a bank only where water is let out of it by making.
  const hosts = new Set(works.map((w) => w.hostId));
  const stores = named(works.filter(({ traits, work }) => traits.canSilt && (traits.retains === 'wall' || hosts.has(work.id))));
  return [
    ...boresOf(option, registry).map((w): Case => ({ id: `blocked-${w.id}`, name: `${w.name} blocked`, blockedPercent: { [w.id]: 100 } })),
    { id: 'full', name: 'All full when it begins', startsFull: true },
    { id: 'more-rain', name: 'A fifth more rain', stormPercent: 20 },
    { id: 'two-storms', name: 'Two storms, a day apart', againAfterH: 24 },
    { id: 'bare', name: 'Bare ground', ground: 'bare' },
    ...(stores.length > 0
      ? [{ id: 'silted', name: 'A third silted up', siltedPercent: Object.fromEntries(stores.map((w) => [w.id, 33])) } satisfies Case]
      : []),
  ];
}
