// Stone lines: what they slow, let through, take and say, worked by hand.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { ROCK_SEEPAGE, ROCK_VOIDS, VOID_RADIUS } from '../../hydraulics/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { newLines } from './create.ts';
import { GRASS_PLANTS, LINE_STONE, LINE_WEDGE, spacingFor } from './formulas.ts';
import { type StoneLines, stoneLines } from './index.ts';
import { hoursOf, plantsOf, stoneOf } from './making.ts';
import { behind, leavesAt, rowsOf } from './standing.ts';

const GRID = gridOf((_x, y) => 100 + 0.04 * y, { cells: 201, cellM: 0.5 });
const SITE = siteOf(GRID);
const line = (y: number, rise = 0): Line => [
  [20, y],
  [50, y + rise],
  [80, y],
];
const ONE: StoneLines = newLines('lines', 'Lines', [line(50), line(40)]);
const place = (work: StoneLines) => stoneLines.place(work, stoneLines.measure(work, SITE, null), null);
const rows = (work: StoneLines) => rowsOf(work, stoneLines.measure(work, SITE, null));

describe('laws of a line (rows of the handbook, by hand)', () => {
  it('a ridge 0.4 by 0.25 m is 5.0 m3 for 100 m, a trapezoid 0.4 and 0.2 by 0.25 m 7.5', () => {
    expect(LINE_STONE.evaluate({ L: 100, H: 0.25, b: 0.4, t: 0, d: 0 })).toBeCloseTo(5, 9);
    expect(LINE_STONE.evaluate({ L: 100, H: 0.25, b: 0.4, t: 0.2, d: 0 })).toBeCloseTo(7.5, 9);
    expect(LINE_STONE.evaluate({ L: 100, H: 0.25, b: 0.4, t: 0.2, d: 0.1 })).toBeCloseTo(11.5, 9);
  });
  it('slips 150 mm apart are 401 on 60 m, twice as many in two rows', () => {
    expect(GRASS_PLANTS.evaluate({ L: 60, s: 0.15, r: 1 })).toBe(401);
    expect(GRASS_PLANTS.evaluate({ L: 60, s: 0.15, r: 2 })).toBe(802);
  });
  it('are as far apart as published to 2 %, and closer on steeper ground', () => {
    expect([0.005, 0.01, 0.015, 0.02, 0.04, 0.05].map(spacingFor)).toEqual([20, 15, 15, 10, 10, 7]);
  });
});

describe('a line on a plane', () => {
  it('holds the wedge L H² / (2 S) behind it, and wets L H / S', () => {
    const [row] = rows(ONE);
    const full = behind(row, row.lowM + 0.25);
    expect(full.volumeM3).toBeCloseTo(LINE_WEDGE.evaluate({ L: 60, H: 0.25, S: 0.04 }), 2);
    expect(full.wettedM2).toBeCloseTo((60 * 0.25) / 0.04, 0);
    expect(row).toMatchObject({ slope: expect.closeTo(0.04, 4) });
  });
  it('lets water through all of its length by the law of stone, less where silt lies', () => {
    const [store] = place(ONE).stores([]);
    const through = store.outlets.find((o) => o.role === 'through')!;
    const m = VOID_RADIUS.evaluate({ D: 0.15, p: ROCK_VOIDS });
    const perM = ROCK_SEEPAGE.evaluate({ h1: 0.15, h2: 0, L: 0.3, m, p: ROCK_VOIDS });
    expect(through.flowAt(store.floorM + 0.15) / (60 * perM)).toBeCloseTo(1, 1);
    const silted = place({ ...ONE, siltedPercent: 25 }).stores([])[0];
    const part = silted.outlets.find((o) => o.role === 'through')!;
    // A quarter of the wedge is half of its height: nothing comes from under that, three quarters of what stands over it.
    expect(silted.floorM - store.floorM).toBeCloseTo(0.125, 2);
    expect(part.flowAt(silted.floorM)).toBe(0);
    expect(part.flowAt(silted.floorM + 0.1) / through.flowAt(store.floorM + 0.1)).toBeCloseTo(0.75, 1);
    expect(
      place({ ...ONE, siltedPercent: 100 })
        .stores([])[0]
        .outlets.some((o) => o.role === 'through'),
    ).toBe(false);
  });
  it('is passed over its whole top, and round its ends above that', () => {
    const [store] = place(ONE).stores([]);
    const over = store.outlets.find((o) => o.role === 'way')!;
    expect(over.levelM - store.floorM).toBeCloseTo(0.25, 6);
    expect(over.flowAt(over.levelM)).toBe(0);
    expect(over.flowAt(over.levelM + 0.05) / (1.5 * 60 * 0.05 ** 1.5)).toBeCloseTo(1, 1);
    expect(store.crestM - store.floorM).toBeCloseTo(0.3, 6);
    expect(store.heldM3).toBe(0);
  });
  it('each is a store of its own; what one passes is found by the next', () => {
    const stores = place(ONE).stores([]);
    expect(stores.map((s) => [s.id, s.name])).toEqual([
      ['lines', 'Lines, line 1'],
      ['lines:2', 'Lines, line 2'],
    ]);
    // Level, it lets go in its middle, below it.
    const [x, y] = stores[0].outlets[0].dischargeAt;
    expect([x, y < 50 && y > 47]).toEqual([expect.closeTo(50, 0), true]);
    expect(stores[0].outlets[0]).not.toHaveProperty('to');
  });
  it('one that leaves the contour lets go near its lowest place and holds less', () => {
    const bent = newLines('b', 'Bent', [[[20, 50], [80, 53]]]); // prettier-ignore
    const [row] = rows(bent);
    expect(row.highM - row.lowM).toBeCloseTo(0.12, 2);
    expect(leavesAt(row, bent)).toBeLessThan(27);
    expect(behind(row, row.lowM + 0.25).volumeM3).toBeLessThan(behind(rows(ONE)[0], rows(ONE)[0].lowM + 0.25).volumeM3);
  });
});

describe('what lines take', () => {
  it('stone, slips and hours by hand', () => {
    // 120 m of 0.25 · 0.3 and 0.08 · 0.4; 401 slips a line; 50 m with 60 kg at 2.5 km/h.
    const stone = 120 * (0.075 + 0.032);
    expect(stoneOf(ONE)).toBeCloseTo(stone, 2);
    expect(plantsOf(ONE)).toBe(802);
    expect(plantsOf(withAt(ONE, 'grass', 'none'))).toBe(0);
    expect(hoursOf(ONE)).toBeCloseTo((stone / 1.5) * 8 + ((stone * 1.72) / 0.06) * (0.1 / 2.5) + (802 / 400) * 8, 1);
  });
  it('lists slips and their water only where grass is planted; a step to plant comes last but one', () => {
    const items = (work: StoneLines) =>
      place(work)
        .quantities(factsOf(SITE))
        .map((q) => q.item);
    expect(items(ONE)).toEqual(['line', 'stone', 'stone-weight', 'cut', 'plant', 'water']);
    expect(items(withAt(ONE, 'grass', 'none'))).toEqual(['line', 'stone', 'stone-weight', 'cut']);
    expect(place(ONE).buildSteps().map((s) => s.id)).toEqual(['peg', 'trench', 'lay', 'ends', 'plant', 'after']); // prettier-ignore
    expect(words(place(ONE).buildSteps()[4].does)).toContain('150 mm apart');
  });
  it('pegs every line along the ground, draws the highest to scale, and marks the ends of the set', () => {
    const one = place(ONE);
    const pegs = one.pegs(10, null);
    expect(pegs).toHaveLength(14);
    for (const p of pegs) expect(p.levelM).toBeCloseTo(levelAt(GRID, [p.x, p.y]), 2);
    expect(one.marks.map((m) => m.name)).toEqual(['Highest top', 'Lowest top']);
    const { parts } = withSilt(one.section!(100 + 2 + 0.1));
    expect(parts).toEqual(['ground', 'stone', 'full', 'water']);
    expect(withSilt(place({ ...ONE, siltedPercent: 40 }).section!(null)).parts).toEqual(['ground', 'earth', 'stone', 'full']);
  });
  it('tells figures with the working of one line', () => {
    const sheet = new Worksheet('lines');
    const figures = new Map(
      place(ONE)
        .figures(factsOf(SITE), sheet)
        .map((f) => [f.id, f.value]),
    );
    expect(figures.get('lines')).toBe(2);
    expect(figures.get('stonePer100M')).toBeCloseTo(10.7, 1);
    expect(figures.get('roomM3')).toBeCloseTo(2 * LINE_WEDGE.evaluate({ L: 60, H: 0.25, S: 0.04 }), 1);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['stone-lines.stone', 'stone-lines.wedge', 'stone-lines.plants']);
  });
});
const withSilt = ({ parts }: { readonly parts: readonly { readonly role: string }[] }) => ({ parts: parts.map((p) => p.role) });

describe('lines from a drawing', () => {
  const land = { grid: GRID, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };
  const begin = (how: string, points: Line) => stoneLines.begin({ how, points, host: null }, land);
  it('over a field lie on its contours, ten metres apart on 4 %', () => {
    const begun = begin('stone-lines', [[20, 20], [80, 20], [80, 80], [20, 80]]); // prettier-ignore
    if (!begun.ok) throw new Error('refused');
    const [{ lines }] = begun.works as unknown as readonly [StoneLines];
    expect(lines.length).toBe(6);
    for (const l of lines) {
      const levels = l.map((p) => levelAt(GRID, p));
      expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(0.02);
      expect(lineLength(l)).toBeGreaterThan(55);
    }
    expect(words(begun.said)).toMatch(/6 lines along the contour, 0\.40 m of fall between them/);
  });
  it('one settles on its contour, or stays as it was drawn', () => {
    const drawn: Line = [[20, 50], [80, 54]]; // prettier-ignore
    const [settled, kept] = ['stone-line', 'stone-row'].map((how) => begin(how, drawn));
    if (!settled.ok || !kept.ok) throw new Error('refused');
    const last = (works: readonly unknown[]) => (works[0] as StoneLines).lines[0].slice(-1)[0][1];
    expect(last(settled.works)).toBeCloseTo(50, 1);
    expect(last(kept.works)).toBe(54);
  });
  it('is refused on flat ground, off the terrain and in a field without a contour', () => {
    const flat = { ...land, grid: gridOf(() => 5, { cells: 201, cellM: 0.5 }) };
    const on = (how: string, points: Line, there = flat) => {
      const begun = stoneLines.begin({ how, points, host: null }, there);
      return begun.ok ? 'begun' : begun.problem.code;
    };
    expect(on('stone-lines', [[20, 20], [80, 20], [80, 80]])).toBe('stone-lines.none'); // prettier-ignore
    expect(on('stone-line', [[20, 20], [80, 20]])).toBe('stone-lines.settle'); // prettier-ignore
    expect(on('stone-row', [[20, 20], [800, 20]], land)).toBe('work.off-terrain'); // prettier-ignore
  });
});

describe('what is refused', () => {
  it.each([
    ['lines', [], 'lines'],
    ['lines', 7, 'lines'],
    ['lines', [[[0, 0]]], 'lines.0'],
    ['grass', 'moss', 'grass'],
    ['dimensions.topWidthM', 0.5, 'dimensions.topWidthM'],
    ['dimensions.heightM', 5, 'dimensions.heightM'],
    ['gaps', 'many', 'gaps'],
    ['gaps', [{ row: 3, atM: 1, widthM: 1 }], 'gaps.0.row'],
    ['gaps', [{ row: 1.5, atM: 1, widthM: 1 }], 'gaps.0.row'],
    ['gaps', [{ row: 1, atM: 70, widthM: 1 }], 'gaps.0.atM'],
    ['gaps', [{ row: 1, atM: 7, widthM: 0 }], 'gaps.0.widthM'],
  ])('%s of %j is told at %s', (path, value, field) => {
    expect(stoneLines.validate(ONE)).toEqual([]);
    expect(stoneLines.validate(withAt(ONE, path, value)).map((p) => p.field)).toContain(field);
  });
});
