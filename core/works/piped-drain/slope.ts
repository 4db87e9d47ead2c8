// Grates on a slope: what runs past them, and what leaps over.
import type { Intake } from '../../contract/index.ts';
import { GRATE_ON_SLOPE } from '../../hydraulics/index.ts';
import type { DrainGround } from './ground.ts';
import type { PipedDrain } from './model.ts';

/** A grate stands on a slope where next to nothing stands about it and the ground falls by so much [m, m/m]. */
const [STANDS_M, FALLS] = [0.02, 0.02];

/** The one basin of a yard that is no hollow: its water runs past it, in the dish that leads it there. */
export function onSlope({ yards, falls }: DrainGround, n: number): number | null {
  const { pool, basins } = yards[n];
  const [k] = basins;
  return basins.length === 1 && pool.spillM - pool.lowM < STANDS_M && falls[k] > FALLS ? k : null;
}

/** Roughness of the dish, as of a gutter: grown over, or paved (Chow 1959, Table 5-6; HEC-22 Table 4-3; from memory). */
const DISH_N: Readonly<Record<PipedDrain['over'], number>> = { grass: 0.03, paving: 0.016, wheels: 0.016 };

/** Share of a flow that a grate on a slope takes, both halves of its dish alike, leaves on it; null where nobody has said how the ground leads to it. */
export function sharedBy(work: PipedDrain, { falls }: DrainGround, on: { readonly k: number; readonly flowM3s: number }): number | null {
  const { acrossFall, closedPercent } = work.dimensions;
  if (acrossFall === undefined) return null;
  const { grateLongM, grateWideM } = work.basins[on.k];
  const L = grateLongM * (1 - closedPercent / 100);
  return GRATE_ON_SLOPE.evaluate({ Q: on.flowM3s / 2, W: grateWideM / 2, L, n: DISH_N[work.over], Sx: acrossFall, SL: falls[on.k] });
}

/** Flows a grate's law is told for [m3/s]. */
const FLOWS_M3S = [0.0002, 0.0005, 0.001, 0.002, 0.004, 0.008, 0.015, 0.03, 0.06, 0.12, 0.25];

/** What a grate on a slope takes of a flow that comes, as a table; nothing to say of one in a hollow, or where nobody has said how the ground leads to it. */
export function takenOnSlope(work: PipedDrain, ground: DrainGround, n: number): Pick<Intake, 'takes'> {
  const k = onSlope(ground, n);
  if (k === null || work.dimensions.acrossFall === undefined) return {};
  // A grate that more comes to never takes less.
  let most = 0;
  const takes = FLOWS_M3S.map((flowM3s) => {
    const share = sharedBy(work, ground, { k, flowM3s });
    if (share !== null) most = Math.max(most, share * flowM3s);
    return [flowM3s, most] as const;
  });
  return { takes: [[0, 0], ...takes] };
}
