// What water does at the head of a gully, and what stands against it.
import { defineFormula } from '../../formula/index.ts';
import { GRAVITY } from '../../hydraulics/index.ts';

const WATER_KG_M3 = 1000;

export const FALL_POWER = defineFormula(
  {
    id: 'gully.fall-power',
    title: 'Power of falling water',
    statement: 'P = ρ · g · q · H',
    symbols: {
      q: { means: 'flow per metre of lip', unit: 'm²/s', domain: 'nonNegative' },
      H: { means: 'height of the drop', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'P', means: 'power for each metre of lip', unit: 'W/m' },
    source: { key: 'statics', locator: 'weight times height' },
  },
  ({ q, H }) => WATER_KG_M3 * GRAVITY * q * H,
);

export const RETREAT = defineFormula(
  {
    id: 'gully.retreat',
    title: 'How far a head moves for a hundred millimetres of rain',
    statement: 'r = 100 · 1000 · d / R',
    symbols: {
      d: { means: 'moved between the first and the last reading', unit: 'm', domain: 'finite' },
      R: { means: 'rain between them', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'r', means: 'retreat for 100 mm of rain', unit: 'mm' },
    source: { key: 'common-practice', locator: 'measured against a fixed mark' },
  },
  ({ d, R }) => (100 * 1000 * d) / R,
);

export const REACHES_IN = defineFormula(
  {
    id: 'gully.reaches-in',
    title: 'Years until a head reaches what stands uphill of it',
    statement: 't = D / (r/1000 · R/100)',
    symbols: {
      D: { means: 'distance from the lip', unit: 'm', domain: 'nonNegative' },
      r: { means: 'retreat for 100 mm of rain', unit: 'mm', domain: 'positive' },
      R: { means: 'rain of a year', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 't', means: 'at the pace measured', unit: 'years' },
    source: { key: 'common-practice', locator: 'carried on as it was: one large flood may do it in a night' },
  },
  ({ D, r, R }) => D / ((r / 1000) * (R / 100)),
);

/** Share of a round of diameter D that water of a depth covers. */
const roundShare = (D: number, y: number): number => {
  const depth = Math.min(D, y);
  const half = Math.acos(1 - (2 * depth) / D);
  return (half - Math.sin(half) * Math.cos(half)) / Math.PI;
};

const FLOAT_SYMBOLS = {
  y: { means: 'depth of water', unit: 'm', domain: 'nonNegative' },
  D: { means: 'thickness as it lies', unit: 'm', domain: 'positive' },
  w: { means: 'what a cubic metre of it weighs', unit: 'kg/m³', domain: 'positive' },
  p: { means: 'what stakes and wire hold', unit: 'kg/m', domain: 'nonNegative' },
} as const;

export const LOG_FLOATS = defineFormula(
  {
    id: 'gully.log-floats',
    title: 'Lift on a log against what holds it down',
    statement: 'F = ρ · A · s(y/D) / (w · A + p);  A = π·D²/4, s the share of it under water',
    symbols: FLOAT_SYMBOLS,
    result: { symbol: 'F', means: 'over 1 it floats', unit: '' },
    source: { key: 'statics', locator: 'Archimedes, a round lying down' },
  },
  ({ y, D, w, p }) => {
    const A = (Math.PI / 4) * D * D;
    return (WATER_KG_M3 * A * roundShare(D, y)) / (w * A + p);
  },
);

export const BALE_FLOATS = defineFormula(
  {
    id: 'gully.bale-floats',
    title: 'Lift on a bale against what holds it down',
    statement: 'F = ρ · D · min(D, y) / (w · D² + p)',
    symbols: FLOAT_SYMBOLS,
    result: { symbol: 'F', means: 'over 1 it floats', unit: '' },
    source: { key: 'statics', locator: 'Archimedes, a square lying down' },
  },
  ({ y, D, w, p }) => (WATER_KG_M3 * D * Math.min(D, y)) / (w * D * D + p),
);

const CHUTE_SYMBOLS = (least: number, most: number) =>
  ({
    q: { means: 'flow per metre of chute', unit: 'm²/s', domain: 'nonNegative' },
    S: { means: 'slope of the chute', unit: 'm/m', domain: 'positive', range: [least, most] },
  }) as const;

export const CHUTE_STONE_GENTLE = defineFormula(
  {
    id: 'gully.chute-stone-gentle',
    title: 'Stone of a chute flatter than a tenth',
    statement: 'D50 = (q · S^1.5 / 9.76e-7)^(1/1.89)',
    symbols: CHUTE_SYMBOLS(0.02, 0.1),
    result: { symbol: 'D50', means: 'median stone', unit: 'mm' },
    source: { key: 'robinson-1998', locator: 'slopes under 0.10', fromMemory: true },
  },
  ({ q, S }) => ((q * S ** 1.5) / 9.76e-7) ** (1 / 1.89),
);

export const CHUTE_STONE_STEEP = defineFormula(
  {
    id: 'gully.chute-stone-steep',
    title: 'Stone of a chute of a tenth to four tenths',
    statement: 'D50 = (q · S^0.58 / 8.07e-6)^(1/1.89)',
    symbols: CHUTE_SYMBOLS(0.1, 0.4),
    result: { symbol: 'D50', means: 'median stone', unit: 'mm' },
    source: { key: 'robinson-1998', locator: 'slopes of 0.10 to 0.40', fromMemory: true },
  },
  ({ q, S }) => ((q * S ** 0.58) / 8.07e-6) ** (1 / 1.89),
);

/** The slope at which one law hands over to the other. */
export const STEEP = 0.1;
/** The steepest either was made for. */
export const STEEPEST = 0.4;
