import { defineFormula } from '../formula/index.ts';

export const RATIONAL_PEAK = defineFormula(
  {
    id: 'runoff.rational',
    title: 'Rational peak',
    statement: 'Q = C · i · A / 360',
    symbols: {
      C: { means: 'runoff coefficient', unit: '', domain: 'nonNegative', range: [0, 1] },
      i: { means: 'rain intensity over the time of concentration', unit: 'mm/h', domain: 'nonNegative' },
      A: { means: 'catchment area', unit: 'ha', domain: 'nonNegative', range: [0, 80] },
    },
    result: { symbol: 'Q', means: 'peak flow', unit: 'm³/s' },
    source: { key: 'hec22', locator: 'eq. 3-1 in SI', fromMemory: true },
    limits: 'Up to 80 ha (HEC-22); many authorities stop at 8 to 25 ha.',
  },
  ({ C, i, A }) => (C * i * A) / 360,
);
