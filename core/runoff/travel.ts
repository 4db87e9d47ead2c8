// Time of concentration along the way the water takes, and by formulas that look at length and slope alone.
import { defineFormula } from '../formula/index.ts';

const length = { means: 'longest flow path', unit: 'm', domain: 'positive' } as const;
const slope = { means: 'slope along it', unit: 'm/m', domain: 'positive' } as const;
const minutes = { symbol: 'tc', means: 'time of concentration', unit: 'min' } as const;

export const SHEET_TIME = defineFormula(
  {
    id: 'runoff.sheet-time',
    title: 'Time as a thin sheet',
    statement: 't = 60 · 0.0913 · (n·L)^0.8 / (P2^0.5 · s^0.4)',
    symbols: {
      n: { means: 'roughness of sheet flow', unit: '', domain: 'positive', range: [0.01, 0.8] },
      L: { means: 'length as a sheet', unit: 'm', domain: 'nonNegative', range: [0, 30.5] },
      P2: { means: 'rain of a day, passed in one year of two', unit: 'mm', domain: 'positive' },
      s: slope,
    },
    result: { symbol: 't', means: 'travel time', unit: 'min' },
    source: { key: 'tr55', locator: 'eq. 3-3 in SI; 30 m at most by NEH-630 ch. 15', fromMemory: true },
  },
  ({ n, L, P2, s }) => (60 * 0.0913 * (n * L) ** 0.8) / (Math.sqrt(P2) * s ** 0.4),
);

/** The longest a sheet stays one: 100 ft, and 100·√s/n ft (NEH-630 ch. 15, McCuen & Spiess 1995) [m]. */
export function longestSheet(slopeM: number, n: number): number {
  const FT = 0.3048;
  return Math.min(100 * FT, (100 * FT * Math.sqrt(slopeM)) / n);
}

export const SHALLOW_VELOCITY = defineFormula(
  {
    id: 'runoff.shallow-velocity',
    title: 'Velocity of shallow gathered flow',
    statement: 'V = k · √s',
    symbols: { k: { means: 'by cover: 4.918 unpaved, 6.196 paved', unit: 'm/s', domain: 'positive', range: [0.7, 6.2] }, s: slope },
    result: { symbol: 'V', means: 'mean velocity', unit: 'm/s' },
    source: { key: 'neh630-15', locator: 'Table 15-3; TR-55 Figure 3-1', fromMemory: true },
  },
  ({ k, s }) => k * Math.sqrt(s),
);

export const TRAVEL_TIME = defineFormula(
  {
    id: 'runoff.travel-time',
    title: 'Travel time',
    statement: 't = L / (60 · V)',
    symbols: { L: { means: 'length', unit: 'm', domain: 'nonNegative' }, V: { means: 'velocity', unit: 'm/s', domain: 'positive' } },
    result: { symbol: 't', means: 'travel time', unit: 'min' },
    source: { key: 'tr55', locator: 'eq. 3-1', fromMemory: true },
  },
  ({ L, V }) => L / (60 * V),
);

export const KIRPICH = defineFormula(
  {
    id: 'runoff.kirpich',
    title: 'Kirpich',
    statement: 'tc = 0.0195 · L^0.77 · S^−0.385',
    symbols: { L: length, S: { ...slope, range: [0.03, 0.1] } },
    result: minutes,
    source: { key: 'kirpich-1940', locator: 'as in Chow et al. 1988 Table 15.1.2', fromMemory: true },
    limits: '0.4 to 45 ha with well-defined channels, slopes of 3 to 10 %.',
  },
  ({ L, S }) => 0.0195 * L ** 0.77 * S ** -0.385,
);

export const KERBY = defineFormula(
  {
    id: 'runoff.kerby',
    title: 'Kerby',
    statement: 'tc = 1.44 · (L·n/√S)^0.467',
    symbols: {
      L: { ...length, range: [0, 365] },
      n: { means: 'retardance: 0.02 smooth to 0.80 dense grass', unit: '', domain: 'positive', range: [0.02, 0.8] },
      S: { ...slope, range: [0, 0.01] },
    },
    result: minutes,
    source: { key: 'kerby-1959', locator: 'in SI', fromMemory: true },
    limits: 'Overland flow under 4 ha, flatter than 1 %.',
  },
  ({ L, n, S }) => 1.44 * ((L * n) / Math.sqrt(S)) ** 0.467,
);

export const AIRFIELD_TIME = defineFormula(
  {
    id: 'runoff.airfield-time',
    title: 'Overland flow of airfields',
    statement: 'tc = 3.26 · (1.1 − C) · L^0.5 / S^(1/3)',
    symbols: {
      C: { means: 'runoff coefficient', unit: '', domain: 'nonNegative', range: [0, 1] },
      L: { ...length, range: [0, 300] },
      S: { means: 'slope along it', unit: '%', domain: 'positive' },
    },
    result: minutes,
    source: { key: 'faa-1970', locator: 'AC 150/5320-5B, as in Chow et al. 1988 Table 15.1.2', fromMemory: true },
    limits: 'Made for airfields; used for urban overland flow. The bound on length is common practice.',
  },
  ({ C, L, S }) => (3.26 * (1.1 - C) * Math.sqrt(L)) / Math.cbrt(S),
);

export const BRANSBY_WILLIAMS = defineFormula(
  {
    id: 'runoff.bransby-williams',
    title: 'Bransby-Williams',
    statement: 'tc = 14.6 · L / (A^0.1 · S^0.2)',
    symbols: {
      L: { means: 'longest flow path', unit: 'km', domain: 'positive' },
      A: { means: 'area', unit: 'km²', domain: 'positive', range: [0.1, 130] },
      S: slope,
    },
    result: minutes,
    source: { key: 'bransby-williams-1922', locator: 'as used for rural catchments', fromMemory: true },
    limits: 'Rural catchments; small ones come out slow. The bounds on area are from memory.',
  },
  ({ L, A, S }) => (14.6 * L) / (A ** 0.1 * S ** 0.2),
);
