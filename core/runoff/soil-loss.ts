// Soil worn off by sheet and rill erosion: the revised universal equation and its factors.
import { defineFormula } from '../formula/index.ts';

const angle = { means: 'slope', unit: 'm/m', domain: 'nonNegative', range: [0, 0.325] } as const;
const length = { means: 'slope length', unit: 'm', domain: 'nonNegative', range: [5, 300] } as const;
const sine = (slope: number): number => slope / Math.hypot(1, slope);

/** Length of the plots the equation was made on [m]: 72.6 ft. */
export const PLOT_M = 22.13;

/** Exponent of slope length where rilling and sheet wash are as usual (McCool et al. 1989; handbook 5.10). */
export function lengthExponent(slope: number): number {
  const s = sine(slope);
  const beta = s / 0.0896 / (3 * s ** 0.8 + 0.56);
  return beta / (1 + beta);
}

export const RUSLE_LENGTH = defineFormula(
  {
    id: 'erosion.slope-length',
    title: 'Slope-length factor',
    statement: 'L = (λ/22.13)^m;  m = β/(1 + β);  β = (sin θ/0.0896)/(3·sin^0.8 θ + 0.56)',
    symbols: { λ: length, S: angle },
    result: { symbol: 'L', means: 'slope-length factor', unit: '' },
    source: { key: 'rusle', locator: 'chapter 4', fromMemory: true },
  },
  ({ λ, S }) => (λ / PLOT_M) ** lengthExponent(S),
);

/** Steepness factor: the bare law, for loops. */
export function steepnessOf(slope: number): number {
  const s = sine(slope);
  return slope < 0.09 ? 10.8 * s + 0.03 : 16.8 * s - 0.5;
}

export const RUSLE_STEEPNESS = defineFormula(
  {
    id: 'erosion.steepness',
    title: 'Steepness factor',
    statement: 'S = 10.8·sin θ + 0.03 under 9 %, else 16.8·sin θ − 0.5',
    symbols: { s: angle },
    result: { symbol: 'S', means: 'steepness factor', unit: '' },
    source: { key: 'rusle', locator: 'chapter 4 (McCool et al. 1987)', fromMemory: true },
  },
  ({ s }) => steepnessOf(s),
);

export const USLE_TERRAIN = defineFormula(
  {
    id: 'erosion.usle-terrain',
    title: 'Terrain factor of the older equation',
    statement: 'LS = (λ/22.13)^m · (65.41·sin² θ + 4.56·sin θ + 0.065)',
    symbols: { λ: length, S: angle },
    result: { symbol: 'LS', means: 'terrain factor', unit: '' },
    source: { key: 'ah537', locator: 'Table 3 and its equation; m 0.5 from 5 %, 0.4 from 3.5 %, 0.3 from 1 %, else 0.2', fromMemory: true },
  },
  ({ λ, S }) => {
    const s = sine(S);
    const m = S >= 0.05 ? 0.5 : S >= 0.035 ? 0.4 : S >= 0.01 ? 0.3 : 0.2;
    return (λ / PLOT_M) ** m * (65.41 * s * s + 4.56 * s + 0.065);
  },
);

export const SOIL_LOSS = defineFormula(
  {
    id: 'erosion.soil-loss',
    title: 'Soil loss of a year',
    statement: 'A = R · K · LS · C · P',
    symbols: {
      R: { means: 'erosivity of the rain', unit: 'MJ·mm/(ha·h·yr)', domain: 'nonNegative' },
      K: { means: 'erodibility of the soil', unit: 't·ha·h/(ha·MJ·mm)', domain: 'nonNegative', range: [0, 0.1] },
      LS: { means: 'terrain factor', unit: '', domain: 'nonNegative' },
      C: { means: 'cover factor', unit: '', domain: 'nonNegative', range: [0, 1] },
      P: { means: 'practice factor', unit: '', domain: 'nonNegative', range: [0, 1] },
    },
    result: { symbol: 'A', means: 'soil loss', unit: 't/(ha·yr)' },
    source: { key: 'rusle', locator: 'eq. 1-1', fromMemory: true },
    limits: 'Sheet and rill erosion, long-term mean: no gullies, no single storm. Compare by it; trust no last digit.',
  },
  ({ R, K, LS, C, P }) => R * K * LS * C * P,
);

export const RAIN_EROSIVITY = defineFormula(
  {
    id: 'erosion.rain-erosivity',
    title: 'Erosivity by yearly rain',
    statement: 'R = 0.0483·P^1.610 under 850 mm, else 587.8 − 1.219·P + 0.004105·P²',
    symbols: { P: { means: 'yearly rain', unit: 'mm', domain: 'nonNegative', range: [100, 2500] } },
    result: { symbol: 'R', means: 'erosivity of the rain', unit: 'MJ·mm/(ha·h·yr)' },
    source: { key: 'renard-1994', locator: 'eqs 11 and 12', fromMemory: true },
    limits:
      'Fitted in the United States; a local figure is better. Where rain falls in few hard storms it is more. The bounds are common practice.',
  },
  ({ P }) => (P < 850 ? 0.0483 * P ** 1.61 : 587.8 - 1.219 * P + 0.004105 * P * P),
);

export const ERODIBILITY = defineFormula(
  {
    id: 'erosion.erodibility',
    title: 'Erodibility of a soil',
    statement: 'K = 0.1317·(2.1e-4·M^1.14·(12 − OM) + 3.25·(s − 2) + 2.5·(p − 3))/100;  M = (silt + vfs)·(100 − clay)',
    symbols: {
      silt: { means: 'silt and very fine sand', unit: '%', domain: 'nonNegative', range: [0, 70] },
      clay: { means: 'clay', unit: '%', domain: 'nonNegative', range: [0, 100] },
      OM: { means: 'organic matter', unit: '%', domain: 'nonNegative', range: [0, 4] },
      s: { means: 'structure: 1 very fine granular to 4 blocky', unit: '', domain: 'positive', range: [1, 4] },
      p: { means: 'permeability: 1 rapid to 6 very slow', unit: '', domain: 'positive', range: [1, 6] },
    },
    result: { symbol: 'K', means: 'erodibility', unit: 't·ha·h/(ha·MJ·mm)' },
    source: { key: 'ah537', locator: 'soil erodibility nomograph', fromMemory: true },
  },
  ({ silt, clay, OM, s, p }) => (0.1317 * (2.1e-4 * (silt * (100 - clay)) ** 1.14 * (12 - OM) + 3.25 * (s - 2) + 2.5 * (p - 3))) / 100,
);

/** Practice factor of work along the contour, by slope (AH-537 Table 13; handbook 5.10). Steeper than its table: none. */
const CONTOUR_PRACTICE: readonly (readonly [toSlope: number, factor: number])[] = [
  [0.02, 0.6],
  [0.08, 0.5],
  [0.12, 0.6],
  [0.16, 0.7],
  [0.2, 0.8],
  [0.25, 0.9],
];

export const contourPractice = (slope: number): number => CONTOUR_PRACTICE.find(([to]) => slope <= to)?.[1] ?? 1;

export const DELIVERY = defineFormula(
  {
    id: 'erosion.delivery',
    title: 'Share of the soil that arrives',
    statement: 'D = 0.42 · (A/2.59)^−0.125, at most 1',
    symbols: { A: { means: 'catchment', unit: 'km²', domain: 'positive' } },
    result: { symbol: 'D', means: 'share delivered', unit: '' },
    source: { key: 'vanoni-1975', locator: 'sediment delivery ratio by drainage area', fromMemory: true },
    limits: 'From basins of 0.01 km² and more; smaller ones keep the same law. A range of half to double is usual.',
  },
  ({ A }) => Math.min(1, 0.42 * (A / 2.59) ** -0.125),
);

/** Silt as it settles in still water [t/m3]: common practice. */
export const SILT_DENSITY = 1.2;
