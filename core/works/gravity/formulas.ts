// What pushes, lifts and holds a wall that stands by its weight, for a metre of its length: kN and m.
import { defineFormula } from '../../formula/index.ts';

/** Weight of water [kN/m3]. */
export const WATER_KN_M3 = 9.81;

const RADIANS = Math.PI / 180;

export const RANKINE_PUSH = defineFormula(
  {
    id: 'gravity.rankine',
    title: 'Share of its weight with which earth pushes',
    statement: 'Ka = tan²(45° − φ/2)',
    symbols: { phi: { means: 'angle of friction of the earth', unit: '°', domain: 'positive', range: [10, 45] } },
    result: { symbol: 'Ka', means: 'active pressure over weight', unit: '' },
    source: { key: 'rankine-1857', locator: 'level ground, upright back without friction', fromMemory: true },
  },
  ({ phi }) => Math.tan((45 - phi / 2) * RADIANS) ** 2,
);

export const COULOMB_PUSH = defineFormula(
  {
    id: 'gravity.coulomb',
    title: 'Share of its weight with which earth pushes a rough wall',
    statement: 'Ka = cos²φ / (cos δ · (1 + (sin(φ+δ)·sin φ / cos δ)^0.5)²)',
    symbols: {
      phi: { means: 'angle of friction of the earth', unit: '°', domain: 'positive', range: [10, 45] },
      d: { means: 'angle of friction between earth and wall', unit: '°', domain: 'nonNegative', range: [0, 35] },
    },
    result: { symbol: 'Ka', means: 'active pressure over weight', unit: '' },
    source: { key: 'coulomb-1776', locator: 'upright back, level ground', fromMemory: true },
  },
  ({ phi, d }) => {
    const [f, w] = [phi * RADIANS, d * RADIANS];
    return Math.cos(f) ** 2 / (Math.cos(w) * (1 + Math.sqrt((Math.sin(f + w) * Math.sin(f)) / Math.cos(w))) ** 2);
  },
);

export const EARTH_THRUST = defineFormula(
  {
    id: 'gravity.earth-thrust',
    title: 'Thrust of earth on a wall',
    statement: 'P = Ka · γ · H² / 2, at H/3',
    symbols: {
      Ka: { means: 'active pressure over weight', unit: '', domain: 'nonNegative' },
      g: { means: 'weight of the earth; under water, what water does not carry', unit: 'kN/m³', domain: 'nonNegative' },
      H: { means: 'height of earth', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'P', means: 'thrust per metre', unit: 'kN/m' },
    source: { key: 'rankine-1857', fromMemory: true },
  },
  ({ Ka, g, H }) => (Ka * g * H * H) / 2,
);

const THRUST_SYMBOLS = {
  H: { means: 'height of the wall in the water', unit: 'm', domain: 'nonNegative' },
  h: { means: 'water over its top', unit: 'm', domain: 'nonNegative' },
} as const;

export const WATER_THRUST = defineFormula(
  {
    id: 'gravity.water-thrust',
    title: 'Thrust of water on a wall it runs over',
    statement: 'P = γw · (H²/2 + h·H)',
    symbols: THRUST_SYMBOLS,
    result: { symbol: 'P', means: 'thrust per metre', unit: 'kN/m' },
    source: { key: 'geometry', locator: 'pressure grows with depth from the surface' },
  },
  ({ H, h }) => WATER_KN_M3 * ((H * H) / 2 + h * H),
);

export const WATER_TILT = defineFormula(
  {
    id: 'gravity.water-tilt',
    title: 'Moment of that thrust about the foot',
    statement: 'M = γw · (H³/6 + h·H²/2)',
    symbols: THRUST_SYMBOLS,
    result: { symbol: 'M', means: 'moment per metre', unit: 'kNm/m' },
    source: { key: 'geometry' },
  },
  ({ H, h }) => WATER_KN_M3 * (H ** 3 / 6 + (h * H * H) / 2),
);

const LIFT_SYMBOLS = {
  B: { means: 'width of the base', unit: 'm', domain: 'positive' },
  u1: { means: 'water over the base at its heel, above', unit: 'm', domain: 'nonNegative' },
  u2: { means: 'water over the base at its toe, below', unit: 'm', domain: 'nonNegative' },
  s: { means: 'share of it that is felt: 1 on bare ground, half over a drain', unit: '', domain: 'nonNegative', range: [0, 1] },
} as const;

export const WATER_LIFT = defineFormula(
  {
    id: 'gravity.uplift',
    title: 'Lift of the water under a wall',
    statement: 'U = s · γw · B · (u1 + u2) / 2',
    symbols: LIFT_SYMBOLS,
    result: { symbol: 'U', means: 'lift per metre', unit: 'kN/m' },
    source: { key: 'usbr-small-dams', locator: 'gravity dams: straight from the water above to that below', fromMemory: true },
  },
  ({ B, u1, u2, s }) => (s * WATER_KN_M3 * B * (u1 + u2)) / 2,
);

export const LIFT_TILT = defineFormula(
  {
    id: 'gravity.uplift-tilt',
    title: 'Moment of that lift about the toe',
    statement: 'M = s · γw · B² · (2·u1 + u2) / 6',
    symbols: LIFT_SYMBOLS,
    result: { symbol: 'M', means: 'moment per metre', unit: 'kNm/m' },
    source: { key: 'geometry', locator: 'a trapezoid about its low end' },
  },
  ({ B, u1, u2, s }) => (s * WATER_KN_M3 * B * B * (2 * u1 + u2)) / 6,
);

export const SAFE_TURNING = defineFormula(
  {
    id: 'gravity.overturning',
    title: 'Safety against overturning',
    statement: 'F = Mr / Mo',
    symbols: {
      Mr: { means: 'moment of its weight about the toe', unit: 'kNm/m', domain: 'nonNegative' },
      Mo: { means: 'moment of all that pushes and lifts', unit: 'kNm/m', domain: 'positive' },
    },
    result: { symbol: 'F', means: 'safety', unit: '' },
    source: { key: 'statics', fromMemory: true },
  },
  ({ Mr, Mo }) => Mr / Mo,
);

export const SAFE_SLIDING = defineFormula(
  {
    id: 'gravity.sliding',
    title: 'Safety against sliding',
    statement: 'F = μ · (W − U) / P',
    symbols: {
      mu: { means: 'friction between base and ground', unit: '', domain: 'positive', range: [0.2, 0.8] },
      W: { means: 'weight', unit: 'kN/m', domain: 'positive' },
      U: { means: 'lift', unit: 'kN/m', domain: 'nonNegative' },
      P: { means: 'thrust', unit: 'kN/m', domain: 'positive' },
    },
    result: { symbol: 'F', means: 'safety', unit: '' },
    source: { key: 'statics', fromMemory: true },
    limits: 'What stands before its foot is left out: scour takes it away.',
  },
  ({ mu, W, U, P }) => (mu * Math.max(0, W - U)) / P,
);

export const ECCENTRICITY = defineFormula(
  {
    id: 'gravity.eccentricity',
    title: 'How far from the middle of its base a wall presses',
    statement: 'e = B/2 − (Mr − Mo) / N',
    symbols: {
      B: { means: 'width of the base', unit: 'm', domain: 'positive' },
      Mr: { means: 'moment of its weight about the toe', unit: 'kNm/m', domain: 'nonNegative' },
      Mo: { means: 'moment of all that pushes and lifts', unit: 'kNm/m', domain: 'finite' },
      N: { means: 'weight less lift', unit: 'kN/m', domain: 'positive' },
    },
    result: { symbol: 'e', means: 'towards the toe', unit: 'm' },
    source: { key: 'statics', fromMemory: true },
  },
  ({ B, Mr, Mo, N }) => B / 2 - (Mr - Mo) / N,
);

export const BASE_PRESSURE = defineFormula(
  {
    id: 'gravity.pressure',
    title: 'Greatest pressure under a base',
    statement: 'q = (N/B) · (1 + 6e/B) while e ≤ B/6; beyond, q = 2N / (3·(B/2 − e))',
    symbols: {
      N: { means: 'weight less lift', unit: 'kN/m', domain: 'nonNegative' },
      B: { means: 'width of the base', unit: 'm', domain: 'positive' },
      e: { means: 'how far from its middle it presses', unit: 'm', domain: 'finite' },
    },
    result: { symbol: 'q', means: 'greatest pressure', unit: 'kPa' },
    source: { key: 'statics', locator: 'no pull between base and ground', fromMemory: true },
  },
  ({ N, B, e }) => {
    const away = Math.abs(e);
    if (away <= B / 6) return (N / B) * (1 + (6 * away) / B);
    return away >= B / 2 ? Infinity : (2 * N) / (3 * (B / 2 - away));
  },
);

export const CREEP = defineFormula(
  {
    id: 'gravity.creep',
    title: 'Way of seepage under a structure, weighed',
    statement: 'L = 2·f + 2·c + (B + a) / 3',
    symbols: {
      f: { means: 'depth of the foundation', unit: 'm', domain: 'nonNegative' },
      c: { means: 'depth of the cut-off below that', unit: 'm', domain: 'nonNegative' },
      B: { means: 'width of the base', unit: 'm', domain: 'nonNegative' },
      a: { means: 'tight apron beyond it', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'L', means: 'weighed length of the way', unit: 'm' },
    source: { key: 'lane-1935', locator: 'level ways count a third', fromMemory: true },
  },
  ({ f, c, B, a }) => 2 * f + 2 * c + (B + a) / 3,
);
