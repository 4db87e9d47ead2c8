import type { Stage } from '../contract/index.ts';
import { defineFormula } from '../formula/index.ts';
import { Curve } from './curve.ts';

export const DRAIN_DOWN = defineFormula(
  {
    id: 'network.drain-down',
    title: 'Time to soak away',
    statement: 't = 1000 · V / (f · A)',
    symbols: {
      V: { means: 'water to soak away', unit: 'm³', domain: 'nonNegative' },
      f: { means: 'infiltration rate, after its safety factor', unit: 'mm/h', domain: 'positive' },
      A: { means: 'mean wetted area while it falls', unit: 'm²', domain: 'positive' },
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'common-practice', locator: 'depth over rate, on the wetted plan area' },
  },
  ({ V, f, A }) => (1000 * V) / (f * A),
);

export const DRAIN_DOWN_FED = defineFormula(
  {
    id: 'network.drain-down-fed',
    title: 'Time to soak away while a spring runs in',
    statement: 't = V / (f · A / 1000 - 3600 · q)',
    symbols: {
      V: { means: 'water to soak away', unit: 'm³', domain: 'nonNegative' },
      f: { means: 'infiltration rate, after its safety factor', unit: 'mm/h', domain: 'positive' },
      A: { means: 'mean wetted area while it falls', unit: 'm²', domain: 'positive' },
      q: { means: 'steady inflow, less than what soaks away', unit: 'm³/s', domain: 'nonNegative' },
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'common-practice', locator: 'depth over rate, on the wetted plan area, less what comes in' },
  },
  ({ V, f, A, q }) => V / ((f * A) / 1000 - 3600 * q),
);

export const SOIL_SHORT = defineFormula(
  {
    id: 'network.soil-short',
    title: 'Water the soil below has no room for',
    statement: 'S = V + s − w · A / 1000, nothing where that is less',
    symbols: {
      V: { means: 'water to soak away', unit: 'm³', domain: 'nonNegative' },
      s: { means: 'water that soaked in before', unit: 'm³', domain: 'nonNegative' },
      w: { means: 'depth of water the soil under the floor has room for', unit: 'mm', domain: 'nonNegative' },
      A: { means: 'area wetted when full', unit: 'm²', domain: 'nonNegative' },
    },
    result: { symbol: 'S', means: 'water that stays', unit: 'm³' },
    source: {
      key: 'common-practice',
      locator: 'soakage ends when the soil above rock or water is full: its depth times the share that drains',
    },
    limits: 'Water that moves on sideways through the soil makes more room; it is not counted.',
  },
  ({ V, s, w, A }) => Math.max(0, V + s - (w * A) / 1000),
);

/** Volume at a level of a stage, straight between its rows and on past the last [m3]. */
export function volumeAt({ levelM, volumeM3 }: Stage, level: number): number {
  if (level <= levelM[0]) return 0;
  let k = 1;
  while (k < levelM.length - 1 && levelM[k] < level) k++;
  return volumeM3[k - 1] + ((volumeM3[k] - volumeM3[k - 1]) * (level - levelM[k - 1])) / (levelM[k] - levelM[k - 1]);
}

/** Volume-weighted mean wetted area while a store falls from a level to its floor, such that t = V/(f·A) [m2]. */
export function meanWettedArea(stage: Stage, volumeM3: number): number {
  const { volumeM3: v, wettedM2 } = stage;
  let time = 0; // of a unit rate: the sum of dV / A
  for (let k = 1; k < v.length; k++) {
    if (v[k - 1] >= volumeM3) break;
    const whole = v[k] - v[k - 1];
    const part = Math.min(v[k], volumeM3) - v[k - 1];
    const top = wettedM2[k - 1] + (whole > 0 ? (part / whole) * (wettedM2[k] - wettedM2[k - 1]) : 0);
    // Area rises with level in a straight line between stages, so their mean is what the water falls through.
    time += part / Math.max(1e-9, (wettedM2[k - 1] + top) / 2);
  }
  return time > 0 ? volumeM3 / time : 0;
}

/** Hours a store's water is followed at a time while it seeps away [h]. */
const EMPTYING_STEP_H = 0.1;

/**
 * Water left of what stands in a store after so many hours of seeping and drying, by the surface it wets as it falls, and what
 * comes in steadily [m3]. It rises no higher than it stood: more than that runs over.
 */
export function leftAfter(
  { volumeM3, wettedM2 }: Stage,
  standingM3: number,
  on: {
    readonly hours: number;
    /** What soaks in, until the soil has no more room. */
    readonly mmPerHour: number;
    readonly roomM3?: number;
    readonly driesMmPerHour?: number;
    readonly steadyM3s?: number;
  },
): number {
  const wetted = new Curve(volumeM3, wettedM2);
  const steps = Math.round(on.hours / EMPTYING_STEP_H);
  const comes = (on.steadyM3s ?? 0) * 3600 * EMPTYING_STEP_H;
  const dries = ((on.driesMmPerHour ?? 0) / 1000) * EMPTYING_STEP_H;
  const soaks = (on.mmPerHour / 1000) * EMPTYING_STEP_H;
  let room = on.roomM3 ?? Infinity;
  let left = standingM3;
  for (let k = 0; k < steps; k++) {
    const wet = wetted.at(left);
    const soaked = Math.min(room, soaks * wet, left + comes);
    room -= soaked;
    left = Math.min(standingM3, Math.max(0, left + comes - soaked - dries * wet));
    // Nothing comes any more.
    if (left === 0 && comes === 0) return 0;
  }
  return left;
}

/** Level at which a store holds a volume [m]. */
export const levelAt = ({ levelM, volumeM3 }: Stage, holdsM3: number): number => new Curve(volumeM3, levelM).at(holdsM3);

/** What a store wets when it holds a volume [m2]. */
export const wettedAt = ({ volumeM3, wettedM2 }: Stage, holdsM3: number): number => new Curve(volumeM3, wettedM2).at(holdsM3);
