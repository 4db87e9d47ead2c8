import { defineFormula } from '../formula/index.ts';

/** Rain depth [mm] by return period (rows) and duration (columns). */
export interface RainTable {
  readonly durationsMin: readonly number[];
  readonly returnYears: readonly number[];
  readonly depthMm: readonly (readonly number[])[];
}

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
    limits: 'Between two durations of the table; beyond its shortest or longest it is a guess and says so.',
  },
  ({ t, t1, P1, t2, P2 }) => P1 * (t / t1) ** (Math.log(P2 / P1) / Math.log(t2 / t1)),
);

export interface Depth {
  readonly depthMm: number;
  /** True when the duration lies outside the table. */
  readonly extrapolated: boolean;
  /** What the interpolation used; null when the table has the duration itself or only one duration. */
  readonly between: { t: number; t1: number; P1: number; t2: number; P2: number } | null;
}

/**
 * Depth for a duration at one return period of the table, log-log between durations. Below the shortest duration the
 * slope of the first two is continued, above the longest that of the last two; both are marked.
 * @throws RangeError when the return period is not a row of the table.
 */
export function depthFor(table: RainTable, returnYears: number, durationMin: number): Depth {
  const row = table.returnYears.indexOf(returnYears);
  if (row < 0) throw new RangeError(`return period ${returnYears} years is not a row of the rain table`);
  const { durationsMin } = table;
  const depths = table.depthMm[row];
  const exact = durationsMin.indexOf(durationMin);
  if (exact >= 0) return { depthMm: depths[exact], extrapolated: false, between: null };
  const last = durationsMin.length - 1;
  const extrapolated = durationMin < durationsMin[0] || durationMin > durationsMin[last];
  if (last === 0) {
    // One duration tells nothing of others: shorter rain at the same intensity, longer at the same depth.
    const depthMm = durationMin < durationsMin[0] ? (depths[0] * durationMin) / durationsMin[0] : depths[0];
    return { depthMm, extrapolated: true, between: null };
  }
  let k = 1;
  while (k < last && durationsMin[k] < durationMin) k++;
  const between = { t: durationMin, t1: durationsMin[k - 1], P1: depths[k - 1], t2: durationsMin[k], P2: depths[k] };
  return { depthMm: DEPTH_BETWEEN.evaluate(between), extrapolated, between };
}

export interface TableProblem {
  readonly code: 'shape' | 'order' | 'value' | 'monotonic-duration' | 'monotonic-return';
  readonly what: string;
  readonly row?: number;
  readonly column?: number;
}

/** Everything wrong with a table: deeper with duration and with return period, positive, sorted, rectangular. */
export function checkTable({ durationsMin, returnYears, depthMm }: RainTable): TableProblem[] {
  const problems: TableProblem[] = [];
  const ascending = (list: readonly number[], name: string): void => {
    list.forEach((v, i) => {
      if (!(v > 0) || !Number.isFinite(v)) problems.push({ code: 'value', what: `${name} ${v} is not a positive number` });
      else if (i > 0 && v <= list[i - 1]) problems.push({ code: 'order', what: `${name} ${v} follows ${list[i - 1]}: they must rise` });
    });
  };
  if (durationsMin.length === 0 || returnYears.length === 0) {
    return [{ code: 'shape', what: 'the table has no durations or no return periods' }];
  }
  ascending(durationsMin, 'duration');
  ascending(returnYears, 'return period');
  if (depthMm.length !== returnYears.length) {
    problems.push({ code: 'shape', what: `${depthMm.length} rows of depths for ${returnYears.length} return periods` });
  }
  depthMm.forEach((row, r) => {
    if (row.length !== durationsMin.length) {
      problems.push({ code: 'shape', row: r, what: `row ${r + 1} has ${row.length} depths for ${durationsMin.length} durations` });
      return;
    }
    row.forEach((depth, c) => {
      const where = `1 in ${returnYears[r]} years, ${durationsMin[c]} min`;
      if (!(depth > 0) || !Number.isFinite(depth)) {
        problems.push({ code: 'value', row: r, column: c, what: `${where}: depth ${JSON.stringify(depth)} is not a positive number` });
      } else if (c > 0 && depth < row[c - 1]) {
        problems.push({
          code: 'monotonic-duration',
          row: r,
          column: c,
          what: `${where}: ${depth} mm is less than the ${row[c - 1]} mm of the shorter duration`,
        });
      } else if (r > 0 && depth < (depthMm[r - 1]?.[c] ?? 0)) {
        problems.push({
          code: 'monotonic-return',
          row: r,
          column: c,
          what: `${where}: ${depth} mm is less than the ${depthMm[r - 1][c]} mm of the more frequent storm`,
        });
      }
    });
  });
  return problems;
}
