// Formulas of vessels: what they hold, what an overflow passes, how they press, topple and float.
import { defineFormula } from '../../formula/index.ts';

const h = { means: 'water over the floor', unit: 'm', domain: 'nonNegative' } as const;
const d = { means: 'across, inside', unit: 'm', domain: 'positive' } as const;

/** Part of a circle under a chord [m2], by its diameter and the height of the chord. */
export function segmentM2(diameterM: number, heightM: number): number {
  const r = diameterM / 2;
  const up = Math.min(diameterM, Math.max(0, heightM));
  return r * r * Math.acos(1 - up / r) - (r - up) * Math.sqrt(Math.max(0, 2 * r * up - up * up));
}

export const UPRIGHT_VOLUME = defineFormula(
  {
    id: 'tank.upright',
    title: 'Water in an upright round vessel',
    statement: 'V = π·d²·h / 4',
    symbols: { d, h },
    result: { symbol: 'V', means: 'volume', unit: 'm³' },
    source: { key: 'geometry', locator: 'cylinder' },
  },
  (on) => (Math.PI * on.d * on.d * on.h) / 4,
);

export const LYING_VOLUME = defineFormula(
  {
    id: 'tank.lying',
    title: 'Water in a lying round vessel',
    statement: 'V = L·(r²·acos((r − h)/r) − (r − h)·√(2·r·h − h²)), r = d/2',
    symbols: { d, h, L: { means: 'length, inside', unit: 'm', domain: 'positive' } },
    result: { symbol: 'V', means: 'volume', unit: 'm³' },
    source: { key: 'geometry', locator: 'segment of a circle along a length' },
    limits: 'Ends are flat.',
  },
  (on) => on.L * segmentM2(on.d, on.h),
);

export const CONE_VOLUME = defineFormula(
  {
    id: 'tank.cone',
    title: 'Water in a round vessel wider or narrower at its top',
    statement: 'V = π·h·(d² + d·w + w²) / 12, w = d + (t − d)·h/H',
    symbols: {
      d,
      h,
      t: { means: 'across at its top, inside', unit: 'm', domain: 'positive' },
      H: { means: 'height', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'V', means: 'volume', unit: 'm³' },
    source: { key: 'geometry', locator: 'frustum of a cone' },
  },
  (on) => {
    const w = on.d + ((on.t - on.d) * on.h) / on.H;
    return (Math.PI * on.h * (on.d * on.d + on.d * w + w * w)) / 12;
  },
);

const GRAVITY = 9.81;
/** Sharp edges of a pipe in a wall. */
const CONTRACTS = 0.6;

/** The bare law of a pipe so wide [m], for loops: by the water over its lowest [m], in m3/s. */
export function overflowLaw(D: number): (overM: number) => number {
  const a = (CONTRACTS * Math.PI * D * D) / 4;
  const atCrown = a * Math.sqrt(GRAVITY * D);
  return (H) => (H >= D ? a * Math.sqrt(2 * GRAVITY * (H - D / 2)) : atCrown * (H / D) ** 1.5);
}

export const OVERFLOW_PASSES = defineFormula(
  {
    id: 'tank.overflow',
    title: 'Flow of an overflow pipe through a wall',
    statement: 'Q = 0.6·(π·D²/4)·√(2·g·(H − D/2)) for H ≥ D; 1.48·D·H^1.5 below',
    symbols: {
      D: { means: 'pipe, inside', unit: 'm', domain: 'positive' },
      H: { means: 'water over its lowest', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'common-practice', locator: 'an opening under water; half full as a crest that joins it' },
    limits: 'The pipe beyond falls freely and is no narrower.',
  },
  ({ D, H }) => overflowLaw(D)(H),
);

export const TANK_PRESSES = defineFormula(
  {
    id: 'tank.presses',
    title: 'Pressure under a full vessel',
    statement: 'p = g·(1000·V + m) / (1000·A)',
    symbols: {
      V: { means: 'water when full', unit: 'm³', domain: 'nonNegative' },
      m: { means: 'weighs empty', unit: 'kg', domain: 'nonNegative' },
      A: { means: 'foot', unit: 'm²', domain: 'positive' },
    },
    result: { symbol: 'p', means: 'pressure', unit: 'kPa' },
    source: { key: 'geometry', locator: 'weight over area' },
  },
  ({ V, m, A }) => (GRAVITY * (1000 * V + m)) / 1000 / A,
);

export const TANK_FLOATS = defineFormula(
  {
    id: 'tank.floats',
    title: 'How surely an empty sunken vessel stays down',
    statement: 's = (m + c) / (1000·V)',
    symbols: {
      m: { means: 'weighs empty', unit: 'kg', domain: 'nonNegative' },
      c: { means: 'soil on it', unit: 'kg', domain: 'nonNegative' },
      V: { means: 'of it under the ground water', unit: 'm³', domain: 'positive' },
    },
    result: { symbol: 's', means: 'weight over lift', unit: '' },
    source: { key: 'common-practice', locator: '1.1 at least' },
  },
  ({ m, c, V }) => (m + c) / (1000 * V),
);

export const HOOP_PULL = defineFormula(
  {
    id: 'tank.hoop-pull',
    title: 'Pull in a round wall at its foot',
    statement: 'T = 9.81·h·r',
    symbols: {
      h: { means: 'water over the foot', unit: 'm', domain: 'nonNegative' },
      r: { means: 'radius, inside', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'T', means: 'pull in each metre of height', unit: 'kN/m' },
    source: { key: 'geometry', locator: 'thin ring under pressure' },
    limits: 'The slab holds the foot as well: the wall is pulled less there.',
  },
  (on) => GRAVITY * on.h * on.r,
);

export const BAR_NEEDED = defineFormula(
  {
    id: 'tank.bar-needed',
    title: 'Steel round a tank',
    statement: 'As = 1000·T / fs',
    symbols: {
      T: { means: 'pull', unit: 'kN/m', domain: 'nonNegative' },
      fs: { means: 'pull allowed in the steel', unit: 'MPa', domain: 'positive', range: [100, 250] },
    },
    result: { symbol: 'As', means: 'steel in each metre of height', unit: 'mm²/m' },
    source: { key: 'common-practice', locator: 'mild wire and bar 140 MPa' },
  },
  ({ T, fs }) => (1000 * T) / fs,
);

export const MORTAR_STRESS = defineFormula(
  {
    id: 'tank.mortar-stress',
    title: 'Pull in the mortar of a wall',
    statement: 's = T / t',
    symbols: { T: { means: 'pull', unit: 'kN/m', domain: 'nonNegative' }, t: { means: 'wall', unit: 'mm', domain: 'positive' } },
    result: { symbol: 's', means: 'stress', unit: 'MPa' },
    source: { key: 'geometry', locator: 'pull over section' },
  },
  ({ T, t }) => T / t,
);

export const CRATE_ROOM = defineFormula(
  {
    id: 'tank.crate-room',
    title: 'What must be dug for so much water in crates',
    statement: 'E = V / n',
    symbols: {
      V: { means: 'water', unit: 'm³', domain: 'nonNegative' },
      n: { means: 'share of the crates that water fills', unit: '', domain: 'positive', range: [0.3, 0.98] },
    },
    result: { symbol: 'E', means: 'room', unit: 'm³' },
    source: { key: 'geometry', locator: 'volume over its share' },
  },
  ({ V, n }) => V / n,
);
