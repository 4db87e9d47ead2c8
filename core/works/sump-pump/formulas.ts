import { defineFormula } from '../../formula/index.ts';

const SYMBOLS = {
  Q: { means: 'what the pump gives', unit: 'm³/s', domain: 'positive' },
  V: { means: 'water from where it starts to where it stops', unit: 'm³', domain: 'positive' },
} as const;

export const SUMP_STARTS = defineFormula(
  {
    id: 'sump.starts',
    title: 'Starts an hour at the most',
    statement: 'n = 3600 · Q / (4·V), when half as much comes in as it gives',
    symbols: SYMBOLS,
    result: { symbol: 'n', means: 'starts an hour', unit: '1/h' },
    source: { key: 'geometry', locator: 'V/q to fill and V/(Q − q) to empty, least together at q = Q/2' },
  },
  ({ Q, V }) => (3600 * Q) / (4 * V),
);

export const SUMP_CYCLE = defineFormula(
  {
    id: 'sump.cycle',
    title: 'From one start of a pump to the next',
    statement: 't = V/q + V/(Q − q)',
    symbols: { ...SYMBOLS, q: { means: 'what comes in, less than it gives', unit: 'm³/s', domain: 'positive' } },
    result: { symbol: 't', means: 'time', unit: 's' },
    source: { key: 'geometry', locator: 'to fill, and to empty while it fills' },
  },
  ({ Q, V, q }) => (q < Q ? V / q + V / (Q - q) : Infinity),
);

export const SUMP_RUNS = defineFormula(
  {
    id: 'sump.battery',
    title: 'How long a battery lifts what comes',
    statement: 't = u · E / (P · q/Q)',
    symbols: {
      E: { means: 'what the battery holds', unit: 'Wh', domain: 'positive' },
      u: { means: 'share of it that may be used: half', unit: '', domain: 'positive', range: [0.3, 0.9] },
      P: { means: 'power while it runs', unit: 'W', domain: 'positive' },
      q: { means: 'what comes in', unit: 'm³/s', domain: 'positive' },
      Q: SYMBOLS.Q,
    },
    result: { symbol: 't', means: 'time', unit: 'h' },
    source: { key: 'common-practice', locator: 'half of a lead battery is used' },
  },
  ({ E, u, P, q, Q }) => (u * E) / (P * Math.min(1, q / Q)),
);
