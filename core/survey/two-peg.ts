// Whether the line of sight of a level lies level: two pegs, read from the middle and from beside the first.
import { defineFormula } from '../formula/index.ts';

const read = (where: string) => ({ means: where, unit: 'm', domain: 'finite' }) as const;
const SYMBOLS = {
  a1: read('staff on the first peg, from the middle'),
  b1: read('staff on the second, from the middle'),
  a2: read('on the first, from beside it'),
  b2: read('on the second, from beside the first'),
} as const;
const SOURCE = { key: 'common-practice', locator: 'from the middle the error of both cancels' } as const;

export const TWO_PEG_ERROR = defineFormula(
  {
    id: 'survey.two-peg-error',
    title: 'Error of a line of sight over the way between two pegs',
    statement: 'e = (a2 − b2) − (a1 − b1)',
    symbols: SYMBOLS,
    result: { symbol: 'e', means: 'less than nothing: it reads high at the far peg', unit: 'm' },
    source: SOURCE,
    limits: 'Over 5 mm in 50 m it is set right, or each reading is taken from the middle.',
  },
  ({ a1, b1, a2, b2 }) => a2 - b2 - (a1 - b1),
);

export const TWO_PEG_TRUE = defineFormula(
  {
    id: 'survey.two-peg-true',
    title: 'What the far staff should read',
    statement: 'b = a2 − (a1 − b1)',
    symbols: { a1: SYMBOLS.a1, b1: SYMBOLS.b1, a2: SYMBOLS.a2 },
    result: { symbol: 'b', means: 'on the second, from beside the first', unit: 'm' },
    source: SOURCE,
  },
  ({ a1, b1, a2 }) => a2 - (a1 - b1),
);
