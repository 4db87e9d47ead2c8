// A swale that opens into a pond: water runs both ways through its mouth, and its water line tilts as it does.
import type { Outlet } from '../../contract/index.ts';
import { type Point, lineLength, nearestOnLine } from '../../geometry/index.ts';
import { GRAVITY, backwater, trapezoid } from '../../hydraulics/index.ts';
import type { Swale } from './model.ts';

/** Earth with grass and some weeds (Chow 1959, Table 5-6). */
export const BED_N = 0.03;
/** Head lost in velocity heads where water turns into the mouth and comes to rest: common practice. */
const MOUTH_LOSS = 1.5;
/** Shortest way the friction of a mouth is counted over [m]. */
const LEAST_REACH_M = 2;

/** Distance from the mouth to where water leaves: the farthest chosen way out, or half the swale where there is none [m]. */
export function reachOf({ line, joins }: Swale, guests: readonly Outlet[]): number {
  const length = lineLength(line);
  const ways = guests.filter((g) => g.kind === 'sill' || g.kind === 'rated').map((g) => nearestOnLine(g.dischargeAt, line).atM);
  const from = joins?.end === 'end' ? ways.map((at) => length - at) : ways;
  return Math.max(LEAST_REACH_M, from.length > 0 ? Math.max(...from) : length / 2);
}

/** Flow along the swale from its higher to its lower end [m3/s], by the levels at both: friction of its bed and what its mouth takes. */
export function mouthFlow(
  { levels, dimensions }: Pick<Swale, 'levels' | 'dimensions'>,
  reachM: number,
): (highM: number, lowM: number) => number {
  const section = trapezoid(dimensions.floorWidthM, dimensions.sideSlopeHV);
  return (highM, lowM) => {
    const high = highM - levels.floorM;
    if (high <= 0) return 0;
    // Under two thirds of the higher depth the lower end no longer holds the flow back.
    const low = Math.max(lowM - levels.floorM, (2 / 3) * high);
    const difference = high - low;
    if (difference <= 0) return 0;
    const mean = (high + low) / 2;
    const area = section.area(mean);
    const conveyance = (area * Math.cbrt(area / section.perimeter(mean)) ** 2) / BED_N;
    return Math.sqrt(difference / (reachM / conveyance ** 2 + MOUTH_LOSS / (2 * GRAVITY * section.area(low) ** 2)));
  };
}

/** The mouth as a way between both stores. */
export function jointOutlet(swale: Swale, guests: readonly Outlet[]): Outlet[] {
  const { joins, line, levels } = swale;
  if (!joins) return [];
  const flow = mouthFlow(swale, reachOf(swale, guests));
  const mouth: Point = joins.end === 'start' ? line[0] : line[line.length - 1];
  return [
    {
      id: `${swale.id}#mouth`,
      role: 'mouth',
      work: swale.id,
      name: `${swale.name}: mouth`,
      kind: 'joint',
      levelM: levels.floorM,
      dischargeAt: mouth,
      to: joins.store,
      drownsM: -Infinity,
      flowAt: (levelM, beyondM = -Infinity) => (levelM >= beyondM ? flow(levelM, beyondM) : -flow(beyondM, levelM)),
    },
  ];
}

/** Fall of the water line from the mouth to the way out while a flow runs, followed step by step [m]. */
export function tiltOf(swale: Swale, on: { readonly reachM: number; readonly flowM3s: number; readonly lowM: number }): number {
  const section = trapezoid(swale.dimensions.floorWidthM, swale.dimensions.sideSlopeHV);
  const depth = on.lowM - swale.levels.floorM;
  if (depth <= 0 || on.flowM3s <= 0) return 0;
  const depths = backwater({ section, lengthM: on.reachM, slope: 0, n: BED_N }, on.flowM3s, depth);
  return depths[depths.length - 1] - depths[0];
}
