import { defineFormula } from '../../formula/index.ts';

const fall = {
  dH: { means: 'fall of the water', unit: 'mm', domain: 'nonNegative' },
  t: { means: 'time it took', unit: 'min', domain: 'positive' },
} as const;

export const RING_RATE = defineFormula(
  {
    id: 'ground.ring-rate',
    title: 'Infiltration under a ring',
    statement: 'i = 60 · dH / t',
    symbols: fall,
    result: { symbol: 'i', means: 'infiltration rate', unit: 'mm/h' },
    source: { key: 'astm-d3385', locator: 'double ring, inner ring only', fromMemory: true },
    limits: 'With two rings water goes straight down; the rate is slightly above saturated conductivity.',
  },
  ({ dH, t }) => (60 * dH) / t,
);

export const RING_DIVISOR = defineFormula(
  {
    id: 'ground.single-ring-divisor',
    title: 'Spreading under a single ring',
    statement: 'G = H / (0.316·π·d + 0.184·π·a) + 1 / (α · (0.316·π·d + 0.184·π·a)) + 1',
    symbols: {
      H: { means: 'mean depth of water in the ring', unit: 'cm', domain: 'nonNegative' },
      d: { means: 'depth the ring was driven in', unit: 'cm', domain: 'positive', range: [3, 30] },
      a: { means: 'radius of the ring', unit: 'cm', domain: 'positive', range: [5, 30] },
      α: { means: 'how little the soil sucks: 0.36 sand, 0.12 most soils, 0.04 fine, 0.01 compact clay', unit: '1/cm', domain: 'positive' },
    },
    result: { symbol: 'G', means: 'times the rate exceeds the conductivity', unit: '' },
    source: { key: 'reynolds-1990', locator: 'eq. for steady flow from a single ring', fromMemory: true },
  },
  ({ H, d, a, α }) => {
    const shape = 0.316 * Math.PI * d + 0.184 * Math.PI * a;
    return H / shape + 1 / (α * shape) + 1;
  },
);

export const SINGLE_RING = defineFormula(
  {
    id: 'ground.single-ring',
    title: 'Conductivity by a single ring',
    statement: 'K = i / G',
    symbols: {
      i: { means: 'infiltration rate in the ring', unit: 'mm/h', domain: 'nonNegative' },
      G: { means: 'spreading under the ring', unit: '', domain: 'positive' },
    },
    result: { symbol: 'K', means: 'field-saturated conductivity', unit: 'mm/h' },
    source: { key: 'reynolds-1990', locator: 'field-saturated conductivity', fromMemory: true },
  },
  ({ i, G }) => i / G,
);

export const PERCOLATION = defineFormula(
  {
    id: 'ground.percolation',
    title: 'Infiltration from a percolation hole',
    statement: 'I = 60 · dH · r / (t · (r + 2·H))',
    symbols: {
      ...fall,
      r: { means: 'radius of the hole', unit: 'mm', domain: 'positive' },
      H: { means: 'mean depth of water in the hole', unit: 'mm', domain: 'nonNegative' },
    },
    result: { symbol: 'I', means: 'infiltration rate', unit: 'mm/h' },
    source: { key: 'porchet', locator: 'as in the Riverside County LID handbook, appendix A', fromMemory: true },
    limits: 'Water leaves by the sides too: the plain fall overstates the ground three to ten times.',
  },
  ({ dH, r, t, H }) => (60 * dH * r) / (t * (r + 2 * H)),
);

export const AUGER_HOLE = defineFormula(
  {
    id: 'ground.auger-hole',
    title: 'Conductivity by an auger hole above the water table',
    statement: 'K = 60 · 1.15 · r · (log10(h0 + r/2) − log10(h1 + r/2)) / t',
    symbols: {
      r: { means: 'radius of the hole', unit: 'mm', domain: 'positive' },
      h0: { means: 'depth of water at first', unit: 'mm', domain: 'nonNegative' },
      h1: { means: 'depth of water at last', unit: 'mm', domain: 'nonNegative' },
      t: { means: 'time between', unit: 'min', domain: 'positive' },
    },
    result: { symbol: 'K', means: 'saturated conductivity', unit: 'mm/h' },
    source: { key: 'ilri-16', locator: 'inverse auger-hole method', fromMemory: true },
  },
  ({ r, h0, h1, t }) => (60 * 1.15 * r * (Math.log10(h0 + r / 2) - Math.log10(h1 + r / 2))) / t,
);

export const SOAKAGE_PIT = defineFormula(
  {
    id: 'ground.soakage-pit',
    title: 'Soakage of a trial pit',
    statement: 'f = 3.6e6 · V / (a · t)',
    symbols: {
      V: { means: 'water between three quarters and one quarter full', unit: 'm³', domain: 'positive' },
      a: { means: 'base, and sides up to half full', unit: 'm²', domain: 'positive' },
      t: { means: 'time from three quarters to one quarter full', unit: 's', domain: 'positive' },
    },
    result: { symbol: 'f', means: 'soakage rate', unit: 'mm/h' },
    source: { key: 'bre-365', locator: 'soil infiltration rate, lowest of three fillings', fromMemory: true },
  },
  ({ V, a, t }) => (3.6e6 * V) / (a * t),
);

export const DESIGN_RATE = defineFormula(
  {
    id: 'ground.design-rate',
    title: 'Rate to design with',
    statement: 'f = K / SF',
    symbols: {
      K: { means: 'rate found in the field', unit: 'mm/h', domain: 'nonNegative' },
      SF: { means: 'safety factor', unit: '', domain: 'positive', range: [1.5, 10] },
    },
    result: { symbol: 'f', means: 'rate after its safety factor', unit: 'mm/h' },
    source: { key: 'ciria-753', locator: 'safety factors on tested rates (CIRIA 156 and 753)', fromMemory: true },
  },
  ({ K, SF }) => K / SF,
);
