// Where the water of each store is found when a storm begins.
import type { Store } from '../../contract/index.ts';
import { leftAfter, levelAt, meanWettedArea, volumeAt } from '../../network/index.ts';
import { type Antecedent, BETWEEN_STORMS_H } from '../../rain/index.ts';
import { type Water, storesOnly } from '../water/water.ts';
import { baseFlows } from '../world/springs.ts';
import { roomOf, soaksOf } from './storm-run.ts';

/** Hours since a storm like the one looked at, by how wet it has been (common practice); null: long enough for all to be gone. */
const SINCE_H: Readonly<Record<Antecedent, number | null>> = { dry: null, usual: 24, wet: 6 };

export interface StartsOn {
  readonly water: Pick<Water, 'stores' | 'springs' | 'under'>;
  readonly antecedent: Antecedent;
  /** Levels the user found or set, by store. */
  readonly saidM: ReadonlyMap<string, number>;
  /** Most that stood in each store below its lowest way out in a like storm, found empty [m3]; none where there was no such run. */
  readonly stoodM3: ReadonlyMap<string, number>;
}

/** What a store loses by itself [mm/h over what it wets], until the soil below has no more room [m3], and what comes in [m3/s]. */
interface Loses {
  readonly mmPerHour: number;
  readonly roomM3: number;
  readonly driesMmPerHour: number;
  readonly steadyM3s: number;
}

function lossOf(store: Store, { water }: Pick<StartsOn, 'water'>, base: ReadonlyMap<string, number>): Loses {
  const soaks = soaksOf(store, water.under.get(store.id) ?? null);
  const [driesMmPerHour, steadyM3s] = [store.driesMmPerHour ?? 0, base.get(store.id) ?? 0];
  return { mmPerHour: soaks.mmPerHour, roomM3: roomOf(soaks), driesMmPerHour, steadyM3s };
}

/**
 * Whether a store keeps what fills it until the next storm: made to, fed faster than it loses, or slow to empty. Soil that fills
 * meanwhile does not make it one: in so many days what fills it moves on sideways.
 */
function keeps(store: Store, { mmPerHour, driesMmPerHour, steadyM3s }: Loses): boolean {
  if (store.keeps === true) return true;
  if (store.heldM3 <= 0) return false;
  const net = ((mmPerHour + driesMmPerHour) / 1000) * meanWettedArea(store.stage, store.heldM3) - 3600 * steadyM3s;
  return store.heldM3 > net * BETWEEN_STORMS_H;
}

/**
 * Stores of which it must be known what a like storm leaves in them: nobody has said, they do not keep what fills them, and had it
 * filled them something would be left.
 */
export function askForLike({ water, saidM, antecedent }: Omit<StartsOn, 'stoodM3'>): readonly Store[] {
  const base = baseFlows(water.springs);
  const since = SINCE_H[antecedent];
  if (since === null) return [];
  return storesOnly(water.stores).filter((store) => {
    if (saidM.has(store.id)) return false;
    const loss = lossOf(store, { water }, base);
    return !keeps(store, loss) && leftAfter(store.stage, store.heldM3, { hours: since, ...loss }) > 0;
  });
}

/**
 * Level each store is found at [m]: as the user has it; else at its lowest way out where it keeps its water; else with what is
 * left a set time after a like storm. Stores that are found empty are left out.
 */
export function startsFound(on: StartsOn): ReadonlyMap<string, number> {
  const base = baseFlows(on.water.springs);
  const since = SINCE_H[on.antecedent];
  return new Map(
    storesOnly(on.water.stores).flatMap((store): [string, number][] => {
      const { id, floorM, wayOutM, crestM, stage } = store;
      const said = on.saidM.get(id);
      if (said !== undefined) return [[id, Math.min(crestM, Math.max(floorM, said))]];
      const loss = lossOf(store, on, base);
      if (keeps(store, loss)) return [[id, wayOutM]];
      const stood = on.stoodM3.get(id) ?? 0;
      const left = since === null ? 0 : leftAfter(stage, stood, { hours: since, ...loss });
      return left > 0 ? [[id, Math.min(wayOutM, levelAt(stage, left))]] : [];
    }),
  );
}

/** Every store to its lowest way out, or where it is found if that is higher. */
export const startsFull = (stores: readonly Store[], found: ReadonlyMap<string, number>): ReadonlyMap<string, number> =>
  new Map(storesOnly(stores).map((s) => [s.id, Math.max(s.wayOutM, found.get(s.id) ?? s.wayOutM)]));

/** What stood in each store below its lowest way out at most, from a run of it [m3]. */
export const stoodIn = (stores: readonly Store[], peakM: (id: string) => number | null): ReadonlyMap<string, number> =>
  new Map(
    storesOnly(stores).flatMap(({ id, stage, heldM3 }): [string, number][] => {
      const peak = peakM(id);
      return peak === null ? [] : [[id, Math.min(heldM3, volumeAt(stage, peak))]];
    }),
  );
