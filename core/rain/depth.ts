// Depth of a duration by a table: on it, between two of its durations, or beyond them by a stated rule.
import { defineFormula } from '../formula/index.ts';
import { fitCurve } from './fit.ts';
import type { RainTable } from './table.ts';

export const DEPTH_BETWEEN = defineFormula(
  {
    id: 'rain.depth-between-durations',
    title: 'Rain depth between two durations',
    statement: 'P = P1 · (t / t1)^(ln(P2/P1) / ln(t2/t1))',
    symbols: {
      t: { means: 'duration asked for', unit: 'min', domain: 'positive' },
      t1: { means: 'shorter duration of the table', unit: 'min', domain: 'positive' },
      P1: { means: 'its depth', unit: 'mm', domain: 'positive' },
      t2: { means: 'longer duration of the table', unit: 'min', domain: 'positive' },
      P2: { means: 'its depth', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'P', means: 'rain depth', unit: 'mm' },
    source: { key: 'common-practice', locator: 'straight line between table values on log-log paper' },
    limits: 'Between two durations of the table; beyond its longest it is a guess and says so.',
  },
  ({ t, t1, P1, t2, P2 }) => P1 * (t / t1) ** (Math.log(P2 / P1) / Math.log(t2 / t1)),
);

export const DEPTH_BELOW = defineFormula(
  {
    id: 'rain.depth-below-table',
    title: 'Rain depth of a duration shorter than the table begins with',
    statement: 'P = P1 · (t / t1)^p',
    symbols: {
      t: { means: 'duration asked for', unit: 'min', domain: 'positive' },
      t1: { means: 'shortest duration of the table', unit: 'min', domain: 'positive' },
      P1: { means: 'its depth', unit: 'mm', domain: 'positive' },
      p: { means: 'of the curve fitted to the table where it fits, else 1/3', unit: '1', domain: 'positive', range: [0, 1] },
    },
    result: { symbol: 'P', means: 'rain depth', unit: 'mm' },
    source: { key: 'imd', locator: 'one-third rule, P = P24·(t/24)^(1/3): a rough rule of hot, stormy places', fromMemory: true },
    limits: 'Carried on from the beginning of the table: every figure that hangs on it says so.',
  },
  ({ t, t1, P1, p }) => P1 * (t / t1) ** p,
);

/** Rain grows with the duration to this power where a table does not tell (the one-third rule, from memory). */
const THIRD = 1 / 3;
/** A curve fits where no depth of the table lies farther from it than this share, by so many durations, the first no longer than an hour. */
const FITS = { share: 0.05, durations: 4, firstMin: 60 } as const;

type Curve = { readonly b: number; readonly n: number } | null;
const curves = new WeakMap<RainTable, Map<number, Curve>>();

/** The curve i = a/(t + b)^n through a row where it fits; null where it does not, or there is too little to tell. */
function curveOf(table: RainTable, row: number): Curve {
  const known = curves.get(table) ?? new Map<number, Curve>();
  curves.set(table, known);
  const kept = known.get(row);
  if (kept !== undefined) return kept;
  const isTold = table.durationsMin.length >= FITS.durations && table.durationsMin[0] <= FITS.firstMin;
  const curve = isTold ? fitCurve(table, row) : null;
  const found = curve && curve.worst <= FITS.share ? curve : null;
  known.set(row, found);
  return found;
}

/** Power by which depth falls from the shortest duration of the table to a shorter one: of its curve where that fits, else a third. */
function powerBelow(table: RainTable, row: number, t: number): number {
  const curve = curveOf(table, row);
  if (!curve) return THIRD;
  const [t1] = table.durationsMin;
  return 1 - (curve.n * Math.log((t + curve.b) / (t1 + curve.b))) / Math.log(t / t1);
}

export interface Depth {
  readonly depthMm: number;
  /** True when the duration lies outside the table. */
  readonly extrapolated: boolean;
  /** What the interpolation used; null when the table has the duration itself, only one duration, or begins later. */
  readonly between: { t: number; t1: number; P1: number; t2: number; P2: number } | null;
  /** What carried it on below the shortest duration; null elsewhere. */
  readonly below: { t: number; t1: number; P1: number; p: number } | null;
}

/**
 * Depth for a duration at one return period of the table, log-log between durations. Below the shortest duration it falls by the
 * curve fitted to the table where that fits, else by a published ratio; above the longest the slope of the last two is
 * continued. Both are marked.
 * @throws RangeError when the return period is not a row of the table.
 */
export function depthFor(table: RainTable, returnYears: number, durationMin: number): Depth {
  const row = table.returnYears.indexOf(returnYears);
  if (row < 0) throw new RangeError(`return period ${returnYears} years is not a row of the rain table`);
  const { durationsMin } = table;
  const depths = table.depthMm[row];
  const exact = durationsMin.indexOf(durationMin);
  if (exact >= 0) return { depthMm: depths[exact], extrapolated: false, between: null, below: null };
  if (durationMin < durationsMin[0]) {
    const below = { t: durationMin, t1: durationsMin[0], P1: depths[0], p: powerBelow(table, row, durationMin) };
    return { depthMm: DEPTH_BELOW.evaluate(below), extrapolated: true, between: null, below };
  }
  const last = durationsMin.length - 1;
  const extrapolated = durationMin > durationsMin[last];
  // One duration tells nothing of longer ones: no less than its depth.
  if (last === 0) return { depthMm: depths[0], extrapolated, between: null, below: null };
  let k = 1;
  while (k < last && durationsMin[k] < durationMin) k++;
  const between = { t: durationMin, t1: durationsMin[k - 1], P1: depths[k - 1], t2: durationsMin[k], P2: depths[k] };
  return { depthMm: DEPTH_BETWEEN.evaluate(between), extrapolated, between, below: null };
}

/**
 * Depth by duration at one return period [mm], as `depthFor` has it: its bare laws, for storms that ask at every step. Asked with
 * rising durations it finds its place at once.
 */
export function depthCurve(table: RainTable, returnYears: number): (durationMin: number) => number {
  const row = table.returnYears.indexOf(returnYears);
  const { durationsMin } = table;
  const depths = table.depthMm[row];
  const last = durationsMin.length - 1;
  let k = 1;
  let power = Number.NaN;
  return (t) => {
    // Below the table the power changes with the duration, and one duration tells nothing of longer ones.
    if (t <= durationsMin[0] || last === 0) return t > 0 ? depthFor(table, returnYears, t).depthMm : 0;
    const at = k;
    while (k < last && durationsMin[k] < t) k++;
    while (k > 1 && durationsMin[k - 1] >= t) k--;
    const t1 = durationsMin[k - 1];
    if (at !== k || Number.isNaN(power)) power = Math.log(depths[k] / depths[k - 1]) / Math.log(durationsMin[k] / t1);
    return depths[k - 1] * (t / t1) ** power;
  };
}
