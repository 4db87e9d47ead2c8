import { defineFormula } from '../formula/index.ts';
import type { FlowLaw } from './law.ts';

/** Discharge coefficient of a rough or grassed level sill [m^0.5/s]; the frictionless broad crest has 1.705. */
export const GRASSED_SILL_C = 1.5; // design value between 1.5 (rough) and 1.7 (smooth): common practice

export const BROAD_CREST = defineFormula(
  {
    id: 'hydraulics.broad-crested-weir',
    title: 'Flow over a level sill',
    statement: 'Q = C · L · H^1.5',
    symbols: {
      C: { means: 'sill coefficient', unit: 'm^0.5/s', domain: 'positive', range: [1.3, 1.84] },
      L: { means: 'sill length', unit: 'm', domain: 'nonNegative' },
      H: { means: 'head on the sill', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'section 3-7, critical flow over a broad crest', fromMemory: true },
    limits: 'Head between 0.08 and 0.33 of the crest width along the flow.',
  },
  ({ C, L, H }) => C * L * H ** 1.5,
);

/** A level crest: its length [m] and its level [m]. */
interface Crest {
  readonly lengthM: number;
  readonly levelM: number;
}

/**
 * Flow [m3/s] over a crest of a coefficient C [m^0.5/s] at a level of the water behind it: the bare law of BROAD_CREST, for loops.
 * By a root: a power costs several times as much.
 */
export function crestLaw({ C, lengthM, levelM }: Crest & { readonly C: number }): FlowLaw {
  const perHead = C * lengthM;
  const law = (atM: number): number => {
    const head = atM - levelM;
    return head > 0 ? perHead * head * Math.sqrt(head) : 0;
  };
  return Object.assign(law, { crest: { perHead, levelM } });
}

/** The same over a grassed one. */
export const grassedSillLaw = ({ lengthM, levelM }: Crest): FlowLaw => crestLaw({ C: GRASSED_SILL_C, lengthM, levelM });

export const SILL_HEAD = defineFormula(
  {
    id: 'hydraulics.sill-head',
    title: 'Head on a level sill',
    statement: 'H = (Q / (C · L))^(2/3)',
    symbols: {
      Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' },
      C: { means: 'sill coefficient', unit: 'm^0.5/s', domain: 'positive' },
      L: { means: 'sill length', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'H', means: 'head on the sill', unit: 'm' },
    source: { key: 'chow1959', locator: 'section 3-7, solved for the head', fromMemory: true },
  },
  ({ Q, C, L }) => (Q / (C * L)) ** (2 / 3),
);

export const SILL_LENGTH = defineFormula(
  {
    id: 'hydraulics.sill-length',
    title: 'Sill length for a flow and a head',
    statement: 'L = Q / (C · H^1.5)',
    symbols: {
      Q: { means: 'flow to pass', unit: 'm³/s', domain: 'nonNegative' },
      C: { means: 'sill coefficient', unit: 'm^0.5/s', domain: 'positive' },
      H: { means: 'head allowed', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'L', means: 'sill length', unit: 'm' },
    source: { key: 'chow1959', locator: 'section 3-7, solved for the length', fromMemory: true },
  },
  ({ Q, C, H }) => Q / (C * H ** 1.5),
);

export const SHARP_CREST = defineFormula(
  {
    id: 'hydraulics.sharp-crested-weir',
    title: 'Flow over a sharp crest or board',
    statement: 'Q = 1.84 · (L − 0.1·N·H) · H^1.5',
    symbols: {
      L: { means: 'crest length', unit: 'm', domain: 'positive' },
      H: { means: 'head on the crest', unit: 'm', domain: 'nonNegative' },
      N: { means: 'ends where the stream contracts', unit: '', domain: 'nonNegative', range: [0, 2] },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'francis-1883', locator: 'contracted weir, 3.33 in feet', fromMemory: true },
    limits: 'Head under a third of the length.',
  },
  ({ L, H, N }) => 1.84 * Math.max(0, L - 0.1 * N * H) * H ** 1.5,
);

export const V_NOTCH = defineFormula(
  {
    id: 'hydraulics.v-notch',
    title: 'Flow through a right-angled notch',
    statement: 'Q = 1.38 · H^2.5',
    symbols: { H: { means: 'head on the point of the notch', unit: 'm', domain: 'nonNegative' } },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'thin-plate V-notch of 90 degrees', fromMemory: true },
  },
  ({ H }) => 1.38 * H ** 2.5,
);

/** Share of its free flow a rectangular crest keeps when the water beyond stands above it, by the ratio of the two heads. */
function keptOf(ratio: number): number {
  if (ratio <= 0) return 1;
  if (ratio >= 1) return 0;
  return (1 - ratio * Math.sqrt(ratio)) ** 0.385;
}

export const DROWNED_WEIR = defineFormula(
  {
    id: 'hydraulics.drowned-weir',
    title: 'Share of its flow a drowned crest keeps',
    statement: 'k = (1 − (H2/H1)^1.5)^0.385',
    symbols: {
      H1: { means: 'head on the crest above it', unit: 'm', domain: 'positive' },
      H2: { means: 'head on the crest beyond it', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'k', means: 'share of the free flow', unit: '' },
    source: { key: 'villemonte-1947', locator: 'rectangular, exponent 1.5', fromMemory: true },
    limits: 'For thin crests; a broad crest keeps all of it up to a ratio of 0.7 to 0.8, so this is on the low side of it.',
  },
  ({ H1, H2 }) => keptOf(H2 / H1),
);

/** A crest of one width that may be drowned or run backwards: positive from the first side to the second. */
export function drownableSillLaw({ lengthM, levelM }: Crest): (atM: number, beyondM?: number) => number {
  const free = grassedSillLaw({ lengthM, levelM });
  const oneWay = (high: number, low: number): number =>
    low <= levelM ? free(high) : high <= levelM ? 0 : free(high) * keptOf((low - levelM) / (high - levelM));
  return (atM, beyondM = -Infinity) => (atM >= beyondM ? oneWay(atM, beyondM) : -oneWay(beyondM, atM));
}

/** Flow over ground that rises to the side of a wall's end, where water begins to go round it: a crest of one slope. */
export function sideSlopeLaw({ slope, levelM }: { readonly slope: number; readonly levelM: number }): (atM: number) => number {
  // The integral of C·h^1.5 across ground of one slope.
  const perHead = (0.4 * GRASSED_SILL_C) / slope;
  return (atM) => {
    const head = atM - levelM;
    return head > 0 ? perHead * head * head * Math.sqrt(head) : 0;
  };
}
