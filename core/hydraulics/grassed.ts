// A level crest whose sheet runs on over grass: where the grass holds the sheet up deeper than the crest does, the grass decides.
import { defineFormula } from '../formula/index.ts';
import { GRAVITY } from './orifice.ts';
import { Rating } from './rating.ts';
import { sheetRoughness } from './sheet.ts';
import { GRASSED_SILL_C, SILL_HEAD } from './weir.ts';

export const SHEET_DEPTH = defineFormula(
  {
    id: 'hydraulics.sheet-depth',
    title: 'Depth of a sheet of water down a slope',
    statement: 'y = (q · n / S^(1/2))^(3/5)',
    symbols: {
      q: { means: 'flow per metre of width', unit: 'm²/s', domain: 'nonNegative' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive' },
      S: { means: 'ground slope', unit: 'm/m', domain: 'positive' },
    },
    result: { symbol: 'y', means: 'depth of the sheet', unit: 'm' },
    source: { key: 'chow1959', locator: 'eq. 5-6 with R = depth, solved for the depth', fromMemory: true },
  },
  ({ q, n, S }) => ((q * n) / Math.sqrt(S)) ** 0.6,
);

export const SHEET_ENERGY = defineFormula(
  {
    id: 'hydraulics.sheet-energy',
    title: 'Water above a crest that the sheet below it holds up',
    statement: 'H = y + (q / y)² / (2·g)',
    symbols: {
      y: { means: 'depth of the sheet below', unit: 'm', domain: 'positive' },
      q: { means: 'flow per metre of width', unit: 'm²/s', domain: 'nonNegative' },
    },
    result: { symbol: 'H', means: 'head on the crest', unit: 'm' },
    source: { key: 'chow1959', locator: 'section 3-2, specific energy', fromMemory: true },
    limits: 'Only where the sheet runs tranquil, deeper than critical; where it shoots the crest itself decides.',
  },
  ({ y, q }) => y + (q / y) ** 2 / (2 * GRAVITY),
);

/** Curve indices of retardance classes E to A, short grass to tall (Temple et al. 1987, AH-667; from memory). */
const CLASSES: readonly number[] = [2.88, 4.44, 5.6, 7.64, 10];

/** Grass as it may be found when it is not cut: one class taller, for how much it lets through (SCS TP-61: capacity by the taller grass; from memory). */
export const tallerIndex = (curveIndex: number | null): number | null =>
  curveIndex === null ? null : (CLASSES.find((c) => c > curveIndex) ?? CLASSES[CLASSES.length - 1]);

const LEAST_SLOPE = 0.001;

/** Ground a sheet runs on below a crest: its slope, and the curve index of its grass at its tallest, null where none grows. */
export interface SheetGround {
  readonly slope: number;
  readonly curveIndex: number | null;
}

/** Depth of the sheet below at a flow per metre, with its roughness. */
export function sheetBelow({ slope, curveIndex }: SheetGround, q: number): { readonly y: number; readonly n: number; readonly S: number } {
  const S = Math.max(LEAST_SLOPE, slope);
  const n = sheetRoughness(curveIndex, q);
  return { y: SHEET_DEPTH.evaluate({ q, n, S }), n, S };
}

/** Whether a sheet so deep runs tranquil: it is felt at the crest above it. */
export const isTranquil = (y: number, q: number): boolean => y > Math.cbrt(q ** 2 / GRAVITY);

/** Head on a level crest at a flow per metre: its own, or that by which the sheet below is held up, whichever is more [m]. */
export function grassedHead(ground: SheetGround, q: number): number {
  if (q <= 0) return 0;
  const own = SILL_HEAD.evaluate({ Q: q, C: GRASSED_SILL_C, L: 1 });
  const { y } = sheetBelow(ground, q);
  return isTranquil(y, q) ? Math.max(own, SHEET_ENERGY.evaluate({ y, q })) : own;
}

/** Greatest flow per metre looked at [m2/s]: more than any level sill is to pass. */
const MOST_Q = 1;
const ROWS = 96;
const ratings = new Map<string, Rating>();

/** Flow per metre [m2/s] against head over a level crest, its sheet running on over such ground; worked out once for each. */
export function grassedRating(ground: SheetGround): Rating {
  const key = `${ground.slope} ${ground.curveIndex}`;
  const known = ratings.get(key);
  if (known) return known;
  // Rows lie close where the sheet is thin.
  const made = Rating.by(ROWS, (share) => {
    const q = MOST_Q * share ** 3;
    return [grassedHead(ground, q), q];
  });
  if (ratings.size > 500) ratings.clear();
  ratings.set(key, made);
  return made;
}
