// What dams of stone, brush, logs and bags differ in: their shape, what lets water through them, what holds them, how they are laid.
import { defineFormula } from '../../formula/index.ts';
import { STONE_T_M3 } from '../making.ts';
import type { CheckDams, DamForm } from './model.ts';

interface FormSaid {
  /** Head of a column of it. */
  readonly is: string;
  /** A cubic metre of it as it lies [t]: common practice. */
  readonly weighsT: number;
  /** How it is laid. */
  readonly lays: string;
  readonly caution: string;
  /** How what was lost is made good. */
  readonly mends: string;
  /** What becomes of it by itself; null of what stays. */
  readonly lasts: string | null;
}

/** Common practice, in our own words. */
export const FORMS: Readonly<Record<DamForm, FormSaid>> = {
  rock: {
    is: 'stone',
    weighsT: STONE_T_M3,
    lays: 'Build up loose stone from the key, the largest below and outside, ends before the middle.',
    caution: 'Use what lies loose. What holds the slope or the bed together stays where it is.',
    mends: 'Lay its stone back from the apron up',
    lasts: null,
  },
  brush: {
    is: 'brush',
    weighsT: 0.15,
    lays: 'Drive two rows of stakes from bank to bank as deep as the dam is high. Lay brush between them, longest first, tread down each layer, and wire it to the stakes over the top.',
    caution: 'Cut brush where it grows back. What holds the slope or the bed together stays where it is.',
    mends: 'Drive its stakes anew and lay fresh brush between them',
    lasts: 'Brush rots in two to five years: what is planted in its silt must hold by then.',
  },
  log: {
    is: 'wood, stone',
    weighsT: 0.6,
    lays: 'Lay one log on another from the bed key up, each keyed into both banks and wired to posts on the lower side. Pack brush or straw into the gaps from above.',
    caution: 'Logs roll: nobody stands below one that is moved.',
    mends: 'Lay its logs back into their keys and wire them to their posts',
    lasts: 'Logs rot in about ten years: what is planted in their silt must hold by then.',
  },
  sandbag: {
    is: 'bags, stone',
    weighsT: 1.6,
    lays: 'Fill bags two thirds, lay them flat from the key up like bricks, no joint over another, tread down each row, ends before the middle.',
    caution: 'Dig what fills them where no water runs.',
    mends: 'Lay new bags from the lowest that is gone up',
    lasts: 'Bags last a year or two in the sun: cover them, or what is planted in their silt must hold by then.',
  },
};

/** The body of a dam along the flow: a wall of logs stands upright and is as thick as a log. */
export function bodyOf({ form, dimensions }: CheckDams): Pick<CheckDams['dimensions'], 'crestWidthM' | 'upSlopeHV' | 'downSlopeHV'> {
  return form === 'log' ? { crestWidthM: dimensions.pieceM, upSlopeHV: 0, downSlopeHV: 0 } : dimensions;
}

/** Wood as such, without the gaps between [kg/m3]: dry, which floats first (common practice). */
const WOOD_KG_M3 = 600;

export const WOOD_FLOATS = defineFormula(
  {
    id: 'check-dams.floats',
    title: 'Lift on a dam of wood under water, against what holds it down',
    statement: 'F = 1000 · A · (w / 600) / (w · A + p)',
    symbols: {
      A: { means: 'cross-section that lies under water', unit: 'm²', domain: 'positive' },
      w: { means: 'what a cubic metre of it weighs, gaps and all', unit: 'kg/m³', domain: 'positive' },
      p: { means: 'what stakes, posts and wire hold, a metre', unit: 'kg/m', domain: 'nonNegative' },
    },
    result: { symbol: 'F', means: 'over 1 it floats', unit: '' },
    source: { key: 'statics', locator: 'Archimedes, dry wood of 600 kg/m³' },
  },
  ({ A, w, p }) => (1000 * A * (w / WOOD_KG_M3)) / (w * A + p),
);

/** Cross-section and weight of a metre of what floats: of each log, or of the highest dam of brush; null where nothing does. */
export function floating(work: CheckDams): { readonly A: number; readonly w: number } | null {
  const w = 1000 * FORMS[work.form].weighsT;
  if (work.form === 'log') return { A: (Math.PI / 4) * work.dimensions.pieceM ** 2, w };
  if (work.form !== 'brush') return null;
  const { crestWidthM, upSlopeHV, downSlopeHV } = bodyOf(work);
  const high = Math.max(...work.dams.map((dam) => dam.heightM));
  return { A: crestWidthM * high + ((upSlopeHV + downSlopeHV) * high * high) / 2, w };
}
