import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { Worksheet } from '../../formula/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt } from '../../testing/rules.ts';
import { wrong } from '../../testing/guests.ts';
import { measureBed } from '../bed.ts';
import { type CheckDams, type Dam, checkDams } from './index.ts';

/** A bed a metre wide that falls a tenth to the south, sides of one to one. */
const GULLY = siteOf(gridOf((x, y) => 0.1 * y + Math.min(1.5, Math.max(0, Math.abs(x - 50) - 0.5)), { cells: 201, cellM: 0.5 }));
const LINE: Line = [[50, 90], [50, 30]]; // prettier-ignore
const dam = (atM: number, change: Partial<Dam> = {}): Dam => ({ atM, heightM: 0.6, bedWidthM: 1, bankWidthM: 4, depthM: 1.5, ...change });
const labour = { m3PerDay: 1, carryM: 50, fillsAYear: 4 };
const ROCK: CheckDams = { ...checkDams.sample, line: LINE, dams: [dam(48), dam(54, { siltedPercent: 25 }), dam(60, { heightM: 0.4 })], dimensions: { ...checkDams.sample.dimensions, notchWidthM: 1 }, labour }; // prettier-ignore
const bed = measureBed(LINE, GULLY);
const placed = (work: CheckDams) => checkDams.place(work, { bed, channel: null }, null);
const tablesOf = (work: CheckDams, facts = factsOf(GULLY)) => placed(work).each!(facts);
const figure = (work: CheckDams, id: string): number =>
  placed(work)
    .figures(factsOf(GULLY), new Worksheet('dams'))
    .find((f) => f.id === id)?.value ?? NaN;
const column = (rows: readonly { readonly values: readonly (number | null)[] }[], k: number): number[] =>
  rows.map(({ values }) => values[k] ?? NaN);
const sum = (list: readonly number[]): number => list.reduce((a, v) => a + v, 0);

describe('what each dam takes and holds', () => {
  it('adds up to what all of them do', () => {
    const [takes, holds] = tablesOf(ROCK);
    expect(takes.columns.map((c) => c.label)).toEqual(['stone', 'weighs', 'carried', 'takes']);
    expect(takes.rows.map((r) => r.name)).toEqual(['1', '2', '3']);
    expect(sum(column(takes.rows, 0))).toBeCloseTo(figure(ROCK, 'stoneM3'), 9);
    expect(sum(column(takes.rows, 1))).toBeCloseTo(figure(ROCK, 'tonnes'), 9);
    expect(sum(column(takes.rows, 3))).toBeCloseTo(figure(ROCK, 'hours'), 9);
    expect(sum(column(holds.rows, 0))).toBeCloseTo(figure(ROCK, 'openM3'), 9);
    const [, second] = holds.rows;
    const hours = column(takes.rows, 3)[1];
    const [open, fill, year, silt] = second.values as readonly number[];
    // A quarter of its room is silt: all of that drains a fifth once it is full.
    expect([fill, year]).toEqual([expect.closeTo((1000 * open) / hours, 9), expect.closeTo((4000 * open) / hours, 9)]);
    expect(silt).toBeCloseTo((1000 * 0.2 * (open / 0.75)) / hours, 9);
  });
  it('takes longer where it alone is carried farther, and shares the hours that were logged', () => {
    const far = { ...ROCK, dams: [dam(48), dam(54, { carryM: 150 }), dam(60)] };
    const [takes] = tablesOf(far);
    expect(column(takes.rows, 2)).toEqual([50, 150, 50]);
    const [first, second] = column(takes.rows, 3);
    const tonnes = column(takes.rows, 1)[1];
    // Barrows of 60 kg, two hundred metres more there and back, at 2.5 km/h.
    expect(second - first).toBeCloseTo(((tonnes / 0.06) * 0.2) / 2.5, 9);
    expect(figure(far, 'hours')).toBeCloseTo(sum(column(takes.rows, 3)), 9);
    const [logged] = tablesOf({ ...far, labour: { ...labour, loggedHours: 30 } });
    expect(sum(column(logged.rows, 3))).toBeCloseTo(30, 9);
    expect(column(logged.rows, 3)[1] / column(logged.rows, 3)[0]).toBeCloseTo(second / first, 9);
  });
  it('is not told of one, nor of a year or ground nobody knows', () => {
    expect(tablesOf({ ...ROCK, dams: [dam(60)] })).toEqual([]);
    const [, holds] = tablesOf({ ...ROCK, labour: { m3PerDay: 1, carryM: 50 } }, factsOf(siteOf(GULLY.grid, { soilAt: () => null })));
    for (const { values } of holds.rows) expect(values.slice(2)).toEqual([null, null]);
  });
  it('refuses a carry that is none', () => {
    const with_ = (carryM: unknown): string[] => wrong(checkDams, withAt({ ...ROCK, dams: [dam(60)] }, 'dams', [{ ...dam(60), carryM }]));
    expect([with_(0), with_(2000)]).toEqual([[], []]);
    expect([with_(-1), with_(2001), with_('far')]).toEqual(Array(3).fill(['check-dams.dam@dams.0.carryM']));
  });
});
