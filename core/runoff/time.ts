import { defineFormula } from '../formula/index.ts';

export const NRCS_LAG = defineFormula(
  {
    id: 'runoff.nrcs-lag',
    title: 'Watershed lag',
    statement: 'L = l^0.8 · (S + 25.4)^0.7 / (7069 · Y^0.5);  S = 25400/CN − 254',
    symbols: {
      l: { means: 'longest flow path', unit: 'm', domain: 'positive' },
      CN: { means: 'curve number', unit: '', domain: 'positive', range: [50, 95] },
      Y: { means: 'mean slope of the catchment', unit: '%', domain: 'positive' },
    },
    result: { symbol: 'L', means: 'lag', unit: 'h' },
    source: { key: 'neh630-15', locator: 'eq. 15-4a in SI', fromMemory: true },
    limits: 'Catchments under about 8 km².',
  },
  ({ l, CN, Y }) => (l ** 0.8 * (25400 / CN - 254 + 25.4) ** 0.7) / (7069 * Math.sqrt(Y)),
);

export const CONCENTRATION_FROM_LAG = defineFormula(
  {
    id: 'runoff.concentration-from-lag',
    title: 'Time of concentration from lag',
    statement: 'tc = max(60 · L / 0.6, 6)',
    symbols: { L: { means: 'watershed lag', unit: 'h', domain: 'nonNegative' } },
    result: { symbol: 'tc', means: 'time of concentration', unit: 'min' },
    source: { key: 'neh630-15', locator: 'eq. 15-3; 6 min least as in TR-55 ch. 3', fromMemory: true },
  },
  ({ L }) => Math.max((60 * L) / 0.6, MIN_CONCENTRATION_MIN),
);

/** Least time of concentration [min]: 0.1 h (TR-55 ch. 3). */
export const MIN_CONCENTRATION_MIN = 6;
