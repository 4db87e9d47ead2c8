// Drains in a field: how far apart they lie for a water table between them, and what they carry.
import { defineFormula } from '../formula/index.ts';

const D = { means: 'from the drains down to what lets no water through', unit: 'm', domain: 'positive' } as const;
const L = { means: 'between drains', unit: 'm', domain: 'positive' } as const;
const r = { means: 'radius of a pipe, with half of what is laid round it', unit: 'm', domain: 'positive' } as const;
const K = 'rate at which water moves through the soil';

/** Depth a layer counts with as water bends towards a drain: the bare law. */
const equivalent = (depthM: number, apartM: number, radiusM: number): number =>
  depthM / apartM <= 0.3
    ? depthM / (1 + (depthM / apartM) * ((8 / Math.PI) * Math.log(depthM / radiusM) - 3.4))
    : (Math.PI * apartM) / (8 * (Math.log(apartM / radiusM) - 1.15));

export const EQUIVALENT_DEPTH = defineFormula(
  {
    id: 'hydraulics.equivalent-depth',
    title: 'Depth a layer counts with as water bends towards a drain',
    statement: 'd = D / (1 + D/L·(8/π·ln(D/r) − 3.4)) to D/L = 0.3;  beyond, d = π·L / (8·(ln(L/r) − 1.15))',
    symbols: { D, L, r },
    result: { symbol: 'd', means: 'depth it counts with', unit: 'm' },
    source: { key: 'moody-1966', fromMemory: true },
  },
  ({ D: depthM, L: apartM, r: radiusM }) => equivalent(depthM, apartM, radiusM),
);

const ROUNDS = 200;

export const DRAIN_SPACING = defineFormula(
  {
    id: 'hydraulics.drain-spacing',
    title: 'How far apart drains lie',
    statement: 'L² = (8·K2·d·h + 4·K1·h²) / q, d by L, gone round until it stands',
    symbols: {
      K1: { means: `${K} above the drains`, unit: 'm/d', domain: 'nonNegative' },
      K2: { means: `${K} below them`, unit: 'm/d', domain: 'nonNegative' },
      q: { means: 'what must drain', unit: 'm/d', domain: 'positive' },
      h: { means: 'water over the drains, midway', unit: 'm', domain: 'positive' },
      D,
      r,
    },
    result: { symbol: 'L', means: 'between drains', unit: 'm' },
    source: { key: 'ilri-16', locator: 'Hooghoudt, with the equivalent depth of Moody (1966)', fromMemory: true },
    limits: 'For a water table that stands still; layers lie level.',
  },
  ({ K1, K2, q, h, D: depthM, r: radiusM }) => {
    let apart = 20;
    for (let k = 0; k < ROUNDS; k++) {
      const next = Math.sqrt((8 * K2 * Math.max(0, equivalent(depthM, apart, radiusM)) * h + 4 * K1 * h * h) / q);
      if (Math.abs(next - apart) < 1e-9) return next;
      apart = Math.max(1e-3, (apart + next) / 2);
    }
    return apart;
  },
);

export const DITCH_SPACING = defineFormula(
  {
    id: 'hydraulics.ditch-spacing',
    title: 'How far apart ditches lie that reach what lets no water through',
    statement: 'L² = 4·K·(H² − D²) / q',
    symbols: {
      K: { means: K, unit: 'm/d', domain: 'nonNegative' },
      H: { means: 'water over the tight layer, midway', unit: 'm', domain: 'positive' },
      D: { means: 'water over it in the ditches', unit: 'm', domain: 'nonNegative' },
      q: { means: 'what must drain', unit: 'm/d', domain: 'positive' },
    },
    result: { symbol: 'L', means: 'between ditches', unit: 'm' },
    source: { key: 'ilri-16', locator: 'Donnan', fromMemory: true },
  },
  ({ K: k, H, D: low, q }) => Math.sqrt(Math.max(0, (4 * k * (H * H - low * low)) / q)),
);

export const DRAINED_FLOW = defineFormula(
  {
    id: 'hydraulics.drained-flow',
    title: 'What the drains of a field carry',
    statement: 'Q = q·A / 86,400,000',
    symbols: {
      q: { means: 'what must drain', unit: 'mm/d', domain: 'nonNegative' },
      A: { means: 'field', unit: 'm²', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'geometry', locator: 'a depth over an area in a day' },
  },
  ({ q, A }) => (q * A) / 86_400_000,
);
