// A curve through a rain table: intensity against duration, one law for each return period.
import { defineFormula } from '../formula/index.ts';
import type { RainTable } from './table.ts';

export const SHERMAN_INTENSITY = defineFormula(
  {
    id: 'rain.intensity-curve',
    title: 'Rain intensity of a duration by a fitted curve',
    statement: 'i = a / (t + b)^n',
    symbols: {
      a: { means: 'constant of the fit', unit: 'mm/h·minⁿ', domain: 'positive' },
      b: { means: 'constant of the fit', unit: 'min', domain: 'nonNegative', range: [0, 60] },
      n: { means: 'exponent of the fit', unit: '1', domain: 'positive', range: [0.1, 1.2] },
      t: { means: 'duration', unit: 'min', domain: 'positive', range: [5, 1440] },
    },
    result: { symbol: 'i', means: 'mean intensity', unit: 'mm/h' },
    source: { key: 'chow-1988', locator: 'section 14.2', fromMemory: true },
    limits: 'Within the durations it was fitted to.',
  },
  ({ a, b, n, t }) => a / (t + b) ** n,
);

export const WENZEL_INTENSITY = defineFormula(
  {
    id: 'rain.intensity-wenzel',
    title: 'Rain intensity of a duration, Wenzel form',
    statement: 'i = c / (t^e + f)',
    symbols: {
      c: { means: 'constant of the place and return period', unit: 'mm/h or in/h', domain: 'positive' },
      e: { means: 'exponent', unit: '1', domain: 'positive', range: [0.3, 1.2] },
      f: { means: 'constant', unit: '1', domain: 'nonNegative' },
      t: { means: 'duration', unit: 'min', domain: 'positive', range: [5, 1440] },
    },
    result: { symbol: 'i', means: 'mean intensity, in the unit of c', unit: 'as c' },
    source: { key: 'chow-1988', locator: 'Table 14.2.3', fromMemory: true },
  },
  ({ c, e, f, t }) => c / (t ** e + f),
);

export interface IntensityCurve {
  readonly a: number;
  readonly b: number;
  readonly n: number;
  /** Greatest departure of the table from the curve, as a share of the curve. */
  readonly worst: number;
  /** Depth of the curve for each duration of the table [mm], and by how much the table has more [share]. */
  readonly depthMm: readonly number[];
  readonly residual: readonly number[];
}

/** Largest b tried [min]. */
const MOST_B = 60;
const STEEPEST = 1.2;

/** Least-squares line ln i = ln a - n ln(t + b) for one b. */
function lineFor(logI: readonly number[], durations: readonly number[], b: number): { a: number; n: number; sse: number } {
  const x = durations.map((t) => Math.log(t + b));
  const k = x.length;
  const [mx, my] = [x.reduce((p, v) => p + v, 0) / k, logI.reduce((p, v) => p + v, 0) / k];
  const sxx = x.reduce((p, v) => p + (v - mx) ** 2, 0);
  const sxy = x.reduce((p, v, i) => p + (v - mx) * (logI[i] - my), 0);
  const n = Math.min(STEEPEST, Math.max(1e-3, -sxy / sxx));
  const c = my + n * mx;
  return { a: Math.exp(c), n, sse: x.reduce((p, v, i) => p + (logI[i] - (c - n * v)) ** 2, 0) };
}

/** Whether depth rises with duration up to `to`: d(i·t)/dt > 0 while t + b > n·t. */
const rises = (b: number, n: number, to: number): boolean => to + b > n * to;

/**
 * Curve i = a/(t + b)^n through one row of the table: b from 0 to 60 min, for each the least-squares line in logarithms, kept
 * where the squares are least and depth still rises with duration. Null with fewer than three durations: nothing would be left over.
 */
export function fitCurve({ durationsMin, depthMm }: RainTable, row: number): IntensityCurve | null {
  if (durationsMin.length < 3) return null;
  const logI = durationsMin.map((t, c) => Math.log((60 * depthMm[row][c]) / t));
  const longest = durationsMin[durationsMin.length - 1];
  const best = (from: number, to: number, step: number): { a: number; n: number; sse: number; b: number } | null => {
    let kept: { a: number; n: number; sse: number; b: number } | null = null;
    for (let b = Math.max(0, from); b <= Math.min(MOST_B, to); b += step) {
      const line = lineFor(logI, durationsMin, b);
      if (rises(b, line.n, longest) && (kept === null || line.sse < kept.sse)) kept = { ...line, b };
    }
    return kept;
  };
  const coarse = best(0, MOST_B, 1);
  if (coarse === null) return null;
  const fine = best(coarse.b - 1, coarse.b + 1, 0.02) ?? coarse;
  const depth = durationsMin.map((t) => (SHERMAN_INTENSITY.evaluate({ a: fine.a, b: fine.b, n: fine.n, t }) * t) / 60);
  const residual = depth.map((d, c) => depthMm[row][c] / d - 1);
  return { a: fine.a, b: fine.b, n: fine.n, depthMm: depth, residual, worst: Math.max(...residual.map(Math.abs)) };
}
