import { defineFormula } from '../../formula/index.ts';

/** What a section is made of, for its formulas: bed, bank on either side, depth. */
const SECTION = {
  b: { means: 'width of the bed', unit: 'm', domain: 'positive' },
  zl: { means: 'left bank, out per 1 up', unit: '', domain: 'nonNegative' },
  zr: { means: 'right bank, out per 1 up', unit: '', domain: 'nonNegative' },
  y: { means: 'depth over the bed', unit: 'm', domain: 'positive' },
} as const;

interface Across {
  readonly b: number;
  readonly zl: number;
  readonly zr: number;
  readonly y: number;
}

const area = ({ b, zl, zr, y }: Across): number => (b + ((zl + zr) * y) / 2) * y;
const wetted = ({ b, zl, zr, y }: Across): number => b + y * (Math.hypot(1, zl) + Math.hypot(1, zr));

export const SECTION_CARRIES = defineFormula(
  {
    id: 'reach.carries',
    title: 'What a section of two banks carries as it runs evenly',
    statement: 'Q = A · (A/P)^(2/3) · S^(1/2) / n,  A = (b + (zl + zr)·y/2)·y,  P = b + y·((1 + zl²)^0.5 + (1 + zr²)^0.5)',
    symbols: {
      ...SECTION,
      S: { means: 'fall of the bed', unit: 'm/m', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.01, 0.25] },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'eq. 5-6 with the area and wetted perimeter of the section', fromMemory: true },
  },
  ({ S, n, ...of }) => (area(of) * Math.cbrt(area(of) / wetted(of)) ** 2 * Math.sqrt(S)) / n,
);

export const SECTION_SPEED = defineFormula(
  {
    id: 'reach.speed',
    title: 'Mean speed in a section of two banks',
    statement: 'V = Q / ((b + (zl + zr)·y/2)·y)',
    symbols: { Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' }, ...SECTION },
    result: { symbol: 'V', means: 'mean speed', unit: 'm/s' },
    source: { key: 'geometry', locator: 'flow over area' },
  },
  ({ Q, ...of }) => Q / area(of),
);

export const CONVEYANCE = defineFormula(
  {
    id: 'reach.conveyance',
    title: 'Conveyance of a section of two banks',
    statement: 'K = A · (A/P)^(2/3) / n',
    symbols: { ...SECTION, n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.01, 0.25] } },
    result: { symbol: 'K', means: 'conveyance', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'section 6-2', fromMemory: true },
  },
  ({ n, ...of }) => (area(of) * Math.cbrt(area(of) / wetted(of)) ** 2) / n,
);
