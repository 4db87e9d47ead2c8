// Stone that stands in moving water, water that seeps through it, and where falling water tires itself out.
import { defineFormula } from '../formula/index.ts';
import { GRAVITY } from './orifice.ts';

/** Stone weighs this many times as much as water (handbook 4.7). */
export const STONE_GRAVITY = 2.65;

export const ISBASH = defineFormula(
  {
    id: 'hydraulics.isbash',
    title: 'Stone that stands against a velocity',
    statement: 'D50 = V² / (2·g·C²·(SG − 1))',
    symbols: {
      V: { means: 'velocity at the stone', unit: 'm/s', domain: 'nonNegative' },
      C: { means: '1.20 in calm flow, 0.86 in rough', unit: '', domain: 'positive', range: [0.86, 1.2] },
      SG: { means: 'weight of stone over that of water', unit: '', domain: 'positive', range: [2.4, 3] },
    },
    result: { symbol: 'D50', means: 'median stone', unit: 'm' },
    source: { key: 'isbash-1936', locator: 'as in the hydraulic design charts for stone', fromMemory: true },
  },
  ({ V, C, SG }) => (V * V) / (2 * GRAVITY * C * C * (SG - 1)),
);

export const LINING_STONE = defineFormula(
  {
    id: 'hydraulics.lining-stone',
    title: 'Stone that lines a channel',
    statement: 'D50 = SF · d · S / (F · (SG − 1))',
    symbols: {
      d: { means: 'greatest depth', unit: 'm', domain: 'nonNegative' },
      S: { means: 'slope of the channel', unit: 'm/m', domain: 'positive', range: [0, 0.1] },
      SF: { means: 'safety factor', unit: '', domain: 'positive', range: [1, 1.5] },
      F: { means: 'Shields’ number, 0.047 to 0.15', unit: '', domain: 'positive', range: [0.047, 0.15] },
      SG: { means: 'weight of stone over that of water', unit: '', domain: 'positive', range: [2.4, 3] },
    },
    result: { symbol: 'D50', means: 'median stone', unit: 'm' },
    source: { key: 'hec-15', locator: 'riprap lining, slopes under 10 %', fromMemory: true },
  },
  ({ d, S, SF, F, SG }) => (SF * d * S) / (F * (SG - 1)),
);

export const APRON_STONE = defineFormula(
  {
    id: 'hydraulics.apron-stone',
    title: 'Stone of an apron below a pipe',
    statement: 'D50 = 0.2 · D · (Q / (g^0.5 · D^2.5))^(4/3) · (D / TW)',
    symbols: {
      Q: { means: 'flow of the pipe', unit: 'm³/s', domain: 'nonNegative' },
      D: { means: 'diameter', unit: 'm', domain: 'positive' },
      TW: { means: 'water beyond, taken between 0.4 and 1 of the diameter', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'D50', means: 'median stone', unit: 'm' },
    source: { key: 'hec-14', locator: 'chapter 10, riprap aprons', fromMemory: true },
  },
  ({ Q, D, TW }) => (0.2 * D * Math.cbrt(Q / (Math.sqrt(GRAVITY) * D ** 2.5)) ** 4 * D) / Math.min(D, Math.max(0.4 * D, TW)),
);

/** Aprons by stone class (HEC-14 chapter 10; handbook 4.7): length in diameters of the pipe, depth in median stones. */
const APRONS: readonly (readonly [stoneM: number, lengthD: number, depthD50: number])[] = [
  [0.125, 4, 3.5],
  [0.15, 4, 3.3],
  [0.25, 5, 2.4],
  [0.35, 6, 2.2],
  [0.5, 7, 2],
  [0.55, 8, 2],
];

export interface Apron {
  readonly stoneM: number;
  readonly lengthM: number;
  readonly depthM: number;
  /** Width at its far end. */
  readonly endWidthM: number;
  /** Whether the stone asked for is beyond the largest class: a basin, or a gentler outlet, is needed. */
  readonly isBeyond: boolean;
}

/** Size of the apron below a pipe: the stone class next above what is asked. */
export function apronOf({ stoneM, diameterM }: { readonly stoneM: number; readonly diameterM: number }): Apron {
  const found = APRONS.find(([size]) => stoneM <= size) ?? APRONS[APRONS.length - 1];
  const [size, lengthD, depthD50] = found;
  const lengthM = lengthD * diameterM;
  return { stoneM: size, lengthM, depthM: depthD50 * size, endWidthM: 3 * diameterM + (2 / 3) * lengthM, isBeyond: stoneM > size };
}

export const HYDRAULIC_JUMP = defineFormula(
  {
    id: 'hydraulics.jump',
    title: 'How much deeper water is after a jump',
    statement: 'y2/y1 = 0.5 · ((1 + 8·Fr²)^0.5 − 1)',
    symbols: { Fr: { means: 'Froude number before the jump', unit: '', domain: 'positive', range: [1, 20] } },
    result: { symbol: 'r', means: 'depth after over depth before', unit: '' },
    source: { key: 'chow1959', locator: 'eq. 3-21 (Belanger)', fromMemory: true },
  },
  ({ Fr }) => 0.5 * (Math.sqrt(1 + 8 * Fr * Fr) - 1),
);

/** Share of a rock fill that is voids: common practice for clean quarry stone. */
export const ROCK_VOIDS = 0.4;
const [WILKINS_W, WILKINS_N] = [5.243, 0.54];
/** Surface of broken stone over that of spheres: from memory. */
const ANGULARITY = 1.5;

export const VOID_RADIUS = defineFormula(
  {
    id: 'hydraulics.void-radius',
    title: 'Hydraulic radius of the voids in stone',
    statement: 'm = e · D / (6 · 1.5);  e = p / (1 − p)',
    symbols: {
      D: { means: 'median stone', unit: 'm', domain: 'positive' },
      p: { means: 'share of voids', unit: '', domain: 'positive', range: [0.3, 0.5] },
    },
    result: { symbol: 'm', means: 'mean radius of the voids', unit: 'm' },
    source: { key: 'wilkins-1956', locator: 'surface of stone by its size; angularity 1.5', fromMemory: true },
  },
  ({ D, p }) => ((p / (1 - p)) * D) / (6 * ANGULARITY),
);

export const ROCK_SEEPAGE = defineFormula(
  {
    id: 'hydraulics.rock-seepage',
    title: 'Flow through a fill of stone, per metre of width',
    statement: 'q = p · 5.243 · m^0.5 · ((h1^N − h2^N) / (N·L))^0.54;  N = 1/0.54 + 1',
    symbols: {
      h1: { means: 'water over the floor before the stone', unit: 'm', domain: 'nonNegative' },
      h2: { means: 'water over the floor behind it', unit: 'm', domain: 'nonNegative' },
      L: { means: 'length of stone along the flow', unit: 'm', domain: 'positive' },
      m: { means: 'mean radius of the voids', unit: 'm', domain: 'positive' },
      p: { means: 'share of voids', unit: '', domain: 'positive', range: [0.3, 0.5] },
    },
    result: { symbol: 'q', means: 'flow per metre', unit: 'm²/s' },
    source: { key: 'wilkins-1956', locator: 'V = 5.243·m^0.5·i^0.54, carried over a falling water line', fromMemory: true },
    limits: 'Clean stone: silt and leaves close it in time.',
  },
  ({ h1, h2, L, m, p }) => {
    const N = 1 / WILKINS_N + 1;
    return p * WILKINS_W * Math.sqrt(m) * (Math.max(0, h1 ** N - h2 ** N) / (N * L)) ** WILKINS_N;
  },
);
