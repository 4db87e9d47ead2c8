// Water that falls over a straight drop: where it lands, how deep it runs and jumps, and how deep it digs.
import { defineFormula } from '../formula/index.ts';
import { GRAVITY } from './orifice.ts';

const RAND = { key: 'rand-1955', fromMemory: true } as const;
const DROP_SYMBOLS = {
  h: { means: 'height of the drop, from the crest to the apron', unit: 'm', domain: 'positive' },
  q: { means: 'flow per metre of crest', unit: 'm²/s', domain: 'nonNegative' },
} as const;

/** Drop number: what the geometry of the fall goes by. */
const dropNumber = (q: number, h: number): number => (q * q) / (GRAVITY * h ** 3);

export const DROP_LENGTH = defineFormula(
  {
    id: 'hydraulics.drop-length',
    title: 'Where falling water lands',
    statement: 'Ld = 4.30 · h · D^0.27;  D = q² / (g·h³)',
    symbols: DROP_SYMBOLS,
    result: { symbol: 'Ld', means: 'from the crest to where it lands', unit: 'm' },
    source: { ...RAND, locator: 'straight drop: length of the fall' },
  },
  ({ h, q }) => 4.3 * h * dropNumber(q, h) ** 0.27,
);

export const DROP_DEPTH = defineFormula(
  {
    id: 'hydraulics.drop-depth',
    title: 'How thin water runs off where it landed',
    statement: 'y1 = 0.54 · h · D^0.425;  D = q² / (g·h³)',
    symbols: DROP_SYMBOLS,
    result: { symbol: 'y1', means: 'depth at the foot of the fall', unit: 'm' },
    source: { ...RAND, locator: 'straight drop: depth before the jump' },
  },
  ({ h, q }) => 0.54 * h * dropNumber(q, h) ** 0.425,
);

export const DROP_TAIL = defineFormula(
  {
    id: 'hydraulics.drop-tail',
    title: 'Depth that holds the jump at the foot of a drop',
    statement: 'y2 = 1.66 · h · D^0.27;  D = q² / (g·h³)',
    symbols: DROP_SYMBOLS,
    result: { symbol: 'y2', means: 'depth of tail water asked for', unit: 'm' },
    source: { ...RAND, locator: 'straight drop: depth after the jump' },
  },
  ({ h, q }) => 1.66 * h * dropNumber(q, h) ** 0.27,
);

const SCOUR_SYMBOLS = {
  H: { means: 'fall from the water above to the water below', unit: 'm', domain: 'nonNegative' },
  q: { means: 'flow per metre', unit: 'm²/s', domain: 'nonNegative' },
} as const;

export const SCOUR_VERONESE = defineFormula(
  {
    id: 'hydraulics.scour-veronese',
    title: 'Hole dug by falling water, whatever the bed',
    statement: 'ds = 1.9 · H^0.225 · q^0.54',
    symbols: SCOUR_SYMBOLS,
    result: { symbol: 'ds', means: 'from the water below to the bottom of the hole', unit: 'm' },
    source: { key: 'veronese-1937', locator: 'limiting depth', fromMemory: true },
    limits: 'Laws of scour differ by a factor of two and more: found below the greater.',
  },
  ({ H, q }) => 1.9 * H ** 0.225 * q ** 0.54,
);

export const SCOUR_SCHOKLITSCH = defineFormula(
  {
    id: 'hydraulics.scour-schoklitsch',
    title: 'Hole dug by falling water, by the bed',
    statement: 'ds = 4.75 · H^0.2 · q^0.57 / d90^0.32',
    symbols: { ...SCOUR_SYMBOLS, d90: { means: 'grain that 90 % of the bed is finer than', unit: 'mm', domain: 'positive' } },
    result: { symbol: 'ds', means: 'from the water below to the bottom of the hole', unit: 'm' },
    source: { key: 'schoklitsch-1932', fromMemory: true },
    limits: 'Made of laboratory beds of 9 to 36 mm: on finer beds it tells deep holes.',
  },
  ({ H, q, d90 }) => (4.75 * H ** 0.2 * q ** 0.57) / d90 ** 0.32,
);
