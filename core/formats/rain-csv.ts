import { type RainTable, checkTable } from '../rain/index.ts';
import { type Sheet, columnOf, numberIn, numericColumns } from './columns.ts';
import { type ImportedRain, refuseFile, refuseLines } from './imported.ts';

const MINUTES = ['durationmin', 'duration', 'minutes', 'min'];
const HOURS = ['durationh', 'hours', 'h'];

export const isRain = (sheet: Sheet): boolean => columnOf(sheet, [...MINUTES, ...HOURS]) === 0;

/** Rain depths in mm: first column the duration, then one column a return period in years, named by its years. */
export function readRainTable(sheet: Sheet): ImportedRain {
  const { file } = sheet;
  const inHours = columnOf(sheet, HOURS) === 0;
  const years = sheet.headers.slice(1).map((h) => numberIn(h.replace(/\s*(years?|yrs?|y|a)$/, '').replace(/^1\s*in\s*/, '')));
  const bad = years.findIndex((v) => !(v > 0));
  if (years.length === 0 || bad >= 0) {
    refuseFile(file, 'rain.columns', {
      what: `column ${bad + 2} is headed "${sheet.headers[bad + 1] ?? ''}"`,
      line: 1,
      do: 'Head each column after the first with its return period in years: duration_min, 2, 10, 20, 100.',
    });
  }
  if (sheet.rows.length === 0) refuseFile(file, 'rain.empty', { what: 'it has a header but no depths', do: 'Give one line a duration.' });
  const columns = numericColumns(sheet, Object.fromEntries(sheet.headers.map((_, i) => [String(i), i])));
  const scale = inHours ? 60 : 1;
  const order = Array.from(columns['0'], (_, i) => i).sort((a, b) => columns['0'][a] - columns['0'][b]);
  const yearOrder = years.map((_, i) => i).sort((a, b) => years[a] - years[b]);
  const table: RainTable = {
    durationsMin: order.map((r) => columns['0'][r] * scale),
    returnYears: yearOrder.map((k) => years[k]),
    depthMm: yearOrder.map((k) => order.map((r) => columns[String(k + 1)][r])),
  };
  const problems = checkTable(table).map((p) => ({
    code: `rain.${p.code}`,
    what: p.what,
    where: { file, ...(p.column === undefined ? {} : { line: sheet.lineOf(order[p.column]) }) },
    do: 'Correct the table: depth never falls with duration or return period.',
  }));
  if (problems.length > 0) refuseLines(problems);
  return { kind: 'rain', table, source: file, notes: [] };
}

/** The table as CSV, in the layout that readRainTable reads. */
export function writeRainTable(table: RainTable): string {
  const head = ['duration_min', ...table.returnYears.map(String)];
  const rows = table.durationsMin.map((d, c) => [d, ...table.depthMm.map((row) => row[c])]);
  return [head, ...rows].map((r) => r.join(',')).join('\n') + '\n';
}
