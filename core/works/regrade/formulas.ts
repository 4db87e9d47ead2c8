import { defineFormula } from '../../formula/index.ts';

export const EARTH_BALANCE = defineFormula(
  {
    id: 'regrade.balance',
    title: 'Earth left over, or wanting',
    statement: 'B = C − k·F',
    symbols: {
      C: { means: 'earth cut, as it lay', unit: 'm³', domain: 'nonNegative' },
      F: { means: 'earth filled, as it lies', unit: 'm³', domain: 'nonNegative' },
      k: { means: 'earth as it lay for one of fill trodden in', unit: '', domain: 'positive', range: [0.9, 1.3] },
    },
    result: { symbol: 'B', means: 'left over; less than nothing is wanting', unit: 'm³' },
    source: { key: 'common-practice', locator: 'earth loses about a tenth when it is compacted' },
  },
  ({ C, F, k }) => C - k * F,
);
/** Earth as it lay for one of fill, and what lies loose for one as it lay: common practice for loam. */
export const [COMPACTS, SWELLS] = [1.1, 1.25];
