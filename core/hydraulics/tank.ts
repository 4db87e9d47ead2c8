// What roofs bring to a tank, what its first water is let go, and how large it must be.
import { defineFormula, defineLaw, together } from '../formula/index.ts';

export const ROOF_YIELD = defineFormula(
  {
    id: 'hydraulics.roof-yield',
    title: 'What a roof brings',
    statement: 'V = C·P·A / 1000',
    symbols: {
      C: { means: 'share that runs off', unit: '', domain: 'nonNegative', range: [0.5, 1] },
      P: { means: 'rain', unit: 'mm', domain: 'nonNegative' },
      A: { means: 'roof, from above', unit: 'm²', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'water', unit: 'm³' },
    source: { key: 'geometry', locator: 'a depth over an area' },
  },
  ({ C, P, A }) => (C * P * A) / 1000,
);

export const DRY_STORE = defineFormula(
  {
    id: 'hydraulics.dry-store',
    title: 'Room for a dry season',
    statement: 'V = t·n·u / (1000·(1 − s))',
    symbols: {
      t: { means: 'days without rain', unit: 'd', domain: 'nonNegative' },
      n: { means: 'people', unit: '', domain: 'nonNegative' },
      u: { means: 'each uses in a day', unit: 'L', domain: 'nonNegative' },
      s: { means: 'share of the tank that cannot be drawn', unit: '', domain: 'nonNegative', range: [0, 0.5] },
    },
    result: { symbol: 'V', means: 'room', unit: 'm³' },
    source: { key: 'common-practice', locator: 'a tenth lies under the tap' },
  },
  ({ t, n, u, s }) => (t * n * u) / 1000 / (1 - s),
);

export const SEQUENT_PEAK = defineLaw(
  {
    id: 'hydraulics.sequent-peak',
    title: 'Room that never runs dry in a record',
    statement: 'K = max(0, K before + D − Q), through the record twice; S = the greatest K',
    symbols: {
      Q: { means: 'what comes, step by step', unit: 'm³', domain: 'nonNegative', many: true },
      D: { means: 'what is drawn, step by step', unit: 'm³', domain: 'nonNegative', many: true },
    },
    result: { symbol: 'S', means: 'room', unit: 'm³' },
    source: { key: 'loucks-2005', locator: 'sequent peak', fromMemory: true },
    limits: 'As long as more comes in all than is drawn.',
  },
  ({ Q, D }) => {
    together('hydraulics.sequent-peak', Q, D);
    let [lacks, most] = [0, 0];
    for (let k = 0; k < 2 * Q.length; k++) {
      lacks = Math.max(0, lacks + D[k % Q.length] - Q[k % Q.length]);
      most = Math.max(most, lacks);
    }
    return most;
  },
);
