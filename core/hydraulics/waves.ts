import { defineFormula } from '../formula/index.ts';

export const WAVE_STEVENSON = defineFormula(
  {
    id: 'hydraulics.wave-stevenson',
    title: 'Height of waves by wind and open water',
    statement: 'h = 0.032·(V·F)^0.5 + 0.763 − 0.271·F^0.25',
    symbols: {
      V: { means: 'wind', unit: 'km/h', domain: 'nonNegative' },
      F: { means: 'open water the wind blows over', unit: 'km', domain: 'nonNegative', range: [0.3, 32] },
    },
    result: { symbol: 'h', means: 'height of waves', unit: 'm' },
    source: { key: 'stevenson-molitor', locator: 'fetch under 32 km', fromMemory: true },
    limits: 'Made for lakes: over a few hundred metres it is far too much.',
  },
  ({ V, F }) => 0.032 * Math.sqrt(V * F) + 0.763 - 0.271 * F ** 0.25,
);

export const WAVE_HAWKSLEY = defineFormula(
  {
    id: 'hydraulics.wave-hawksley',
    title: 'Height of waves on a small pond',
    statement: 'h = 0.0138 · F^0.5',
    symbols: { F: { means: 'open water the wind blows over', unit: 'm', domain: 'nonNegative', range: [10, 10_000] } },
    result: { symbol: 'h', means: 'height of waves', unit: 'm' },
    source: { key: 'hawksley', locator: 'in metres', fromMemory: true },
  },
  ({ F }) => 0.0138 * Math.sqrt(F),
);

export const WAVE_RUNUP = defineFormula(
  {
    id: 'hydraulics.wave-runup',
    title: 'How far waves run up a bank',
    statement: 'r = 1.5 · h',
    symbols: { h: { means: 'height of waves', unit: 'm', domain: 'nonNegative' } },
    result: { symbol: 'r', means: 'rise above the still water', unit: 'm' },
    source: { key: 'common-practice', locator: 'one and a half times the wave' },
  },
  ({ h }) => 1.5 * h,
);

/** Freeboard over the spillway's design flow by open water (AH-590; handbook 5.3): 1.0, 1.5 and 2.0 ft. */
const BY_FETCH: readonly (readonly [toM: number, freeboardM: number])[] = [
  [201, 0.3],
  [402, 0.46],
  [Infinity, 0.61],
];

export const fetchFreeboard = (fetchM: number): number => (BY_FETCH.find(([to]) => fetchM <= to) ?? BY_FETCH[2])[1];
