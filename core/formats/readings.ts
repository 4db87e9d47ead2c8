// Readings of a field test as they stand in a notebook: time, depth of water, and what it was filled up to.
import type { Reading } from '../ground/index.ts';
import { MINUTES_A_DAY, clockMinutes } from './clock.ts';
import { numberIn, readRows } from './columns.ts';
import { type InputFile, refuseFile } from './imported.ts';

/** No field test goes on for longer [min]. */
const LONGEST_MIN = 60 * MINUTES_A_DAY;

/** A line without any number. */
const isHeader = (cells: readonly string[]): boolean =>
  cells.every((c) => c === '' || (Number.isNaN(numberIn(c)) && clockMinutes(c) === null));

/** Millimetres of one unit named in the header; millimetres where none is. */
function unitOf(header: readonly string[]): number {
  const text = header.join(' ').toLowerCase();
  if (/\bcm\b/.test(text)) return 10;
  return /\b(in|inch|inches)\b/.test(text) ? 25.4 : 1;
}

/**
 * Lines of minutes or clock times, depth, and where it was refilled the depth after. Clock times count from the first; past
 * midnight they go on. @throws UserError with the line that cannot be read.
 */
export function readReadings(file: InputFile): Reading[] {
  const rows = readRows(file);
  const header = isHeader(rows[0].cells) ? rows[0].cells : [];
  const toMm = unitOf(header);
  const body = header.length > 0 ? rows.slice(1) : rows;
  if (body.length === 0)
    refuseFile(file.name, 'readings.none', { what: 'there is no reading in it', do: 'Give a line for each: time, depth.' });
  let [startMin, before] = [NaN, -Infinity];
  return body.map(({ cells, line }) => {
    const refuse = (code: string, what: string, hint: string): never => refuseFile(file.name, `readings.${code}`, { what, line, do: hint });
    if (cells.length < 2) refuse('columns', `"${cells.join(' ')}" has no depth`, 'Give time and depth, with a comma or tab between.');
    const clock = clockMinutes(cells[0]);
    let min = clock ?? numberIn(cells[0]);
    if (Number.isNaN(min)) refuse('time', `"${cells[0].slice(0, 24)}" is no time`, 'Give minutes, or a clock time such as 14:35.');
    if (clock !== null) {
      if (Number.isNaN(startMin)) startMin = clock;
      min = clock - startMin;
      if (min < before) min += MINUTES_A_DAY * Math.ceil((before - min) / MINUTES_A_DAY);
    }
    if (!(Math.abs(min) <= LONGEST_MIN))
      refuse('time', `${min} minutes are more than any test lasts`, 'Give minutes since the test began, or clock times.');
    before = min;
    const mm = numberIn(cells[1]) * toMm;
    if (Number.isNaN(mm)) refuse('depth', `"${cells[1].slice(0, 24)}" is no depth`, 'Give the depth of water as a number.');
    const refill = cells[2] ?? '';
    if (refill === '') return { min, mm };
    const refilledMm = numberIn(refill) * toMm;
    if (Number.isNaN(refilledMm))
      refuse('refill', `"${refill.slice(0, 24)}" is no depth`, 'Leave it empty, or give the depth it was filled up to.');
    return { min, mm, refilledMm };
  });
}
