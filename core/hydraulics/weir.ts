import { defineFormula } from '../formula/index.ts';

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

/** Flow [m3/s] over a grassed crest at a level of the water behind it: the bare law of BROAD_CREST, for loops. */
export function grassedSillLaw({ lengthM, levelM }: { readonly lengthM: number; readonly levelM: number }): (atM: number) => number {
  const perHead = GRASSED_SILL_C * lengthM;
  return (atM) => {
    const head = atM - levelM;
    return head > 0 ? perHead * head * Math.sqrt(head) : 0;
  };
}

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
