import { defineFormula } from '../../formula/index.ts';

export const SEEP_IN = defineFormula(
  {
    id: 'seep.trench',
    title: 'Water that seeps into a metre of trench from both sides',
    statement: 'q = K · s² / R;  R = 3000 · s · K^0.5',
    symbols: {
      K: { means: 'rate at which water moves through the soil', unit: 'm/s', domain: 'positive', range: [1e-8, 1e-2] },
      s: { means: 'ground water over the floor of the trench', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'q', means: 'flow a metre', unit: 'm³/s' },
    source: { key: 'sichardt', locator: 'Dupuit, and the reach by Sichardt', fromMemory: true },
    limits: 'Soil alike, its floor the lowest that lets water through; a guess within a factor of three.',
  },
  // Both sides, each K·s²/(2·R).
  ({ K, s }) => (K * s * s) / (3000 * s * Math.sqrt(K)),
);

export const GRAVEL_FLOW = defineFormula(
  {
    id: 'seep.gravel',
    title: 'Flow along the gravel alone',
    statement: 'Q = k · i · A',
    symbols: {
      k: { means: 'rate of clean gravel, 10 to 20 mm', unit: 'm/s', domain: 'positive', range: [0.01, 0.3] },
      i: { means: 'fall along it', unit: 'm/m', domain: 'nonNegative' },
      A: { means: 'section of the gravel', unit: 'm²', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'common-practice', locator: 'Darcy; 0.01 m/s for a blend of 10 to 20 mm' },
  },
  ({ k, i, A }) => k * i * A,
);

export const CLEARS_IN = defineFormula(
  {
    id: 'seep.clears',
    title: 'Time in which a yard seeps away through the ground over a drain',
    statement: 't = V / (f · A)',
    symbols: {
      V: { means: 'water that stands', unit: 'm³', domain: 'nonNegative' },
      f: { means: 'rate the ground over it takes in', unit: 'mm/h', domain: 'positive' },
      A: { means: 'trench from above, where water stands', unit: 'm²', domain: 'positive' },
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'geometry', locator: 'volume over flow' },
  },
  ({ V, f, A }) => V / ((f / 1000) * A),
);
