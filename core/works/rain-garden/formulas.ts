// How large a rain garden is, by what it holds and by the tables of gardeners.
import { defineFormula, defineLaw } from '../../formula/index.ts';

export const GARDEN_AREA = defineFormula(
  {
    id: 'rain-garden.area',
    title: 'Area that holds a volume of runoff',
    statement: 'A = V / (d + n · m)',
    symbols: {
      V: { means: 'runoff to hold', unit: 'm³', domain: 'nonNegative' },
      d: { means: 'depth water stands', unit: 'm', domain: 'positive' },
      n: { means: 'share of the loose soil that water fills', unit: '', domain: 'nonNegative', range: [0.2, 0.35] },
      m: { means: 'depth of loose soil under it', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'A', means: 'area of the basins together', unit: 'm²' },
    source: { key: 'geometry', locator: 'volume over depth; nothing soaks away meanwhile' },
  },
  ({ V, d, n, m }) => V / (d + n * m),
);

export const SOAK_DEPTH = defineFormula(
  {
    id: 'rain-garden.depth',
    title: 'Depth that soaks away in a time',
    statement: 'd = f · t / 1000',
    symbols: {
      f: { means: 'rate of its floor', unit: 'mm/h', domain: 'nonNegative' },
      t: { means: 'hours', unit: 'h', domain: 'nonNegative' },
    },
    result: { symbol: 'd', means: 'depth', unit: 'm' },
    source: { key: 'common-practice', locator: 'gone within a day on lawns and gardens' },
  },
  ({ f, t }) => (f * t) / 1000,
);

/** Share of the drained area by soil and by how deep it is, within 30 ft of what drains; beyond, by soil alone. */
const NEAR = {
  sandy: { '3-5': 0.19, '6-7': 0.15, '8': 0.08 },
  silty: { '3-5': 0.34, '6-7': 0.25, '8': 0.16 },
  clayey: { '3-5': 0.43, '6-7': 0.32, '8': 0.2 },
} as const;
const FAR = { sandy: 0.03, silty: 0.06, clayey: 0.1 } as const;

export const GARDEN_FACTOR = defineLaw(
  {
    id: 'rain-garden.factor',
    title: 'Area of a garden by soil, depth and distance',
    statement: 'A = A drained · factor of the table',
    symbols: {
      area: { means: 'area that drains to it', unit: '', domain: 'nonNegative' },
      soil: { means: 'its soil', unit: '', domain: 'finite', words: ['sandy', 'silty', 'clayey'] },
      inches: { means: 'how deep it is', unit: 'in', domain: 'finite', words: ['3-5', '6-7', '8'] },
      distance: { means: 'from what drains to it, 30 ft or more', unit: '', domain: 'finite', words: ['near', 'far'] },
    },
    result: { symbol: 'A', means: 'area of the garden, as the area drained', unit: '' },
    source: { key: 'bannerman-2003', locator: 'size factors', fromMemory: true },
  },
  ({ area, soil, inches, distance }) => {
    const near = NEAR[soil];
    return area * (distance === 'near' ? near[inches] : FAR[soil]);
  },
);
