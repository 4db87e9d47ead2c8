// A level swale that carries flow to its sill is not level on top: its water stands higher the farther from it.
import type { Outlet, Store } from '../../contract/index.ts';
import { lineLength, nearestOnLine } from '../../geometry/index.ts';
import { gatheredLine, trapezoid } from '../../hydraulics/index.ts';
import { BED_N } from './joint.ts';
import type { Swale } from './model.ts';

/** A place where water is let out along a swale, and how much passes there. */
export interface Leaving {
  readonly atM: number;
  readonly flowM3s: number;
}

/** Water that stands still, and the stretch it runs from there to where it leaves. */
export interface Stretch {
  readonly fromM: number;
  readonly toM: number;
}

/**
 * Stretches over which water gathers on its way to a sill, when as much comes in along every metre as leaves in all: from both
 * ends, and from where it parts between two sills. Where it only passes one sill on its way to another there is no such place.
 */
export function stretchesOf(lengthM: number, leaving: readonly Leaving[]): Stretch[] {
  const running = leaving.filter((l) => l.flowM3s > 0).sort((a, b) => a.atM - b.atM);
  const [first] = running;
  if (!first) return [];
  const last = running[running.length - 1];
  const perMetre = running.reduce((sum, l) => sum + l.flowM3s, 0) / lengthM;
  let gone = 0;
  const between = running.slice(1).flatMap((over, k): Stretch[] => {
    gone += running[k].flowM3s;
    const partsM = gone / perMetre;
    return partsM > running[k].atM && partsM < over.atM
      ? [
          { fromM: partsM, toM: running[k].atM },
          { fromM: partsM, toM: over.atM },
        ]
      : [];
  });
  return [{ fromM: 0, toM: first.atM }, ...between, { fromM: lengthM, toM: last.atM }];
}

/** How much higher than at the sills water stands at a place along a swale. */
export interface LinePoint {
  readonly atM: number;
  readonly riseM: number;
}

/** The water line along a swale while its sills run, by how much it stands above its level there; from its start to its end. */
export function waterLine(
  { dimensions, levels }: Pick<Swale, 'dimensions' | 'levels'>,
  on: { readonly lengthM: number; readonly leaving: readonly Leaving[]; readonly levelM: number },
): LinePoint[] {
  const { lengthM, leaving, levelM } = on;
  const depthM = levelM - levels.floorM;
  const total = leaving.reduce((sum, l) => sum + Math.max(0, l.flowM3s), 0);
  if (depthM <= 0 || total <= 0) return [{ atM: 0, riseM: 0 }];
  const section = trapezoid(dimensions.floorWidthM, dimensions.sideSlopeHV);
  return stretchesOf(lengthM, leaving)
    .flatMap(({ fromM, toM }) => {
      const reachM = Math.abs(fromM - toM);
      const reach = { section, lengthM: reachM, slope: 0, n: BED_N };
      const depths = gatheredLine(reach, (total * reachM) / lengthM, depthM);
      const last = depths.length - 1;
      return Array.from(depths, (depth, k): LinePoint => ({ atM: toM + ((fromM - toM) * k) / last, riseM: Math.max(0, depth - depthM) }));
    })
    .sort((a, b) => a.atM - b.atM);
}

export const highestOn = (line: readonly LinePoint[]): LinePoint => line.reduce((a, b) => (b.riseM > a.riseM ? b : a));

/** Rise of a water line at a place, straight between its points and by the last beyond them. */
export function riseAt(line: readonly LinePoint[], atM: number): number {
  const k = line.findIndex((p) => p.atM >= atM);
  if (k <= 0) return line[k < 0 ? line.length - 1 : 0].riseM;
  const [a, b] = [line[k - 1], line[k]];
  return b.atM > a.atM ? a.riseM + ((b.riseM - a.riseM) * (atM - a.atM)) / (b.atM - a.atM) : b.riseM;
}

/** What leaves over each of a swale's own ways out while its water stands at a level there. */
export const leavingAt = ({ line }: Pick<Swale, 'line'>, outlets: readonly Outlet[], levelM: number): Leaving[] =>
  outlets.flatMap((o) =>
    o.kind === 'sill' || o.kind === 'rated' ? [{ atM: nearestOnLine(o.dischargeAt, line).atM, flowM3s: o.flowAt(levelM) }] : [],
  );

/** Crests of a bank: at one level all along, or over a stretch of their own. */
export interface Crest {
  readonly levelM: number;
  readonly fromM?: number;
  readonly toM?: number;
}

/** Tilt of a swale's water line by the level at its sills, with the least left under its crests; null for one that opens into a pond, which is judged at its mouth. */
export function tiltBy(swale: Swale, guests: readonly Outlet[], crests: readonly Crest[]): Store['tilt'] | null {
  if (swale.joins || guests.every((g) => g.kind === 'joint')) return null;
  const lengthM = lineLength(swale.line);
  return (levelM) => {
    const line = waterLine(swale, { lengthM, leaving: leavingAt(swale, guests, levelM), levelM });
    const { riseM } = highestOn(line);
    const left = crests.map(({ levelM: crestM, fromM, toM }) => {
      const rise = fromM === undefined || toM === undefined ? riseM : Math.max(riseAt(line, fromM), riseAt(line, toM));
      return crestM - levelM - rise;
    });
    return { riseM, leftM: Math.min(...left) };
  };
}
