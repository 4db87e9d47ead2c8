import { defineFormula } from '../../formula/index.ts';

export const WALL_SECTION = defineFormula(
  {
    id: 'pond.wall-section',
    title: 'Earth in a metre of wall, on level ground',
    statement: 'A = w·h + (z1 + z2)·h² / 2',
    symbols: {
      w: { means: 'width of the crest', unit: 'm', domain: 'nonNegative' },
      h: { means: 'height', unit: 'm', domain: 'nonNegative' },
      z1: { means: 'water side, out per 1 up', unit: '', domain: 'nonNegative' },
      z2: { means: 'outer side, out per 1 up', unit: '', domain: 'nonNegative' },
    },
    result: { symbol: 'A', means: 'earth per metre', unit: 'm²' },
    source: { key: 'geometry' },
  },
  ({ w, h, z1, z2 }) => w * h + ((z1 + z2) * h * h) / 2,
);

export const WALL_QUICK = defineFormula(
  {
    id: 'pond.wall-quick',
    title: 'Earth in a small dam, first guess',
    statement: 'V = 0.216 · H · L · (2·C + H·S)',
    symbols: {
      H: { means: 'greatest height', unit: 'm', domain: 'nonNegative' },
      L: { means: 'length of the crest', unit: 'm', domain: 'nonNegative' },
      C: { means: 'width of the crest', unit: 'm', domain: 'nonNegative' },
      S: { means: 'sum of both sides, out per 1 up', unit: '', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'earth', unit: 'm³' },
    source: { key: 'fao-id64', locator: 'small earth dams, rapid estimate', fromMemory: true },
  },
  ({ H, L, C, S }) => 0.216 * H * L * (2 * C + H * S),
);

export const VALLEY_VOLUME = defineFormula(
  {
    id: 'pond.valley-volume',
    title: 'Water behind a wall across a valley, first guess',
    statement: 'V = L · T · H / 6',
    symbols: {
      L: { means: 'wall at full water', unit: 'm', domain: 'nonNegative' },
      T: { means: 'throwback: how far water reaches up the valley', unit: 'm', domain: 'nonNegative' },
      H: { means: 'greatest depth', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'water', unit: 'm³' },
    source: { key: 'fao-id64', locator: 'small earth dams, capacity', fromMemory: true },
    limits: 'Within a fifth to a third, in V-shaped valleys.',
  },
  ({ L, T, H }) => (L * T * H) / 6,
);

export const POND_VOLUME = defineFormula(
  {
    id: 'pond.volume',
    title: 'Water in a pond by its surface and depth, first guess',
    statement: 'V = 0.4 · A · d',
    symbols: {
      A: { means: 'water surface', unit: 'm²', domain: 'nonNegative' },
      d: { means: 'greatest depth', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'water', unit: 'm³' },
    source: { key: 'ah590', locator: 'pond capacity', fromMemory: true },
    limits: 'Within a fifth to a third.',
  },
  ({ A, d }) => 0.4 * A * d,
);

export const PIT_VOLUME = defineFormula(
  {
    id: 'pond.pit-volume',
    title: 'Earth in a pit with sloping sides',
    statement: 'V = (A + 4·B + C) / 6 · D',
    symbols: {
      A: { means: 'area at the ground', unit: 'm²', domain: 'nonNegative' },
      B: { means: 'area half way down', unit: 'm²', domain: 'nonNegative' },
      C: { means: 'area of the floor', unit: 'm²', domain: 'nonNegative' },
      D: { means: 'depth', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'earth', unit: 'm³' },
    source: { key: 'ah590', locator: 'excavated ponds, prismoidal rule', fromMemory: true },
  },
  ({ A, B, C, D }) => ((A + 4 * B + C) / 6) * D,
);

export const CREST_WIDTH = defineFormula(
  {
    id: 'pond.crest-width',
    title: 'Width of a dam’s crest',
    statement: 'w = z / 5 + 3',
    symbols: { z: { means: 'height of the dam', unit: 'm', domain: 'nonNegative' } },
    result: { symbol: 'w', means: 'crest width', unit: 'm' },
    source: { key: 'usbr-small-dams', locator: 'crest width', fromMemory: true },
  },
  ({ z }) => z / 5 + 3,
);

const FT = 0.3048;

/** Least crest width by height of the wall (CPS 378; handbook 5.4) [m]. */
const TOPS: readonly (readonly [underM: number, widthM: number])[] = [
  [10 * FT, 1.8],
  [15 * FT, 2.4],
  [20 * FT, 3],
  [25 * FT, 3.7],
  [35 * FT, 4.3],
  [Infinity, 4.6],
];

export const leastTopWidth = (heightM: number): number => (TOPS.find(([under]) => heightM < under) ?? TOPS[TOPS.length - 1])[1];
