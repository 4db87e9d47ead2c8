// Depths of return periods between and beyond the rows of a table.
import type { RainTable } from './table.ts';

/** Whether a return period [years] lies within the rows of a table. */
export const holdsYears = ({ returnYears }: RainTable, years: number): boolean =>
  years >= returnYears[0] && years <= returnYears[returnYears.length - 1];

function rowAt({ returnYears, depthMm }: RainTable, years: number): number[] {
  const last = returnYears.length - 1;
  if (last === 0) return depthMm[0].map((d) => d * Math.max(0.05, 1 + 0.3 * Math.log10(years / returnYears[0])));
  let k = returnYears.findIndex((y) => y >= years);
  k = Math.min(last, Math.max(1, k < 0 ? last : k));
  const share = Math.log(years / returnYears[k - 1]) / Math.log(returnYears[k] / returnYears[k - 1]);
  return depthMm[k].map((d, j) => Math.max(0.05 * d, depthMm[k - 1][j] + share * (d - depthMm[k - 1][j])));
}

/**
 * A table of one row, for a return period [years] between or beyond its own: straight over the logarithm of years (common
 * practice). Beyond its rows it is a guess: `holdsYears` tells.
 */
export const tableAt = (table: RainTable, years: number): RainTable => ({ ...table, returnYears: [years], depthMm: [rowAt(table, years)] });
