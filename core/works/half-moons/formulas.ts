// Room, earth and run-on ground of small basins.
import { defineFormula } from '../../formula/index.ts';

export const MOON_ROOM = defineFormula(
  {
    id: 'half-moons.room',
    title: 'Water a half-moon holds on a plane',
    statement: 'V = (2/3) · r³ · S + d · π·r²/2',
    symbols: {
      r: { means: 'radius', unit: 'm', domain: 'positive' },
      S: { means: 'slope of the ground', unit: 'm/m', domain: 'nonNegative' },
      d: { means: 'dug inside it', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'to the level of its tips', unit: 'm³' },
    source: { key: 'geometry', locator: 'a half disc under a level through its tips' },
  },
  ({ r, S, d }) => (2 / 3) * r ** 3 * S + (d * Math.PI * r * r) / 2,
);

export const PIT_ROOM = defineFormula(
  {
    id: 'half-moons.pit-room',
    title: 'Water a planting pit holds',
    statement: 'V = π · r² · d',
    symbols: { r: { means: 'half its width', unit: 'm', domain: 'positive' }, d: { means: 'depth', unit: 'm', domain: 'nonNegative' } },
    result: { symbol: 'V', means: 'to its rim', unit: 'm³' },
    source: { key: 'geometry' },
  },
  ({ r, d }) => Math.PI * r * r * d,
);

const ROUND = 48;

export const MOON_EARTH = defineFormula(
  {
    id: 'half-moons.earth',
    title: 'Earth in the bund of a half-moon',
    statement: 'V = ∫ (t·h + z·h²) · r dθ over 0 to π;  h = S·r·sin θ + f',
    symbols: {
      r: { means: 'radius', unit: 'm', domain: 'positive' },
      S: { means: 'slope of the ground', unit: 'm/m', domain: 'nonNegative' },
      f: { means: 'bund over its tips', unit: 'm', domain: 'nonNegative' },
      t: { means: 'top of the bund', unit: 'm', domain: 'nonNegative' },
      z: { means: 'its sides, out per 1 up', unit: '', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'in place', unit: 'm³' },
    source: { key: 'geometry', locator: 'sections along the arc, highest in its middle' },
  },
  ({ r, S, f, t, z }) => {
    const section = (angle: number): number => {
      const h = S * r * Math.sin(angle) + f;
      return (t * h + z * h * h) * r;
    };
    // Simpson's rule: of the second power of a sine, near enough with so many.
    const step = Math.PI / ROUND;
    let sum = section(0) + section(Math.PI);
    for (let k = 1; k < ROUND; k++) sum += (k % 2 === 1 ? 4 : 2) * section(k * step);
    return (sum * step) / 3;
  },
);

const CROP = {
  WR: { means: 'water the crop needs', unit: 'mm', domain: 'positive' },
  DR: { means: 'rain of two years in three', unit: 'mm', domain: 'positive' },
  K: { means: 'share that runs off', unit: '', domain: 'positive', range: [0.1, 0.5] },
  e: { means: 'share that is used', unit: '', domain: 'positive', range: [0.5, 0.75] },
} as const;

export const RUN_ON_RATIO = defineFormula(
  {
    id: 'half-moons.run-on',
    title: 'Run-on ground for each part of planted ground',
    statement: 'C/CA = (WR − DR) / (DR · K · e)',
    symbols: CROP,
    result: { symbol: 'C/CA', means: 'run-on area over planted area', unit: '' },
    source: { key: 'fao-1991', locator: 'section 4.3: catchment to cultivated area', fromMemory: true },
  },
  ({ WR, DR, K, e }) => Math.max(0, WR - DR) / (DR * K * e),
);

export const TREE_CATCHMENT = defineFormula(
  {
    id: 'half-moons.tree',
    title: 'Ground of its own a tree needs',
    statement: 'MC = RA · (WR − DR) / (DR · K · e)',
    symbols: { RA: { means: 'area its roots use', unit: 'm²', domain: 'positive' }, ...CROP },
    result: { symbol: 'MC', means: 'run-on area', unit: 'm²' },
    source: { key: 'fao-1991', locator: 'section 4.4: microcatchments for trees', fromMemory: true },
  },
  ({ RA, WR, DR, K, e }) => (RA * Math.max(0, WR - DR)) / (DR * K * e),
);
