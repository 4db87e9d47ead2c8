// Ripping patterns: where lines lie, which way water runs in them, what they take, worked by hand and in closed form.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import { type Line, lineLength, nearestOnLine } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { keyContour, parallelTo } from '../field/index.ts';
import { newRipping } from './create.ts';
import { RIP_DRAFT, RIP_HOURS, RIP_LEFT, RIP_POWER } from './formulas.ts';
import { measureRipping } from './ground.ts';
import { type Ripping, ripping, slotLines } from './index.ts';
import { hoursOf, lengthOf } from './making.ts';

/** A trough that falls to the south: S along, a across. Its contours are parabolas that bend uphill in the valley. */
const [S, A] = [0.06, 0.0006];
const TROUGH = gridOf((x, y) => 100 + S * y + A * (x - 100) ** 2, { cells: 401, cellM: 0.5 });
const SITE = siteOf(TROUGH);
/** Its contour through (100, y0). */
const contour = (y0: number): Line => Array.from({ length: 41 }, (_, k) => {
    const x = 60 + 2 * k;
    return [x, y0 - (A * (x - 100) ** 2) / S] as const;
  }); // prettier-ignore
const work = (on: Partial<Ripping['dimensions']> = {}, line = contour(100)): Ripping => {
  const one = newRipping('rip', 'Rip', { line, reachM: 10 });
  return { ...one, dimensions: { ...one.dimensions, spacingM: 2, ...on } };
};

describe('laws', () => {
  it('three shanks 25 cm deep in clay at 5 km/h pull 20.3 kN and ask for 47 kW (by hand)', () => {
    const F = RIP_DRAFT.evaluate({ f: 1, v: 5, n: 3, d: 25 });
    expect(F).toBeCloseTo((226 + 45) * 75, 6);
    expect(RIP_POWER.evaluate({ F, v: 5, e: 0.6 })).toBeCloseTo((20325 * 5) / 2160, 6);
  });
  it('a hectare of slots a metre apart is 10 km: with three shanks at 4 km/h 1.11 h', () => {
    expect(RIP_HOURS.evaluate({ L: 10_000, v: 4, n: 3, e: 0.75 })).toBeCloseTo(10 / 9, 9);
  });
  it('a gain that halves in two years: three times is twice after two, one and a half after four', () => {
    const left = (t: number): number => RIP_LEFT.evaluate({ k: 3, t, t0: 0, h: 2 });
    expect([left(0), left(2), left(4)]).toEqual([3, 2, 1.5]);
  });
});

describe('lines beside a key line', () => {
  it('keep their distance, to its right and to its left', () => {
    for (const away of [6, -6]) {
      const [line] = parallelTo(contour(100), away);
      for (const p of line) expect(nearestOnLine(p, contour(100)).distanceM).toBeCloseTo(6, 1);
      // A contour drawn from west to east has downhill on its right.
      expect(Math.sign(line[Math.floor(line.length / 2)][1] - 100)).toBe(-Math.sign(away));
    }
  });
  it('break off inside a bend that is sharper than they are far', () => {
    const hook: Line = [[0, 0], [50, 0], [50, 50]]; // prettier-ignore
    const [inner] = [parallelTo(hook, -10)];
    for (const piece of inner) for (const p of piece) expect(nearestOnLine(p, hook).distanceM).toBeGreaterThan(9.9);
    expect(inner.reduce((a, l) => a + lineLength(l), 0)).toBeLessThan(2 * 41);
  });
  it('go as far up and down as said, or to the edge of the field', () => {
    const lines = slotLines(work());
    expect(lines).toHaveLength(11);
    // From the highest down.
    const middles = lines.map((l) => l[Math.floor(l.length / 2)][1]);
    for (let k = 1; k < middles.length; k++) expect(middles[k]).toBeLessThan(middles[k - 1]);
    const ring: Line = [[80, 80], [120, 80], [120, 103], [80, 103]]; // prettier-ignore
    const within = slotLines({ ...work({ upM: 40, downM: 40 }), ring });
    for (const l of within) for (const [x, y] of l) expect([x > 79.9 && x < 120.1, y > 79.9 && y < 103.1]).toEqual([true, true]);
  });
});

describe('which way water runs in a slot', () => {
  it('below the contour of a valley that widens out it runs to the ridges, above it back: in closed form', () => {
    const { slots } = measureRipping(work({ upM: 8, downM: 8, spacingM: 8 }), SITE);
    expect(slots).toHaveLength(3);
    /** A line d beyond the contour, at x of the contour: the ground falls by its slope there, steeper to the sides. */
    const fallTo = (d: number, x: number): number => {
      const g = Math.hypot(S, 2 * A * (x - 100));
      // The lines go along the normal: level lost is the slope times the way, less what the slope changes on it.
      const [nx, ny] = [(2 * A * (x - 100)) / g, S / g];
      const z = (px: number, py: number): number => S * py + A * (px - 100) ** 2;
      const y = 100 - (A * (x - 100) ** 2) / S;
      return z(100, 100) - S * d - z(x - nx * d, y - ny * d);
    };
    const [up, key, down] = slots;
    const middle = (s: (typeof slots)[number]): number => s.groundM[Math.round(s.groundM.length / 2)];
    const end = (s: (typeof slots)[number]): number => s.groundM[0];
    expect(middle(up) - end(up)).toBeCloseTo(fallTo(-8, 60), 1);
    expect(middle(down) - end(down)).toBeCloseTo(fallTo(8, 60), 1);
    expect(fallTo(8, 60)).toBeGreaterThan(0.1);
    expect(fallTo(-8, 60)).toBeLessThan(-0.1);
    expect(Math.abs(middle(key) - end(key))).toBeLessThan(0.02);
  });
  it('is told from valley to ridge where both stand out: a wave of ground, its key line set a little off the contour', () => {
    // Valleys at x = 40 and 160, a ridge at 100; the line falls 1 mm a metre from the first valley to the ridge.
    const wave = gridOf((x, y) => 100 + 0.05 * y - 1.2 * Math.cos((2 * Math.PI * (x - 40)) / 120), { cells: 401, cellM: 0.5 });
    const line = (tilt: number): Line => Array.from({ length: 66 }, (_, k) => {
        const x = 35 + k;
        return [x, 100 + (1.2 * Math.cos((2 * Math.PI * (x - 40)) / 120) - tilt * (x - 40)) / 0.05] as const;
      }); // prettier-ignore
    const lead = (tilt: number) => measureRipping({ ...work({ upM: 0, downM: 0 }), line: line(tilt) }, siteOf(wave)).slots[0].leads;
    // From valley to ridge it loses so much, however long it is on its way round.
    const loses = ({ fall, fromM, toM }: ReturnType<typeof lead>[number]): number => fall * (toM - fromM);
    const [right] = lead(0.001);
    expect(loses(right)).toBeCloseTo(0.001 * 60, 2);
    const [wrong] = lead(-0.002);
    expect(loses(wrong)).toBeCloseTo(-0.002 * 60, 2);
    // Drawn the other way round the answer is the same.
    const back = measureRipping({ ...work({ upM: 0, downM: 0 }), line: [...line(0.001)].reverse() }, siteOf(wave)).slots[0].leads;
    expect(back[0].fall).toBeCloseTo(right.fall, 5);
  });
  it('on a plane there is neither valley nor ridge; a line across it tells how steep it runs', () => {
    const plane = siteOf(gridOf((_x, y) => 100 + 0.05 * y, { cells: 401, cellM: 0.5 }));
    const level = measureRipping(work({}, [[50, 100], [150, 100]]), plane); // prettier-ignore
    expect(level.slots.flatMap((s) => s.leads)).toEqual([]);
    expect(level.slope).toBeCloseTo(0.05, 4);
    expect(level.slots[0].steepest).toBeLessThan(1e-4);
    const slant = measureRipping(work({ upM: 0, downM: 0 }, [[50, 100], [150, 120]]), plane); // prettier-ignore
    expect(slant.slots[0].steepest).toBeCloseTo((0.05 * 20) / Math.hypot(100, 20), 4);
  });
});

describe('what it takes and tells', () => {
  const place = (one: Ripping) => ripping.place(one, ripping.measure(one, SITE, null), null);
  it('metres, hours and fuel by hand; slots hold nothing and take nothing in', () => {
    const one = work({}, [[60, 100], [140, 100]]); // prettier-ignore
    const ground = measureRipping(one, SITE);
    expect(lengthOf(ground)).toBeCloseTo(11 * 80, 6);
    expect(hoursOf(one, ground)).toBeCloseTo(880 / (1000 * 4 * 3 * 0.75), 9);
    const quantities = new Map(place(one).quantities(factsOf(SITE)).map((q) => [q.item, q.likely])); // prettier-ignore
    expect(quantities.get('fuel')).toBeCloseTo(((880 / 9000) * 9) / 1000, 9);
    expect([place(one).stores([]), ripping.intakes(one), place(one).outlets]).toEqual([[], [], []]);
  });
  it('tells what is left of a gain only where it was tested and its owner says how long it lasts', () => {
    const read = (one: Ripping) => {
      const sheet = new Worksheet('rip');
      return { figures: new Map(place(one).figures(factsOf(SITE), sheet).map((f) => [f.id, f.value])), used: sheet.lines.map((l) => l.formula) }; // prettier-ignore
    };
    const plain = read(work());
    expect([plain.figures.get('times'), plain.figures.get('times3'), plain.figures.get('pullKn')]).toEqual([null, null, null]);
    expect(plain.used).toEqual(['ripping.hours']);
    const known = read({ ...work(), texture: 'fine', besideMmPerHour: 10, insideMmPerHour: 30, testedAfterYears: 1, halvesYears: 2 });
    expect([known.figures.get('times'), known.figures.get('times1'), known.figures.get('times3'), known.figures.get('times5')]).toEqual([
      3, 3, 2, 1.5,
    ]);
    expect(known.figures.get('pullKn')).toBeCloseTo(((226 + 28.8) * 3 * 20) / 1000, 6);
    expect(read({ ...work(), besideMmPerHour: 10, insideMmPerHour: 30 }).figures.get('times1')).toBeNull();
  });
  it('pegs every line at its ends and every tenth along it, draws three slots, and steps fit the season', () => {
    const one = work();
    const pegs = place(one).pegs(20, null);
    const count = (k: number): number => pegs.filter((p) => p.name.startsWith(`Rip, line ${k},`)).length;
    expect([count(2), count(11) > 2, count(1) > 2]).toEqual([2, true, true]);
    for (const p of pegs) expect(p.levelM).toBeCloseTo(levelAt(TROUGH, [p.x, p.y]), 1);
    const roles = (of: Ripping) => place(of).section!(null).parts.map((p) => p.role); // prettier-ignore
    expect(roles(one)).toEqual(['ground', 'cut', 'cut', 'cut']);
    expect(roles({ ...one, panM: 0.15 })).toEqual(['ground', 'key', 'cut', 'cut', 'cut']);
    const last = (season: number): string => words(place(work({ season })).buildSteps().slice(-1)[0].does); // prettier-ignore
    expect([last(2), last(3)].map((w) => w.includes('next year rip between'))).toEqual([true, false]);
  });
});

describe('a pattern from a drawing', () => {
  const land = { grid: TROUGH, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };
  const begin = (how: string, points: Line, grid = TROUGH) => ripping.begin({ how, points, host: null }, { ...land, grid });
  it('over a field lies beside the contour through its middle, downhill on its right', () => {
    const ring: Line = [[70, 60], [130, 60], [130, 120], [70, 120]]; // prettier-ignore
    const begun = begin('ripping', ring);
    if (!begun.ok) throw new Error('refused');
    const [one] = begun.works as unknown as readonly [Ripping];
    const levels = one.line.map((p) => levelAt(TROUGH, p));
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(0.03);
    expect(one.line[0][0]).toBeLessThan(one.line[one.line.length - 1][0]);
    expect(ripping.validate(one)).toEqual([]);
    expect(words(begun.said)).toMatch(/\d+ lines, [\d ,]+ m of slots/);
    expect(keyContour([[0, 0], [3, 0], [3, 3]], TROUGH)).toBeNull(); // prettier-ignore
  });
  it('beside a line stays as it is drawn, turned so that downhill is right', () => {
    const drawn: Line = [[140, 101], [60, 100]]; // prettier-ignore
    const begun = begin('rip-line', drawn);
    if (!begun.ok) throw new Error('refused');
    expect((begun.works[0] as Ripping).line).toEqual([...drawn].reverse());
  });
  it('is refused on flat ground and off the terrain', () => {
    const flat = gridOf(() => 5, { cells: 201, cellM: 0.5 });
    const told = (how: string, points: Line, grid = TROUGH): string => {
      const begun = begin(how, points, grid);
      return begun.ok ? 'begun' : begun.problem.code;
    };
    expect(told('ripping', [[20, 20], [80, 20], [80, 80]], flat)).toBe('ripping.none'); // prettier-ignore
    expect(told('ripping', [[20, 20], [800, 20], [80, 80]])).toBe('work.off-terrain'); // prettier-ignore
    expect(told('rip-line', [[20, 20], [800, 20]])).toBe('work.off-terrain'); // prettier-ignore
  });
});

describe('what is refused', () => {
  it.each([
    ['line', [[0, 0]], 'line'],
    ['soil', 'mud', 'soil'],
    ['dimensions.spacingM', 0.1, 'dimensions.spacingM'],
    ['dimensions.upM', 500, null],
    ['ring', [[0, 0]], 'ring'],
    [
      'ring',
      [
        [0, 0],
        [1, NaN],
        [2, 2],
      ],
      'ring',
    ],
    ['machine.shanks', 0, 'machine.shanks'],
  ])('%s of %j is told at %s', (path, value, field) => {
    expect(ripping.validate(work())).toEqual([]);
    const found = ripping.validate(withAt(work(), path, value)).map((p) => p.field);
    if (field === null) expect(found).toEqual([]);
    else expect(found).toContain(field);
    const many = { ...work(), dimensions: { ...work().dimensions, spacingM: 0.3, upM: 100, downM: 100 } };
    expect(ripping.validate(many).map((p) => p.field)).toEqual(['dimensions.spacingM']);
  });
});
