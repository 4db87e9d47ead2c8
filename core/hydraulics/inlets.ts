// Street gutters, grates, roof gutters and downpipes.
import { defineFormula } from '../formula/index.ts';
import { GRAVITY } from './orifice.ts';

const gutter = {
  n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.01, 0.03] },
  Sx: { means: 'fall across', unit: 'm/m', domain: 'positive', range: [0.005, 0.1] },
  SL: { means: 'fall along', unit: 'm/m', domain: 'positive' },
} as const;

/** Of the triangular gutter, SI (HEC-22 eq. 4-2; from memory). */
const [GUTTER_K, GUTTER_X, GUTTER_T] = [0.376, 1.67, 2.67];

export const GUTTER_FLOW = defineFormula(
  {
    id: 'hydraulics.gutter-flow',
    title: 'Flow of a triangular gutter',
    statement: 'Q = (0.376/n) · Sx^1.67 · SL^0.5 · T^2.67',
    symbols: { ...gutter, T: { means: 'width of the water', unit: 'm', domain: 'nonNegative' } },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'hec22', locator: 'eq. 4-2', fromMemory: true },
  },
  ({ n, Sx, SL, T }) => (GUTTER_K / n) * Sx ** GUTTER_X * Math.sqrt(SL) * T ** GUTTER_T,
);

export const GUTTER_SPREAD = defineFormula(
  {
    id: 'hydraulics.gutter-spread',
    title: 'Width of the water in a triangular gutter',
    statement: 'T = (Q·n / (0.376 · Sx^1.67 · SL^0.5))^(1/2.67)',
    symbols: { ...gutter, Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' } },
    result: { symbol: 'T', means: 'width of the water', unit: 'm' },
    source: { key: 'hec22', locator: 'eq. 4-2', fromMemory: true },
  },
  ({ n, Sx, SL, Q }) => ((Q * n) / (GUTTER_K * Sx ** GUTTER_X * Math.sqrt(SL))) ** (1 / GUTTER_T),
);

/** Of the edge of a grate as a weir, and of its opening (HEC-22 eqs. 4-26 and 4-27; from memory). */
export const [GRATE_WEIR, GRATE_HOLE] = [1.66, 0.67];

export const GRATE = defineFormula(
  {
    id: 'hydraulics.grate',
    title: 'Flow into a grate in a low place',
    statement: 'Q = the less of 1.66·(1 − c)·P·d^1.5 and 0.67·(1 − c)·A·(2·g·d)^0.5',
    symbols: {
      P: { means: 'perimeter, without a side along a curb', unit: 'm', domain: 'positive' },
      A: { means: 'open area', unit: 'm²', domain: 'positive' },
      d: { means: 'depth of water over it', unit: 'm', domain: 'nonNegative' },
      c: { means: 'share of it that is clogged: half, as a habit', unit: '', domain: 'nonNegative', range: [0, 0.95] },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'hec22', locator: 'eqs. 4-26 and 4-27', fromMemory: true },
  },
  ({ P, A, d, c }) => {
    const open = Math.max(0, 1 - c);
    return Math.min(GRATE_WEIR * open * P * d ** 1.5, GRATE_HOLE * open * A * Math.sqrt(2 * GRAVITY * d));
  },
);

/** Speed at which water begins to leap over a grate of crossed bars, by its length [m/s]: the least of usual grates (HEC-22 chart 5; from memory). */
export function leapsAt(lengthM: number): number {
  const L = Math.min(4.5, lengthM / FOOT_M);
  return FOOT_M * (0.28 + 2.28 * L - 0.18 * L ** 2 + 0.01 * L ** 3);
}
const FOOT_M = 0.3048;

/** Of frontal and of side flow, SI (HEC-22 eqs. 4-18 and 4-19; from memory). */
const [LEAPS, BESIDE] = [0.295, 0.0828];

export const GRATE_ON_SLOPE = defineFormula(
  {
    id: 'hydraulics.grate-on-slope',
    title: 'Share of a flow that a grate on a slope takes',
    statement: 'E = Rf·Eo + Rs·(1 − Eo),  Eo = 1 − (1 − W/T)^2.67,  Rf = 1 − 0.295·(V − Vo),  Rs = 1/(1 + 0.0828·V^1.8/(Sx·L^2.3))',
    symbols: {
      Q: { means: 'flow along the gutter', unit: 'm³/s', domain: 'positive' },
      W: { means: 'width of the grate', unit: 'm', domain: 'positive' },
      L: { means: 'length of it along the flow', unit: 'm', domain: 'positive' },
      ...gutter,
    },
    result: { symbol: 'E', means: 'share taken', unit: '' },
    source: { key: 'hec22', locator: 'eqs. 4-16, 4-18, 4-19 and 4-20; chart 5 for the speed it leaps at', fromMemory: true },
    limits: 'A gutter with one side; of a dish, half of it. Not where water stands.',
  },
  ({ Q, W, L, n, Sx, SL }) => {
    const T = GUTTER_SPREAD.evaluate({ Q, n, Sx, SL });
    const V = Q / ((Sx * T * T) / 2);
    const Eo = W >= T ? 1 : 1 - (1 - W / T) ** GUTTER_T;
    const Rf = Math.max(0, 1 - LEAPS * Math.max(0, V - leapsAt(L)));
    const Rs = 1 / (1 + (BESIDE * V ** 1.8) / (Sx * L ** 2.3));
    return Math.min(1, Rf * Eo + Rs * (1 - Eo));
  },
);

export const DOWNPIPE = defineFormula(
  {
    id: 'hydraulics.downpipe',
    title: 'Flow of an upright rainwater pipe',
    statement: 'Q = 2.5e-4 · kb^-0.167 · D^2.667 · f^1.667',
    symbols: {
      D: { means: 'inner diameter', unit: 'mm', domain: 'positive', range: [50, 300] },
      f: { means: 'share of the pipe filled with water', unit: '', domain: 'positive', range: [0.2, 0.33] },
      kb: { means: 'roughness of the wall', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'L/s' },
    source: { key: 'en12056-3', locator: 'eq. of Wyly and Eaton, Table 8', fromMemory: true },
    limits: 'The outlet of the gutter often lets through less.',
  },
  ({ D, f, kb }) => 2.5e-4 * kb ** -0.167 * D ** 2.667 * f ** 1.667,
);

export const HALF_ROUND_GUTTER = defineFormula(
  {
    id: 'hydraulics.half-round-gutter',
    title: 'Flow of a short, level, half-round eaves gutter',
    statement: 'Q = 0.9 · 2.78e-5 · A^1.25',
    symbols: { A: { means: 'area of its section', unit: 'mm²', domain: 'positive' } },
    result: { symbol: 'Q', means: 'design flow', unit: 'L/s' },
    source: { key: 'en12056-3', locator: 'eq. of half-round gutters', fromMemory: true },
    limits: 'No longer than fifty times its depth, both ends of the outlet free; a bend takes 15 %.',
  },
  ({ A }) => 0.9 * 2.78e-5 * A ** 1.25,
);

export const HAZEN_WILLIAMS = defineFormula(
  {
    id: 'hydraulics.hazen-williams',
    title: 'Head lost along a pipe, by its smoothness',
    statement: 'hf = 10.67 · L · Q^1.852 / (C^1.852 · D^4.87)',
    symbols: {
      Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' },
      C: { means: 'smoothness: plastic 150, galvanised 120, old steel 100', unit: '', domain: 'positive', range: [80, 160] },
      D: { means: 'inner diameter', unit: 'm', domain: 'positive', range: [0.05, 2] },
      L: { means: 'length', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'hf', means: 'head lost', unit: 'm' },
    source: { key: 'hazen-williams', locator: 'SI form', fromMemory: true },
    limits: 'Water of about 15 °C, slower than 3 m/s.',
  },
  ({ Q, C, D, L }) => (10.67 * L * Q ** 1.852) / (C ** 1.852 * D ** 4.87),
);
