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

/** Volume at a level of a stage, straight between its rows and on past the last [m3]. */
export function volumeAt({ levelM, volumeM3 }: Stage, level: number): number {
  if (level <= levelM[0]) return 0;
  const above = levelM.findIndex((v) => v >= level);
  const k = above < 0 ? levelM.length - 1 : above;
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
  on: { readonly hours: number; readonly mmPerHour: number; readonly steadyM3s?: number },
): number {
  const wetted = new Curve(volumeM3, wettedM2);
  const steps = Math.round(on.hours / EMPTYING_STEP_H);
  const comes = (on.steadyM3s ?? 0) * 3600 * EMPTYING_STEP_H;
  let left = standingM3;
  for (let k = 0; k < steps; k++) {
    const lost = (on.mmPerHour / 1000) * EMPTYING_STEP_H * wetted.at(left);
    left = Math.min(standingM3, Math.max(0, left + comes - lost));
  }
  return left;
}

/** Level at which a store holds a volume [m]. */
export const levelAt = ({ levelM, volumeM3 }: Stage, holdsM3: number): number => new Curve(volumeM3, levelM).at(holdsM3);
