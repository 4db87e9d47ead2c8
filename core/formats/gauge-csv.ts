// Rain gauges' files: a line a day or a shorter step, with everything that happens to such files.
import type { UserProblem } from '../project/index.ts';
import { DAY_MIN, MOST_MM_PER_H, type RainRecord, dateText, dayOf } from '../rain/index.ts';
import { type Sheet, numberIn } from './columns.ts';
import { type DateOrder, type DateParts, inOrder, minutesOf, ordersOf, splitDate } from './gauge-dates.ts';
import { type GaugeReport, type ImportedGauge, refuseFile, refuseLines } from './imported.ts';

/** What the user says of a file that does not say it itself. */
export interface GaugeHow {
  readonly dates?: DateOrder;
  readonly unit?: 'mm' | 'in';
}

const DATE = /^(date|datetime|time ?stamp|date ?time|day|obs ?date|valid)( ?(utc|local|dmy|mdy|ymd))?$/;
const TIME = /^(time|hour|time of day)$/;
const RAIN = /^(daily |hourly )?(precip|prcp|rain|ppt|pp$|amount|depth|cumulative|counter|total rain)/;
const CUMULATIVE = /cumul|counter|total ?rain|running/;
/** More in a day than has ever been measured (1,825 mm, from memory). */
const MOST_MM_PER_DAY = 1900;
const MOST_STEPS = 40_000_000;
/** Rain thinner than this in a step is none [mm]. */
const LEAST_MM = 1e-6;
const LISTED = 10;

const plain = (header: string): string =>
  header
    .replace(/[_\-.]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
const named = (header: string): string => plain(header.replace(/[([].*?[)\]]/g, ' '));

interface Columns {
  readonly date: number;
  readonly time: number;
  readonly rain: number;
  readonly unit: number;
}

function columnsOf({ headers }: Sheet): Columns {
  const find = (test: RegExp): number => headers.findIndex((h) => test.test(named(h)));
  return { date: find(DATE), time: find(TIME), rain: find(RAIN), unit: find(/^units?$/) };
}

/** Whether a sheet is a gauge's: a date and a rain column. */
export function isGauge(sheet: Sheet): boolean {
  const { date, rain } = columnsOf(sheet);
  return date >= 0 && rain >= 0;
}

/** Millimetres of one unit of a column; null when its header names none. */
function millimetresOf(header: string): number | null {
  const h = ` ${plain(header).replace(/[()[\]]/g, ' ')} `;
  if (/ (0 1 ?mm|1 10 ?mm|tenths?( of)? ?(a )?mm) /.test(h)) return 0.1;
  if (/ (mm|millimet(re|er)s?) /.test(h)) return 1;
  if (/ (cm) /.test(h)) return 10;
  return / (in|inch|inches) /.test(h) ? 25.4 : null;
}

type Reading = { readonly mm: number; readonly mark: 'value' | 'trace' | 'missing' | 'accumulated' | 'later' } | null;

/** One cell: a depth, a trace, a gap, a sum of several steps ("12.4A") or a step whose rain comes in a later sum ("S"). */
function readingIn(cell: string | undefined, factor: number): Reading {
  const text = (cell ?? '').trim();
  if (text === '' || /^(-|--+|m|na|n\/a|nan|null|none|missing|\*+)$/i.test(text) || /^-(99(\.9+)?|999+(\.\d+)?|8888)$/.test(text))
    return { mm: 0, mark: 'missing' };
  if (/^(t|tr|trace)$/i.test(text)) return { mm: 0, mark: 'trace' };
  if (/^s$/i.test(text)) return { mm: 0, mark: 'later' };
  const accumulated = /^([\d.,]+)\s*a$/i.exec(text);
  const value = numberIn(accumulated ? accumulated[1] : text);
  return Number.isNaN(value) ? null : { mm: factor * value, mark: accumulated ? 'accumulated' : 'value' };
}

/** Problems of lines, counted beyond the first few so that a file of a million bad lines stays readable. */
class Faults {
  readonly list: UserProblem[] = [];
  readonly file: string;
  constructor(file: string) {
    this.file = file;
  }
  add(code: string, line: number, told: { readonly what: string; readonly do: string }): void {
    if (this.list.length < LISTED) this.list.push({ code, what: told.what, where: { file: this.file, line }, do: told.do });
  }
  refuse(): void {
    if (this.list.length > 0) refuseLines(this.list);
  }
}

interface Readings {
  /** Minutes from 1970-01-01, in the order of the file. */
  readonly at: Float64Array;
  readonly readings: readonly Exclude<Reading, null>[];
}

function datesOf(sheet: Sheet, { date, time }: Columns, faults: Faults): (DateParts | null)[] {
  return sheet.rows.map((row, r) => {
    const parts = splitDate(row[date] ?? '');
    const clock = time >= 0 ? minutesOf(row[time] ?? '') : null;
    if (!parts || (clock !== null && Number.isNaN(clock))) {
      const what = parts ? `"${(row[time] ?? '').slice(0, 24)}" is no time of day` : `"${(row[date] ?? '').slice(0, 24)}" is no date`;
      faults.add('gauge.date', sheet.lineOf(r), { what, do: 'Write dates as 2014-05-03 and times as 13:30.' });
      return null;
    }
    return clock === null ? parts : { ...parts, time: clock };
  });
}

/** The one order of day and month that fits: as the user or the header says, as the calendar allows, or as the days run on. */
function orderOf(sheet: Sheet, dates: readonly DateParts[], said: DateOrder | undefined): DateOrder {
  const header = /(dmy|mdy|ymd)$/.exec(named(sheet.headers[columnsOf(sheet).date]))?.[1] as DateOrder | undefined;
  if (said ?? header) return (said ?? header) as DateOrder;
  const orders = ordersOf(dates);
  const steady = orders.filter((order) => {
    const at = dates.map((d) => inOrder(d, order));
    return at.every((v, i) => i === 0 || v >= at[i - 1]);
  });
  const left = orders.length > 1 && steady.length === 1 ? steady : orders;
  if (left.length === 1) return left[0];
  return refuseFile(sheet.file, 'gauge.date-order', {
    what:
      orders.length === 0
        ? 'its dates fit neither day-month-year nor month-day-year'
        : `"${sheet.rows[0][columnsOf(sheet).date]}" may be day-month or month-day`,
    line: sheet.lineOf(0),
    do: 'Write dates as 2014-05-03, or head the column date_dmy or date_mdy.',
  });
}

function valuesOf(
  sheet: Sheet,
  columns: Columns,
  on: { readonly how: GaugeHow; readonly faults: Faults; readonly notes: string[] },
): Exclude<Reading, null>[] {
  const { how, faults, notes } = on;
  const header = sheet.headers[columns.rain];
  const ofHeader = millimetresOf(header);
  const common = how.unit === 'in' ? 25.4 : how.unit === 'mm' ? 1 : (ofHeader ?? 1);
  if (how.unit === undefined && ofHeader === null && columns.unit < 0)
    notes.push(`Nothing names the unit of "${header}": it was taken as millimetres.`);
  else if (common !== 1) notes.push(`"${header}" was turned into millimetres.`);
  return sheet.rows.map((row, r) => {
    const named = columns.unit < 0 ? null : millimetresOf(row[columns.unit] ?? '');
    if (columns.unit >= 0 && named === null)
      faults.add('gauge.units', sheet.lineOf(r), {
        what: `unit "${(row[columns.unit] ?? '').slice(0, 24)}" is not known`,
        do: 'Use mm or in.',
      });
    const reading = readingIn(row[columns.rain], named ?? common);
    if (reading === null) {
      faults.add('gauge.value', sheet.lineOf(r), {
        what: `"${(row[columns.rain] ?? '').slice(0, 24)}" is no depth of rain`,
        do: 'Give a number, T for a trace, or leave it empty where nothing was read.',
      });
      return { mm: 0, mark: 'missing' };
    }
    if (reading.mm < 0)
      faults.add('gauge.negative', sheet.lineOf(r), {
        what: `${reading.mm} mm is below nothing`,
        do: 'Correct it, or leave it empty where nothing was read.',
      });
    return reading;
  });
}

/** Running totals as the rain between readings; a fall is a counter set back to nothing. */
function differences(values: readonly Exclude<Reading, null>[]): Exclude<Reading, null>[] {
  let last: number | null = null;
  return values.map((v) => {
    if (v.mark !== 'value') return v;
    const before = last;
    last = v.mm;
    if (before === null) return { mm: 0, mark: 'missing' };
    return { mm: v.mm >= before ? v.mm - before : v.mm, mark: 'value' };
  });
}

/** Whether values look like a counter read off: they hardly ever fall, rise often, and end far above any single rise. */
function looksRunning(values: readonly Exclude<Reading, null>[]): boolean {
  const mm = values.filter((v) => v.mark === 'value').map((v) => v.mm);
  const rises = mm.slice(1).map((v, i) => v - mm[i]);
  const wet = rises.filter((r) => r > 0).length;
  return mm.length >= 30 && rises.every((r) => r >= 0) && wet > 0.1 * mm.length && mm[mm.length - 1] > 2 * Math.max(...rises);
}

/** The commonest time between neighbouring lines [min]; every other must be a whole number of it. */
function stepOf(at: Float64Array, sheet: Sheet, lines: Int32Array): number {
  if (at.length < 2) return DAY_MIN;
  const counts = new Map<number, number>();
  for (let i = 1; i < at.length; i++) counts.set(at[i] - at[i - 1], (counts.get(at[i] - at[i - 1]) ?? 0) + 1);
  const step = [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best))[0];
  if (step > DAY_MIN) {
    refuseFile(sheet.file, 'gauge.step', {
      what: `its lines stand ${Math.round((10 * step) / DAY_MIN) / 10} days apart`,
      do: 'Bring in daily readings or shorter ones.',
    });
  }
  for (let i = 1; i < at.length; i++) {
    const steps = (at[i] - at[i - 1]) / step;
    if (!Number.isInteger(steps)) {
      refuseFile(sheet.file, 'gauge.step', {
        what: `most lines stand ${step} min apart, this one ${Math.round(at[i] - at[i - 1])} min after the one before`,
        line: sheet.lineOf(lines[i]),
        do: 'Give equal steps: sum the readings by 5 minutes, hours or days.',
      });
    }
  }
  return step;
}

/** Lines in the order of time; refuses a time that comes twice. */
function sorted(sheet: Sheet, { at, readings }: Readings, faults: Faults): { at: Float64Array; lines: Int32Array; outOfOrder: number } {
  const lines = Int32Array.from({ length: readings.length }, (_, i) => i);
  let outOfOrder = 0;
  for (let i = 1; i < at.length; i++) if (at[i] < at[i - 1]) outOfOrder++;
  if (outOfOrder > 0) lines.sort((a, b) => at[a] - at[b] || a - b);
  const inTime = Float64Array.from(lines, (r) => at[r]);
  for (let i = 1; i < inTime.length; i++) {
    if (inTime[i] !== inTime[i - 1]) continue;
    const [first, again] = [sheet.lineOf(lines[i - 1]), sheet.lineOf(lines[i])];
    faults.add('gauge.duplicate', Math.max(first, again), {
      what: `${timeText(inTime[i])} is there already, in line ${Math.min(first, again)}`,
      do: 'Keep one of the two lines.',
    });
  }
  faults.refuse();
  return { at: inTime, lines, outOfOrder };
}

function timeText(minutes: number): string {
  const rest = ((minutes % DAY_MIN) + DAY_MIN) % DAY_MIN;
  const clock = rest === 0 ? '' : ` ${String(Math.floor(rest / 60)).padStart(2, '0')}:${String(rest % 60).padStart(2, '0')}`;
  return dateText(dayOf(minutes)) + clock;
}

/** Steps with their rain: sums spread evenly over the steps they stand for, gaps where nothing is known. */
function recordOf(on: { readonly at: Float64Array; readonly readings: readonly Exclude<Reading, null>[]; readonly stepMin: number }): {
  record: RainRecord;
  missing: number;
  accumulated: number;
} {
  const { at, readings, stepMin } = on;
  const steps = Math.round((at[at.length - 1] - at[0]) / stepMin) + 1;
  const [wet, mm, missing]: [number[], number[], number[]] = [[], [], []];
  let [known, missed, accumulated] = [0, 0, 0];
  // First step of those whose rain comes in the next sum.
  let owed = -1;
  const skip = (to: number): void => {
    if (to > known) missing.push(known, to);
    missed += Math.max(0, to - known);
  };
  for (let k = 0; k < readings.length; k++) {
    const step = Math.round((at[k] - at[0]) / stepMin);
    const { mark, mm: depth } = readings[k];
    if (mark === 'missing' || mark === 'later') {
      if (mark === 'later' && owed < 0) owed = Math.max(known, step);
      continue;
    }
    // A sum also covers the missing steps right before it.
    const from = mark === 'accumulated' ? (owed >= 0 ? owed : known) : step;
    skip(from);
    owed = -1;
    known = step + 1;
    if (mark === 'accumulated') accumulated += step + 1 - from;
    // Less than no gauge can tell is no rain.
    const share = depth / (step + 1 - from);
    for (let s = from; s <= step && share >= LEAST_MM; s++) {
      wet.push(s);
      mm.push(share);
    }
  }
  skip(steps);
  const record = {
    startMin: at[0],
    stepMin,
    steps,
    wet: Uint32Array.from(wet),
    mm: Float32Array.from(mm),
    missing: Uint32Array.from(missing),
  };
  return { record, missing: missed, accumulated };
}

/** A gauge's record. @throws UserError saying what is wrong, in which lines and what to do. */
export function readGauge(sheet: Sheet, how: GaugeHow = {}): ImportedGauge {
  const { file } = sheet;
  const columns = columnsOf(sheet);
  if (columns.date < 0 || columns.rain < 0) {
    refuseFile(file, 'gauge.columns', {
      what: `its header is "${sheet.headers.join(', ').slice(0, 80)}"`,
      line: 1,
      do: 'Name a column date and a column precipitation_mm or rain_in.',
    });
  }
  if (sheet.rows.length === 0) refuseFile(file, 'gauge.empty', { what: 'it has a header but no readings', do: 'Give one line a reading.' });
  const faults = new Faults(file);
  const notes: string[] = [];
  const dates = datesOf(sheet, columns, faults);
  faults.refuse();
  const order = orderOf(sheet, dates as DateParts[], how.dates);
  const at = Float64Array.from(dates as DateParts[], (d) => inOrder(d, order));
  at.forEach(
    (v, r) =>
      Number.isNaN(v) &&
      faults.add('gauge.date', sheet.lineOf(r), {
        what: `"${sheet.rows[r][columns.date]}" is no day of the calendar`,
        do: 'Correct the date.',
      }),
  );
  let readings = valuesOf(sheet, columns, { how, faults, notes });
  faults.refuse();
  const inTime = sorted(sheet, { at, readings }, faults);
  readings = Array.from(inTime.lines, (r) => readings[r]);
  if (CUMULATIVE.test(named(sheet.headers[columns.rain]))) {
    readings = differences(readings);
    notes.push('Running totals were turned into the rain between readings.');
  } else if (looksRunning(readings)) {
    refuseFile(file, 'gauge.running-total', {
      what: `"${sheet.headers[columns.rain]}" never falls from line to line: it looks like a running total`,
      do: 'Head the column cumulative_mm if it is one; else correct it.',
    });
  }
  const stepMin = stepOf(inTime.at, sheet, inTime.lines);
  const most = Math.min(MOST_MM_PER_DAY, (MOST_MM_PER_H * stepMin) / 60);
  readings.forEach((v, k) => {
    if (v.mm > most)
      faults.add('gauge.huge', sheet.lineOf(inTime.lines[k]), {
        what: `${Math.round(v.mm)} mm in ${stepMin} min is more than was ever measured`,
        do: 'Check the unit and the value.',
      });
  });
  faults.refuse();
  if ((inTime.at[inTime.at.length - 1] - inTime.at[0]) / stepMin > MOST_STEPS) {
    refuseFile(file, 'gauge.too-long', { what: `it spans more than ${MOST_STEPS} steps`, do: 'Bring in longer steps, or fewer years.' });
  }
  const { record, missing, accumulated } = recordOf({ at: inTime.at, readings, stepMin });
  if (record.wet.length === 0) refuseFile(file, 'gauge.dry', { what: 'it never rains in it', do: 'Check that this is the rain column.' });
  const report: GaugeReport = {
    read: readings.filter((v) => v.mark !== 'missing' && v.mark !== 'later').length,
    missing,
    traces: readings.filter((v) => v.mark === 'trace').length,
    accumulated,
    outOfOrder: inTime.outOfOrder,
  };
  return { kind: 'gauge', record, report, source: file, notes };
}
