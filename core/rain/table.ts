/** Rain depth [mm] by return period (rows) and duration (columns). */
export interface RainTable {
  readonly durationsMin: readonly number[];
  readonly returnYears: readonly number[];
  readonly depthMm: readonly (readonly number[])[];
}

/** Whether a table is invented, and tells nothing of the user's place: by where it came from. */
export const isInvented = ({ basis }: { readonly basis?: string }): boolean => basis === 'simulated' || basis === 'example';

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
