// How far apart swales lie down a slope, by the rules of several schools, and what stands in their lee.
import { defineFormula } from '../../formula/index.ts';

const FT = 0.3048;
const S = { means: 'slope of the ground', unit: '%', domain: 'nonNegative' } as const;
const VI = { symbol: 'VI', means: 'fall from one to the next', unit: 'm' } as const;

export const INTERVAL = defineFormula(
  {
    id: 'swale-set.interval',
    title: 'Fall from one to the next, by slope, region and cover',
    statement: 'VI = x·S + y',
    symbols: {
      x: { means: 'by region: 0.12 where rain is heavy to 0.24 where it is gentle', unit: 'm', domain: 'positive', range: [0.05, 0.4] },
      S,
      y: { means: 'by soil and cover: 0.3 where it washes easily to 1.2', unit: 'm', domain: 'nonNegative', range: [0.2, 1.5] },
    },
    result: VI,
    source: { key: 'asae-s268', locator: 'terrace spacing', fromMemory: true },
  },
  ({ x, S: slope, y }) => x * slope + y,
);

export const INTERVAL_HUDSON = defineFormula(
  {
    id: 'swale-set.interval-hudson',
    title: 'Fall from one to the next, as in southern Africa',
    statement: 'VI = 0.3048·(S + f)/2',
    symbols: { S, f: { means: 'by soil: 3 where it washes easily to 6', unit: '', domain: 'positive', range: [3, 6] } },
    result: VI,
    source: { key: 'hudson-1981', locator: 'in feet, (S + f)/2', fromMemory: true },
  },
  ({ S: slope, f }) => (FT * (slope + f)) / 2,
);

export const STORAGE_APART = defineFormula(
  {
    id: 'swale-set.storage-apart',
    title: 'As far apart as each holds what runs off between',
    statement: 'L = 1000·A / Q',
    symbols: {
      A: { means: 'water a metre of swale holds', unit: 'm²', domain: 'nonNegative' },
      Q: { means: 'what runs off', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'L', means: 'along the ground', unit: 'm' },
    source: { key: 'geometry', locator: 'run-on between two against room' },
  },
  ({ A, Q }) => (1000 * A) / Q,
);

export const LEE = defineFormula(
  {
    id: 'swale-set.lee',
    title: 'Ground in the lee of a row of trees',
    statement: 'L = 10·H·|sin a|',
    symbols: {
      H: { means: 'height of the row when it is grown', unit: 'm', domain: 'nonNegative' },
      a: { means: 'between the wind and the row', unit: '°', domain: 'finite' },
    },
    result: { symbol: 'L', means: 'well sheltered behind it', unit: 'm' },
    source: { key: 'common-practice', locator: 'ten times the height behind a row the wind meets squarely' },
  },
  ({ H, a }) => 10 * H * Math.abs(Math.sin((a * Math.PI) / 180)),
);

/** x and y in the middle of their ranges: 0.6 and 2 where it is told in feet. */
export const MIDDLE_XY = { x: 0.6 * FT, y: 2 * FT } as const;

/** Along the ground, by the interval rule with the middle of its ranges [m]. */
export const apartByInterval = (slope: number): number => INTERVAL.evaluate({ ...MIDDLE_XY, S: 100 * slope }) / Math.max(1e-6, slope);
