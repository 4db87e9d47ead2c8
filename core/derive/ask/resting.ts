// What a store is sent as the ground above it heals: the whole land worked out again for each of some years.
import type { Project } from '../../project/index.ts';
import { fail } from '../../project/index.ts';
import type { Slowly } from '../graph/slowly.ts';
import { asDesigned } from '../scenario/scenario.ts';
import type { RoomContext } from '../set/laid.ts';
import { runSetSlowly } from '../set/set.ts';
import { canHeal } from '../world/surfaces.ts';

/** Years of rest that are told; 0 is as it is now. */
const YEARS = [0, 2, 5, 10] as const;
const ASIDE = 'resting';

export interface Resting {
  readonly years: number;
  /** Greatest flow, and most water, that come in any storm of the set, as found; null while no storm is known. */
  readonly peakM3s: number | null;
  readonly volumeM3: number | null;
}

/** Null where nothing is said of how the ground is to heal. @throws UserError for a store there is not. */
export function* restingSlowly(project: Project, context: RoomContext, { of }: { readonly of: string }): Slowly<readonly Resting[] | null> {
  const { ground } = project;
  if (!ground || !canHeal(ground)) return null;
  const rows: Resting[] = [];
  try {
    for (const years of YEARS) {
      const as: Project = { ...project, ground: years === 0 ? { ...ground, as: 'now' } : { ...ground, as: 'healed', healedYears: years } };
      const own = asDesigned(as);
      const set = yield* runSetSlowly({ ...own, id: `${ASIDE}${own.id}` }, context, { asFound: true, isPlain: true });
      if (set && !set.water.stores.some((store) => store.id === of))
        fail('id.missing', `"${of}" stores no water`, { do: 'Name a work water comes to.' });
      const storm = set?.asFound.outcomes.get(of)?.storm;
      rows.push({ years, peakM3s: storm?.peakInM3s ?? null, volumeM3: storm?.inM3 ?? null });
    }
    return rows;
  } finally {
    context.graph.forget(ASIDE);
  }
}
