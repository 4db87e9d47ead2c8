// Where the dams of a series stand: by the line of sight on the bed as it is, or by the rule for gullies.
import { defineFormula } from '../../formula/index.ts';
import { type Bed, bedAt } from '../bed.ts';

const symbols = {
  H: { means: 'height of the dam, from the bed to its notch', unit: 'm', domain: 'positive' },
  S: { means: 'slope of the bed', unit: 'm/m', domain: 'positive' },
} as const;

export const SIGHT_SPACING = defineFormula(
  {
    id: 'check-dams.sight-spacing',
    title: 'Spacing with the crest of one level with the toe of the next',
    statement: 'L = H / S',
    symbols,
    result: { symbol: 'L', means: 'distance from dam to dam', unit: 'm' },
    source: { key: 'geometry', locator: 'a level line over an even bed' },
  },
  ({ H, S }) => H / S,
);

/** Up to this slope silt lies flatter, above it less so (Heede & Mufich 1973; from memory). */
const HEEDE_STEEP = 0.2;

export const HEEDE_SPACING = defineFormula(
  {
    id: 'check-dams.gully-spacing',
    title: 'Spacing in a gully, by how silt will lie',
    statement: 'L = H / (K · G · cos(atan G));  K = 0.3 up to G = 0.20, else 0.5',
    symbols: { H: symbols.H, G: { ...symbols.S, range: [0.02, 0.5] } },
    result: { symbol: 'L', means: 'distance from dam to dam', unit: 'm' },
    source: { key: 'heede-1973', locator: 'spacing by the slope of the deposit', fromMemory: true },
    limits: 'K jumps at 20 %: just under it dams stand twice as far apart as just over it.',
  },
  ({ H, G }) => H / ((G <= HEEDE_STEEP ? 0.3 : 0.5) * G * Math.cos(Math.atan(G))),
);

/** More than this many are a slip of the height. */
const MOST = 200;
/** Nearer than this two dams are one [m]. */
const LEAST_APART_M = 0.5;

/** Where on the bed upstream of a place it first stands at a level; null where it never does. */
export function toeAbove(bed: Bed, fromM: number, levelM: number): number | null {
  for (let i = Math.min(bed.bedM.length - 1, Math.ceil(fromM / bed.stepM) - 1); i >= 0; i--) {
    if (bed.bedM[i] < levelM) continue;
    const [below, above] = [bedAt(bed, Math.min(fromM, (i + 1) * bed.stepM)), bed.bedM[i]];
    const lower = Math.min(fromM, (i + 1) * bed.stepM);
    return lower - ((levelM - below) / Math.max(1e-9, above - below)) * (lower - i * bed.stepM);
  }
  return null;
}

const upwards = (bed: Bed, next: (atM: number) => number | null): number[] => {
  const places = [bed.lengthM];
  while (places.length < MOST) {
    const [highest] = places;
    const at = next(highest);
    if (at === null || at < 0 || highest - at < LEAST_APART_M) break;
    places.unshift(at);
  }
  return places;
};

/** From the lower end up, each where the bed is level with the notch of the one below. */
export const bySight = (bed: Bed, heightM: number): number[] => upwards(bed, (atM) => toeAbove(bed, atM, bedAt(bed, atM) + heightM));

/** From the lower end up, each as far as the rule for gullies has it on the slope above. */
export const byGully = (bed: Bed, heightM: number): number[] =>
  upwards(bed, (atM) => {
    const reach = Math.min(atM, 10);
    const G = (bedAt(bed, atM - reach) - bedAt(bed, atM)) / Math.max(1e-9, reach);
    return G > 0 ? atM - HEEDE_SPACING.evaluate({ H: heightM, G }) : null;
  });
