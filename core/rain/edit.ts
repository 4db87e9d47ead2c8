// Tables with a row or a column more or less. What is added is read off the table, to a tenth of a millimetre.
import { depthFor } from './depth.ts';
import type { RainTable } from './table.ts';

/** Depths are kept from falling between their neighbours once they are rounded. */
const tenth = (mm: number, least: number, most: number): number => Math.min(most, Math.max(least, Math.round(10 * mm) / 10));

/** Gumbel's reduced variate: on it the depths of a table lie near a straight line. */
export const variateOf = (years: number): number => -Math.log(-Math.log(1 - 1 / Math.max(years, 1.01)));

/** The table with one more duration, its depths on log-log between its neighbours or carried on from the end. */
export function withDuration(table: RainTable, minutes: number): RainTable {
  const { durationsMin, returnYears, depthMm } = table;
  const at = durationsMin.filter((t) => t < minutes).length;
  const insert = <T>(list: readonly T[], value: T): T[] => [...list.slice(0, at), value, ...list.slice(at)];
  return {
    ...table,
    durationsMin: insert(durationsMin, minutes),
    depthMm: depthMm.map((row, r) =>
      insert(row, tenth(depthFor(table, returnYears[r], minutes).depthMm, row[at - 1] ?? 0.1, row[at] ?? Infinity)),
    ),
  };
}

/** The table with one more return period, straight between its neighbours on Gumbel paper or carried on from the end. */
export function withReturn(table: RainTable, years: number): RainTable {
  const { durationsMin, returnYears, depthMm } = table;
  const at = returnYears.filter((y) => y < years).length;
  const last = returnYears.length - 1;
  const [a, b] = at === 0 ? [0, Math.min(1, last)] : at > last ? [Math.max(0, last - 1), last] : [at - 1, at];
  const [ya, yb] = [variateOf(returnYears[a]), variateOf(returnYears[b])];
  const share = yb === ya ? 0 : (variateOf(years) - ya) / (yb - ya);
  const row = durationsMin.map((_, c) => {
    const mm = depthMm[a][c] + share * (depthMm[b][c] - depthMm[a][c]);
    return tenth(mm, depthMm[at - 1]?.[c] ?? 0.1, depthMm[at]?.[c] ?? Infinity);
  });
  // Carried far below the first row a longer duration may come out lower: it then takes the shorter's depth.
  for (let c = 1; c < row.length; c++) row[c] = Math.max(row[c], row[c - 1]);
  return {
    ...table,
    returnYears: [...returnYears.slice(0, at), years, ...returnYears.slice(at)],
    depthMm: [...depthMm.slice(0, at), row, ...depthMm.slice(at)],
  };
}

export const withoutDuration = (table: RainTable, at: number): RainTable => ({
  ...table,
  durationsMin: table.durationsMin.filter((_, c) => c !== at),
  depthMm: table.depthMm.map((row) => row.filter((_, c) => c !== at)),
});

export const withoutReturn = (table: RainTable, at: number): RainTable => ({
  ...table,
  returnYears: table.returnYears.filter((_, r) => r !== at),
  depthMm: table.depthMm.filter((_, r) => r !== at),
});
