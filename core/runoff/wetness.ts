// Curve numbers on dry and wet ground, and with a smaller first loss.
import { defineFormula } from '../formula/index.ts';

export const WETNESSES = ['dry', 'average', 'wet'] as const;
export type Wetness = (typeof WETNESSES)[number];

/** Curve numbers at average, dry and wet antecedent runoff condition (NEH-630 Table 10-1, P; ends by definition). */
const BY_WETNESS: readonly (readonly [average: number, dry: number, wet: number])[] = [
  [0, 0, 0],
  [30, 15, 50],
  [40, 22, 60],
  [50, 31, 70],
  [55, 35, 74],
  [60, 40, 78],
  [65, 45, 82],
  [70, 51, 85],
  [75, 57, 88],
  [80, 63, 91],
  [85, 70, 94],
  [90, 78, 96],
  [95, 87, 98],
  [100, 100, 100],
];

/** The curve number of another wetness: the published table, straight between its rows. */
export function curveNumberWhen(wetness: Wetness, average: number): number {
  if (wetness === 'average') return average;
  const k = Math.max(
    1,
    BY_WETNESS.findIndex(([cn]) => average <= cn),
  );
  const [a, b] = [BY_WETNESS[k - 1], BY_WETNESS[k]];
  const column = wetness === 'dry' ? 1 : 2;
  return a[column] + ((average - a[0]) / (b[0] - a[0])) * (b[column] - a[column]);
}

const average = { CN: { means: 'curve number at average wetness', unit: '', domain: 'positive', range: [30, 98] } } as const;

export const DRY_CURVE_NUMBER = defineFormula(
  {
    id: 'runoff.curve-number-dry',
    title: 'Curve number on dry ground',
    statement: 'CN_I = 4.2·CN / (10 − 0.058·CN)',
    symbols: average,
    result: { symbol: 'CN_I', means: 'curve number after a dry spell', unit: '' },
    source: { key: 'chow-1988', locator: 'eq. 5.5.7', fromMemory: true },
    limits: 'Runoff is worked out with the table of NEH-630 instead, which this fits within two.',
  },
  ({ CN }) => (4.2 * CN) / (10 - 0.058 * CN),
);

export const WET_CURVE_NUMBER = defineFormula(
  {
    id: 'runoff.curve-number-wet',
    title: 'Curve number on wet ground',
    statement: 'CN_III = 23·CN / (10 + 0.13·CN)',
    symbols: average,
    result: { symbol: 'CN_III', means: 'curve number after days of rain', unit: '' },
    source: { key: 'chow-1988', locator: 'eq. 5.5.8', fromMemory: true },
    limits: 'Runoff is worked out with the table of NEH-630 instead, which this fits within two.',
  },
  ({ CN }) => (23 * CN) / (10 + 0.13 * CN),
);

export const SMALL_ABSTRACTION_NUMBER = defineFormula(
  {
    id: 'runoff.curve-number-005',
    title: 'Curve number for a first loss of 0.05 S',
    statement: 'CN_05 = 100 / (1.879·(100/CN − 1)^1.15 + 1)',
    symbols: { CN: { means: 'curve number of the tables, made for 0.2 S', unit: '', domain: 'positive', range: [30, 98] } },
    result: { symbol: 'CN_05', means: 'curve number to use with 0.05 S', unit: '' },
    source: { key: 'hawkins-2002', locator: 'conversion from 0.20 to 0.05', fromMemory: true },
    limits: 'A table number is never used with 0.05 S as it stands.',
  },
  ({ CN }) => 100 / (1.879 * (100 / Math.min(100, CN) - 1) ** 1.15 + 1),
);

export const SEALED_CURVE_NUMBER = defineFormula(
  {
    id: 'runoff.curve-number-sealed',
    title: 'Curve number with sealed surfaces mixed in',
    statement: 'CN_c = CN_p + (I/100)·(98 − CN_p)·(1 − 0.5·R)',
    symbols: {
      CN_p: { means: 'curve number of the open ground', unit: '', domain: 'positive', range: [30, 98] },
      I: { means: 'sealed share', unit: '%', domain: 'nonNegative', range: [0, 100] },
      R: { means: 'part of the sealed surface that drains over open ground', unit: '', domain: 'nonNegative', range: [0, 1] },
    },
    result: { symbol: 'CN_c', means: 'curve number of both', unit: '' },
    source: { key: 'tr55', locator: 'Figures 2-3 and 2-4', fromMemory: true },
    limits: 'R counts only up to 30 % sealed. Outlet adds runoff surface by surface instead, which averaging understates.',
  },
  ({ CN_p, I, R }) => CN_p + (I / 100) * (98 - CN_p) * (1 - 0.5 * (I <= 30 ? R : 0)),
);

export const SEALED_RUNOFF = defineFormula(
  {
    id: 'runoff.sealed-volume',
    title: 'Runoff volume by sealed share',
    statement: 'V = 10 · (0.05 + 0.009·I) · P · A',
    symbols: {
      I: { means: 'sealed share', unit: '%', domain: 'nonNegative', range: [0, 100] },
      P: { means: 'rain depth', unit: 'mm', domain: 'nonNegative', range: [0, 50] },
      A: { means: 'area', unit: 'ha', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'volume', unit: 'm³' },
    source: { key: 'schueler-1987', locator: 'simple method', fromMemory: true },
    limits: 'For the small storms of water quality.',
  },
  ({ I, P, A }) => 10 * (0.05 + 0.009 * I) * P * A,
);
