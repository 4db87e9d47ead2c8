import { defineFormula } from '../../formula/index.ts';

export const CUT_CONTROL = defineFormula(
  {
    id: 'spillway.cut-control',
    title: 'Flow over the level control of a cut spillway',
    statement: 'Q = C · (b · H^1.5 + 0.8 · z · H^2.5)',
    symbols: {
      C: { means: 'sill coefficient', unit: 'm^0.5/s', domain: 'positive', range: [1.3, 1.7] },
      b: { means: 'bottom width', unit: 'm', domain: 'nonNegative' },
      z: { means: 'sides, out per 1 up', unit: '', domain: 'nonNegative' },
      H: { means: 'head on the control', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'critical flow, summed strip by strip over bottom and sides', fromMemory: true },
    limits: 'With long grass on the way in less passes: the rating takes that off.',
  },
  ({ C, b, z, H }) => C * (b * H ** 1.5 + 0.8 * z * H ** 2.5),
);
