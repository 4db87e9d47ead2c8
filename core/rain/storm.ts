import { depthCurve, depthFor } from './depth.ts';
import type { RainTable } from './table.ts';

export interface Storm {
  readonly depthMm: number;
  readonly durationMin: number;
  readonly stepMin: number;
  /** Rain in each step [mm]. */
  readonly stepsMm: Float64Array;
  /** True when part of it came from beyond the table. */
  readonly extrapolated: boolean;
}

/** Within this time rain is taken as even: no catchment answers sooner [min]. */
const EVEN_MIN = 5;

/**
 * Design storm by alternating blocks (Chow, Maidment & Mays 1988, section 14.4): the wettest block in the middle, the next
 * to its right, then left, and so on. For every duration up to its own it holds the table's depth, and the whole storm
 * holds the table's depth for its duration. Below the table's shortest duration depths are carried on (`depthFor`), and within
 * five minutes rain falls at an even rate.
 */
export function alternatingBlockStorm(
  table: RainTable,
  { returnYears, durationMin }: { readonly returnYears: number; readonly durationMin: number },
  wantedStepMin: number,
): Storm {
  const count = Math.max(1, Math.ceil(durationMin / wantedStepMin - 1e-9));
  const stepMin = durationMin / count;
  const total = depthFor(table, returnYears, durationMin);
  const even = Math.min(EVEN_MIN, durationMin);
  const evenMm = depthFor(table, returnYears, even).depthMm;
  const onCurve = depthCurve(table, returnYears);
  const depthOf = (minutes: number): number => {
    if (minutes >= durationMin) return total.depthMm;
    return Math.min(total.depthMm, minutes < even ? (evenMm * minutes) / even : onCurve(minutes));
  };
  const blocks = new Float64Array(count);
  for (let k = 0, before = depthOf(0); k < count; k++) {
    const depth = depthOf((k + 1) * stepMin);
    blocks[k] = Math.max(0, depth - before);
    before = depth;
  }
  const stepsMm = alternating(blocks);
  return { depthMm: total.depthMm, durationMin, stepMin, stepsMm, extrapolated: total.extrapolated };
}

/** Blocks with the greatest in the middle, the next to its right, then left, and so on. */
export function alternating(blocks: ArrayLike<number>): Float64Array {
  const count = blocks.length;
  const placed = new Float64Array(count);
  const middle = Math.floor((count - 1) / 2);
  let [left, right] = [middle - 1, middle + 1];
  const rising = Float64Array.from(blocks).sort();
  for (let k = 0; k < count; k++) {
    const block = rising[count - 1 - k];
    if (k === 0) placed[middle] = block;
    else if ((k % 2 === 1 && right < count) || left < 0) placed[right++] = block;
    else placed[left--] = block;
  }
  return placed;
}
