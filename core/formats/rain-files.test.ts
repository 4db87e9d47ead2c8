import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { UserError } from '../project/index.ts';
import {
  bandOf,
  civil,
  dailyOf,
  daysTo,
  depthOfReturn,
  checkTable,
  frequencyOf,
  seasonsOf,
  tableOf,
  withShorter,
  yearlyMaxima,
  yearsOf,
} from '../rain/index.ts';
import { readRows, sheetOf } from './columns.ts';
import { readGauge } from './gauge-csv.ts';
import { importFile } from './import-file.ts';
import type { ImportedGauge, ImportedRain } from './imported.ts';
import { durationIn, readRainTable } from './rain-csv.ts';

const read = async (name: string, text: string) => importFile({ name, bytes: strToU8(text) });
const gauge = async (text: string): Promise<ImportedGauge> => {
  const got = await read('gauge.csv', text);
  if (got.kind !== 'gauge') throw new Error(got.kind);
  return got;
};
const table = async (text: string): Promise<ImportedRain> => {
  const got = await read('rain.csv', text);
  if (got.kind !== 'rain') throw new Error(got.kind);
  return got;
};
/** Code, line and words of a refusal. */
async function refusal(text: string): Promise<{ code: string; line: number | undefined; what: string }> {
  try {
    await read('file.csv', text);
  } catch (error) {
    if (error instanceof UserError) {
      const [p] = error.problems;
      expect(p.do.length).toBeGreaterThan(10);
      return { code: p.code, line: p.where.line, what: p.what };
    }
    throw error;
  }
  throw new Error('it was taken');
}
const days = (from: string, values: readonly string[]): string =>
  `date,rain_mm\n${values.map((v, i) => `${new Date(Date.parse(from) + i * 864e5).toISOString().slice(0, 10)},${v}`).join('\n')}\n`;

/** The layout of a public frequency service, invented figures: header lines, a block of estimates and two of limits. */
const PUBLISHED = `Point precipitation frequency estimates (inches)
Data type: Precipitation depth
Time series type: Partial duration
Location name (none)
PRECIPITATION FREQUENCY ESTIMATES
by duration for ARI (years):, 1,2,5,10,25
5-min:, 0.30,0.36,0.45,0.53,0.64
60-min:, 0.80,0.98,1.25,1.48,1.80
24-hr:, 2.00,2.40,3.05,3.60,4.40
3-day:, 2.60,3.10,3.90,4.60,5.60

PRECIPITATION FREQUENCY ESTIMATES UPPER BOUND OF THE 90% CONFIDENCE INTERVAL
by duration for ARI (years):, 1,2,5,10,25
5-min:, 0.34,0.41,0.52,0.61,0.75
60-min:, 0.91,1.12,1.43,1.71,2.11
24-hr:, 2.20,2.66,3.40,4.05,5.05
3-day:, 2.86,3.43,4.35,5.17,6.41

PRECIPITATION FREQUENCY ESTIMATES LOWER BOUND OF THE 90% CONFIDENCE INTERVAL
by duration for ARI (years):, 1,2,5,10,25
5-min:, 0.26,0.31,0.39,0.45,0.54
60-min:, 0.70,0.86,1.09,1.28,1.52
24-hr:, 1.80,2.16,2.72,3.19,3.82
3-day:, 2.34,2.79,3.48,4.07,4.87

Date/time (GMT):  none
`;

describe('rain tables', () => {
  it('are read as a public service lays them out, limits and all', async () => {
    const { table: t, limits, notes } = await table(PUBLISHED);
    expect(t.durationsMin).toEqual([5, 60, 1440, 4320]);
    expect(t.returnYears).toEqual([1, 2, 5, 10, 25]);
    expect(t.depthMm[3][2]).toBeCloseTo(3.6 * 25.4, 9);
    expect(limits?.lowMm[3][2]).toBeCloseTo(3.19 * 25.4, 9);
    expect(limits?.highMm[3][2]).toBeCloseTo(4.05 * 25.4, 9);
    expect(notes.join(' ')).toMatch(/Inches were turned.*every great rain.*limits are kept/);
  });
  it('are the same as depths or intensities, in millimetres or inches, minutes or hours, any order', async () => {
    const want = {
      durationsMin: [30, 60, 120],
      returnYears: [2, 10],
      depthMm: [
        [12, 18, 24],
        [20, 30, 40],
      ],
    };
    const same = [
      'duration_min (mm),2,10\n30,12,20\n60,18,30\n120,24,40',
      'duration_min,10 yr,2 yr\n120,40,24\n60,30,18\n30,20,12',
      'duration;1 in 2;1 in 10\n0,5 h;12;20\n1 h;18;30\n2 h;24;40',
      'hours,2,10\n0.5,12,20\n1,18,30\n2,24,40',
      'Rainfall intensity mm/h\nduration_min,2,10\n30,24,40\n60,18,30\n120,12,20',
      `Intensity (in/h)\nduration,T2,T10\n30-min,${24 / 25.4},${40 / 25.4}\n60-min,${18 / 25.4},${30 / 25.4}\n2-hr,${12 / 25.4},${20 / 25.4}`,
    ];
    for (const text of same) {
      const { table: t } = await table(text);
      expect([t.durationsMin, t.returnYears]).toEqual([want.durationsMin, want.returnYears]);
      t.depthMm.flat().forEach((v, i) => expect(v).toBeCloseTo(want.depthMm.flat()[i], 9));
    }
  });
  it('take the user’s word for what a paste does not say', () => {
    const rows = readRows({ name: 'paste', bytes: strToU8('min\t2\t10\n30\t1\t2\n60\t0.8\t1.5') });
    const { table: t, notes } = readRainTable(rows, 'paste', { unit: 'in', holds: 'intensity' });
    expect(t.depthMm[1]).toEqual([25.4, 1.5 * 25.4]);
    expect(notes.some((n) => n.includes('taken as millimetres'))).toBe(false);
  });
  it('know durations in words', () => {
    expect(['5-min:', '2 h', '3-day', '15', '1.5 hours', '24-hr:'].map((d) => durationIn(d, 1))).toEqual([5, 120, 4320, 15, 90, 1440]);
    expect(['soon', '5-weeks', ''].map((d) => durationIn(d, 1))).toEqual([NaN, NaN, NaN]);
  });
  it.each([
    ['rain.columns', 1, 'duration_min,two,10\n10,1,2'],
    ['rain.columns', 1, 'duration_min,-5\n10,1'],
    ['rain.empty', 1, 'duration_min,2,10'],
    ['rain.duration', 3, 'duration_min,2,10\n10,5,9\nhalf an hour,8,12'],
    ['rain.units', undefined, 'Depths in mm and in inches\nduration_min,2,10\n10,5,9'],
    ['csv.text', 3, 'duration_min,2,10\n10,5,9\n60,x,12'],
    ['csv.missing', 2, 'duration_min,2,10\n10,5'],
    ['rain.value', 2, 'duration_min,2,10\n10,-5,9'],
    ['rain.value', 2, 'duration_min,2,10\n10,0,9'],
    ['rain.order', undefined, 'duration_min,2,10\n10,5,9\n10,5,9'],
    ['rain.monotonic-duration', 3, 'duration_min,2\n10,5\n60,4'],
    ['rain.monotonic-return', 2, 'duration_min,2,10\n10,5,4'],
  ])('refuse %s and say where', async (code, line, text) => {
    expect(await refusal(text)).toMatchObject({ code, line });
  });
});

describe('gauge files', () => {
  it('the open Seattle record, 2012 to 2015 (NOAA, as in vega-datasets): totals of each year and its wettest days', () => {
    // Yearly totals as commonly printed of this file (from memory): 1226.0, 828.0, 1232.8, 1139.2 mm.
    const bytes = new Uint8Array(readFileSync(join(process.cwd(), 'node_modules/vega-datasets/data/seattle-weather.csv')));
    const rows = readRows({ name: 'seattle.csv', bytes });
    const { record, report } = readGauge(sheetOf(rows, 'seattle.csv'));
    expect(report).toEqual({ read: 1461, missing: 0, traces: 0, accumulated: 0, outOfOrder: 0 });
    const daily = dailyOf(record);
    const years = yearsOf(daily);
    expect(years.map((y) => y.year)).toEqual([2012, 2013, 2014, 2015]);
    [1226, 828, 1232.8, 1139.2].forEach((mm, i) => expect(years[i].totalMm).toBeCloseTo(mm, 3));
    expect(years.map((y) => y.wetDays)).toEqual([148, 119, 123, 116]);
    const maxima = yearlyMaxima(record, { durationMin: 1440, years });
    [54.1, 43.4, 46.7, 55.9].forEach((mm, i) => {
      expect(maxima[i].measuredMm).toBeCloseTo(mm, 4);
      expect(maxima[i].mm).toBeCloseTo(1.13 * mm, 4);
    });
    // Four years are too few for a fit, and it says so.
    expect(frequencyOf(record)).toMatchObject({ fits: [], tooShort: true });
    const seasons = seasonsOf(daily);
    expect(seasons.meanYearMm).toBeCloseTo(1106.5, 3);
    expect(seasons.months.filter((m) => m.isWet).map((m) => m.month)).toEqual([1, 2, 3, 4, 10, 11, 12]);
    expect(seasons.wettestDay).toMatchObject({ day: daysTo(2015, 3, 15) });
    // The driest three months in a row are June to August.
    expect(seasons.finishBy?.month).toBeGreaterThanOrEqual(8);
    expect(seasons.onsets).toHaveLength(4);
  });
  it('reads the same rain from any order of dates, unit and delimiter', async () => {
    const rain = ['0', '12.7', '0', '25.4', '0', '0', '2.54', '0', '0', '0', '0', '0', '0', '5.08'];
    const want = (await gauge(days('2020-02-24', rain))).record;
    const dates = rain.map((_, i) => civil(daysTo(2020, 2, 24) + i));
    const made = (head: string, row: (i: number) => string): string => `${head}\n${rain.map((_, i) => row(i)).join('\n')}\n`;
    const same = [
      made('date,prcp (in)', (i) => `${dates[i].month}/${dates[i].day}/${dates[i].year},${Number(rain[i]) / 25.4}`),
      made('Date;Rain mm', (i) => `${dates[i].day}.${dates[i].month}.${dates[i].year};${rain[i].replace('.', ',')}`),
      made(
        'date,precip_in',
        (i) =>
          `${dates[i].year}${String(dates[i].month).padStart(2, '0')}${String(dates[i].day).padStart(2, '0')},${Number(rain[i]) / 25.4}`,
      ),
      made('date,rainfall,unit', (i) =>
        i % 2
          ? `${dates[i].year}-${dates[i].month}-${dates[i].day},${rain[i]},mm`
          : `${dates[i].year}-${dates[i].month}-${dates[i].day},${Number(rain[i]) / 25.4},in`,
      ),
      made('date,precipitation (0.1 mm)', (i) => `${dates[i].year}-${dates[i].month}-${dates[i].day},${Number(rain[i]) * 10}`),
    ];
    for (const text of same) {
      const { record } = await gauge(text);
      expect([record.startMin, record.stepMin, record.steps, [...record.wet]]).toEqual([want.startMin, 1440, 14, [...want.wet]]);
      record.mm.forEach((v, i) => expect(v).toBeCloseTo(want.mm[i], 4));
    }
  });
  it('keeps gaps apart from dry days, counts traces, spreads sums over the days they stand for', async () => {
    const { record, report } = await gauge(days('2021-05-01', ['3', 'T', '', '-999', '6', 'M', 'M', '9A', '0']));
    expect(report).toEqual({ read: 5, missing: 2, traces: 1, accumulated: 3, outOfOrder: 0 });
    expect([...record.missing]).toEqual([2, 4]);
    expect([...record.wet]).toEqual([0, 4, 5, 6, 7]);
    expect([...record.mm]).toEqual([3, 6, 3, 3, 3]);
    expect([...dailyOf(record).known]).toEqual([1, 1, 0, 0, 1, 1, 1, 1, 1]);
  });
  it('finds missing lines, sorts what is out of order, and reads short steps and counters', async () => {
    const short = await gauge(
      'timestamp,rain_mm\n2021-05-01 00:10,1\n2021-05-01 00:00,2\n2021-05-01 00:05,0\n2021-05-01 00:30,4\n2021-05-01 00:25,0\n',
    );
    expect(short.record).toMatchObject({ stepMin: 5, steps: 7 });
    expect([...short.record.missing]).toEqual([3, 5]);
    expect(short.report.outOfOrder).toBe(2);
    const counter = await gauge(
      'date,time,cumulative_mm\n2021-05-01,01:00,10\n2021-05-01,02:00,12\n2021-05-01,03:00,12\n2021-05-01,04:00,1\n',
    );
    expect([[...counter.record.wet], [...counter.record.mm], [...counter.record.missing]]).toEqual([
      [1, 3],
      [2, 1],
      [0, 1],
    ]);
  });
  it('never loses or makes rain, whatever the gaps', async () => {
    const cell = fc.oneof(
      fc.integer({ min: 0, max: 900 }).map((v) => String(v / 10)),
      fc.constantFrom('', 'T', 'M', '0'),
      fc.integer({ min: 1, max: 400 }).map((v) => `${v / 10}A`),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(cell, { minLength: 3, maxLength: 60 }), async (cells) => {
        const total = cells.reduce((a, c) => a + (parseFloat(c) || 0), 0);
        fc.pre(total > 0);
        const { record } = await gauge(days('2019-12-20', cells));
        expect(record.mm.reduce((a, v) => a + v, 0)).toBeCloseTo(total, 2);
        const daily = dailyOf(record);
        expect(daily.mm.reduce((a, v) => a + v, 0)).toBeCloseTo(total, 2);
        const gaps = Array.from({ length: record.missing.length / 2 }, (_, k) => record.missing[2 * k + 1] - record.missing[2 * k]);
        expect(daily.known.reduce((a, v) => a + v, 0)).toBeCloseTo(cells.length - gaps.reduce((a, v) => a + v, 0), 6);
      }),
      { seed: 31, numRuns: 80 },
    );
  });
  it.each([
    ['csv.columns', 1, 'when,how much\n2020-01-01,2'],
    ['gauge.empty', undefined, 'date,rain_mm\n'],
    ['gauge.date', 3, 'date,rain_mm\n2020-01-01,2\nyesterday,1'],
    ['gauge.date', 2, 'date,time,rain_mm\n2020-01-01,25:00,2'],
    ['gauge.date', 3, 'date,rain_mm\n2020-01-01,2\n2020-02-30,1'],
    ['gauge.date-order', 2, 'date,rain_mm\n01/02/2020,2\n03/04/2020,1'],
    ['gauge.date-order', 2, 'date,rain_mm\n13/02/2020,2\n03/14/2020,1'],
    ['gauge.value', 2, 'date,rain_mm\n2020-01-01,lots\n2020-01-02,1'],
    ['gauge.negative', 3, 'date,rain_mm\n2020-01-01,1\n2020-01-02,-1'],
    ['gauge.huge', 3, 'date,rain_mm\n2020-01-01,1\n2020-01-02,2400'],
    ['gauge.duplicate', 4, 'date,rain_mm\n2020-01-01,1\n2020-01-02,2\n2020-01-01,1'],
    ['gauge.step', 4, 'date,rain_mm\n2020-01-01 00:00,1\n2020-01-01 00:10,2\n2020-01-01 00:27,1\n2020-01-01 00:37,1\n2020-01-01 00:47,1'],
    ['gauge.step', undefined, 'date,rain_mm\n2020-01-01,1\n2020-02-01,2\n2020-03-03,1'],
    ['gauge.units', 2, 'date,rain,unit\n2020-01-01,1,cups\n2020-01-02,1,mm'],
    ['gauge.dry', undefined, 'date,rain_mm\n2020-01-01,0\n2020-01-02,0'],
    [
      'gauge.running-total',
      undefined,
      days(
        '2020-01-01',
        Array.from({ length: 40 }, (_, i) => String(3 * i)),
      ),
    ],
  ])('refuse %s and say where', async (code, line, text) => {
    expect(await refusal(text)).toMatchObject({ code, line });
  });
});

describe('a record of many years', () => {
  /** Fifty years of invented days: wet half the year, with a wettest day a year that is known. */
  const greatest = Array.from({ length: 50 }, (_, y) => 40 + ((y * 37) % 50));
  const lines: string[] = [];
  for (let day = daysTo(1970, 1, 1); day < daysTo(2020, 1, 1); day++) {
    const { year, month, day: d } = civil(day);
    const isWet = (month >= 10 || month <= 3) && day % 3 === 0;
    const mm = month === 11 && d === 14 ? greatest[year - 1970] : isWet ? 4 + (day % 7) : 0;
    lines.push(`${year}-${month}-${d},${mm}`);
  }
  const text = `date,rain_mm\n${lines.join('\n')}\n`;

  it('gives its maxima, fits that hold them, and a band about each depth', async () => {
    const { record } = await gauge(text);
    const { fits, years } = frequencyOf(record);
    // Years begin in the dry half: of the first and the last only a part is there.
    expect(years).toHaveLength(51);
    const day = fits.find((f) => f.durationMin === 1440);
    expect(day?.maxima.map((m) => Math.round(m.measuredMm))).toEqual(greatest.slice(0, 49));
    const gev = day?.gev;
    if (!day || !gev) throw new Error('no fit');
    for (const T of [2, 10, 50]) {
      expect(depthOfReturn(gev, T)).toBeGreaterThan(1.13 * 45);
      expect(depthOfReturn(gev, T)).toBeLessThan(1.13 * 110);
    }
    for (const b of bandOf(day, 'gev', { returnYears: [2, 10, 50], draws: 200 })) {
      expect(b.low).toBeLessThan(depthOfReturn(gev, b.returnYears));
      expect(b.high).toBeGreaterThan(depthOfReturn(gev, b.returnYears));
    }
    const made = tableOf(frequencyOf(record), 'gev', 100);
    if (!made) throw new Error('no table');
    const longer = withShorter(made);
    for (const t of [made.table, longer.table]) expect(checkTable(t)).toEqual([]);
    // The day itself stays, and shorter rain is less, more surely so on the low side.
    const c = longer.table.durationsMin.indexOf(1440);
    expect(longer.table.depthMm[3][c]).toBe(made.table.depthMm[3][0]);
    expect(longer.table.depthMm[3][c - 1]).toBeCloseTo(made.table.depthMm[3][0] / 2 ** (1 / 3), 9);
    longer.table.depthMm.forEach((row, r) =>
      row.forEach((mm, k) => expect(longer.limits.lowMm[r][k] <= mm && mm <= longer.limits.highMm[r][k]).toBe(true)),
    );
    expect(withShorter({ ...made, table: { ...made.table, durationsMin: [60, 2880, 4320] } }).table.durationsMin).toHaveLength(3);
    // Longer runs never bring less.
    for (let y = 0; y < 49; y++) expect(fits[1].maxima[y].measuredMm).toBeGreaterThanOrEqual(fits[0].maxima[y].measuredMm);
  });
  it('knows its dry season, and the day to be finished by', async () => {
    const seasons = seasonsOf(dailyOf((await gauge(text)).record));
    expect(seasons.months.filter((m) => m.isWet).map((m) => m.month)).toEqual([1, 2, 3, 10, 11, 12]);
    // Dry from April to September: 183 days, and a day or two until the first third day that is wet.
    expect(seasons.longestDry?.days).toBeGreaterThanOrEqual(183);
    expect(seasons.longestDry?.days).toBeLessThanOrEqual(187);
    // From 1 October on every third day brings 4 to 10 mm: 20 mm in three days first come with the great day of November.
    expect(seasons.finishBy).toEqual({ month: 11, day: expect.any(Number) as unknown as number });
    expect(seasons.halfInDays).toBeLessThan(30);
  });
});
