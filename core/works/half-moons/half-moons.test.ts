// Half-moons and pits: rooms and earth by closed forms, rows that stand below gaps, shares that come and pass.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Worksheet } from '../../formula/index.ts';
import { type Line, distance } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { formatQuantity } from '../../units/index.ts';
import { FIRST, newMoons } from './create.ts';
import { MOON_EARTH, MOON_ROOM, PIT_ROOM, RUN_ON_RATIO, TREE_CATCHMENT } from './formulas.ts';
import { type HalfMoons, basinsIn, countIn, countOf, halfMoons, pitchOf, runOnM2, shareCaught } from './index.ts';
import { earthOf, partsOf } from './making.ts';
import { heldBy, rowsOf } from './standing.ts';

const GRID = gridOf((_x, y) => 100 + 0.04 * y, { cells: 201, cellM: 0.5 });
const SITE = siteOf(GRID);
const line = (y: number): Line => [
  [20, y],
  [80, y],
];
const ONE: HalfMoons = newMoons('moons', 'Moons', { ...FIRST['half-moons'], rows: [line(50), line(40)] });
const PITS: HalfMoons = newMoons('pits', 'Pits', { ...FIRST['pits'], rows: [line(50), line(49)] });
const place = (work: HalfMoons) => halfMoons.place(work, halfMoons.measure(work, SITE, null), null);
const rows = (work: HalfMoons) => rowsOf(work, halfMoons.measure(work, SITE, null));

describe('run-on ground (FAO 1991, Water Harvesting, sections 4.3 and 4.4; from memory)', () => {
  const ratio = (...[WR, DR, K, e]: readonly [number, number, number, number]): number => RUN_ON_RATIO.evaluate({ WR, DR, K, e });
  it('millet asks 7.2, sorghum 3.2 parts for one (examples a and b), a third case 1.85', () => {
    expect(ratio(475, 250, 0.25, 0.5)).toBeCloseTo(7.2, 9);
    expect(ratio(525, 375, 0.25, 0.5)).toBeCloseTo(3.2, 9);
    expect(ratio(525, 310, 0.5, 0.75)).toBeCloseTo(1.85, 2);
  });
  it('a tree of 10 m2 asks 74 m2', () => {
    expect(TREE_CATCHMENT.evaluate({ RA: 10, WR: 1000, DR: 350, K: 0.5, e: 0.5 })).toBeCloseTo(74.3, 1);
  });
  it('where the rain is enough none is asked', () => expect(ratio(400, 500, 0.25, 0.5)).toBe(0));
});

describe('the room of one', () => {
  it('on a plane is two thirds of r³ S, and what is dug (r 2 m on 2 %: 0.107 m3; r 6 m on 1 %: 1.44 m3)', () => {
    expect(MOON_ROOM.evaluate({ r: 2, S: 0.02, d: 0 })).toBeCloseTo(0.107, 3);
    expect(MOON_ROOM.evaluate({ r: 6, S: 0.01, d: 0 })).toBeCloseTo(1.44, 9);
    expect(PIT_ROOM.evaluate({ r: 0.15, d: 0.18 })).toBeCloseTo(0.01272, 5);
  });
  it('summed in strips is the closed form, whatever its size', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 10, noNaN: true }),
        fc.double({ min: 0.005, max: 0.1, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (r, S, d) => {
          const { volumeM3 } = heldBy({ form: 'half-moon', dimensions: { ...ONE.dimensions, radiusM: r, dugM: d } }, S, 0);
          expect(volumeM3 / MOON_ROOM.evaluate({ r, S, d })).toBeCloseTo(1, 2);
        },
      ),
      { seed: 77, numRuns: 60 },
    );
  });
  it('grows with its water, and by the whole disc once all of it is wet', () => {
    let before = -1;
    for (let k = -10; k <= 10; k++) {
      const { volumeM3 } = heldBy(ONE, 0.04, 0.03 * k);
      expect(volumeM3).toBeGreaterThanOrEqual(before);
      before = volumeM3;
    }
    const [a, b] = [0.1, 0.2].map((over) => heldBy(ONE, 0.04, over).volumeM3);
    expect((b - a) / 0.1 / (2 * Math.PI)).toBeCloseTo(1, 2);
    // A pit is level inside, wet all over from its first water.
    const pit = { form: 'pit', dimensions: { ...ONE.dimensions, radiusM: 0.15, dugM: 0.18 } } as const;
    expect([-0.18, -0.1].map((over) => heldBy(pit, 0.1, over).wettedM2 / (Math.PI * 0.15 ** 2))).toEqual([1, 1]);
  });
  it('earth of a bund without a slope is a half ring of one section', () => {
    expect(MOON_EARTH.evaluate({ r: 3, S: 0, f: 0.25, t: 0.2, z: 1 })).toBeCloseTo(Math.PI * 3 * (0.2 * 0.25 + 0.25 ** 2), 9);
    // On a slope: t f π r + z f² π r + 2 t S r² + 4 z f S r² + z S² r³ π / 2, integrated by hand.
    const [r, S, f, t, z] = [2, 0.05, 0.15, 0.15, 1];
    const byHand =
      t * f * Math.PI * r + z * f * f * Math.PI * r + 2 * t * S * r * r + 4 * z * f * S * r * r + (z * S * S * r ** 3 * Math.PI) / 2;
    expect(MOON_EARTH.evaluate({ r, S, f, t, z })).toBeCloseTo(byHand, 6);
  });
});

describe('rows of them', () => {
  it('stand a pitch apart, every second row half a pitch over, all inside their lines', () => {
    expect([countIn(ONE, 0), countIn(ONE, 1), countOf(ONE)]).toEqual([12, 11, 23]);
    const [upper, lower] = [basinsIn(ONE, 0), basinsIn(ONE, 1)];
    expect(distance(upper[0].at, upper[1].at)).toBeCloseTo(5, 9);
    expect(lower[0].at[0] - upper[0].at[0]).toBeCloseTo(2.5, 9);
    for (const b of [...upper, ...lower]) expect([b.at[0] - 2 >= 20 - 1e-9, b.at[0] + 2 <= 80 + 1e-9]).toEqual([true, true]);
  });
  it('catch their width of what comes; broken ones let theirs by', () => {
    expect(shareCaught(ONE, 0)).toBeCloseTo((12 * 4) / 60, 9);
    const broken = { ...ONE, breaches: [{ row: 1, number: 3 }, { row: 1, number: 3 }, { row: 2, number: 1 }] }; // prettier-ignore
    expect(shareCaught(broken, 0)).toBeCloseTo((11 * 4) / 60, 9);
    const [first] = halfMoons.intakes(broken);
    expect(first.takes?.[1][1]).toBeCloseTo(1000 * ((11 * 4) / 60), 6);
    expect(place(broken).stores([])[0].heldM3 / place(ONE).stores([])[0].heldM3).toBeCloseTo(11 / 12, 9);
  });
  it('each is a store that lets go at its tips, its bunds above them', () => {
    const [first, second] = place(ONE).stores([]);
    expect([first.id, second.id]).toEqual(['moons', 'moons:2']);
    expect(first.heldM3 / (12 * MOON_ROOM.evaluate({ r: 2, S: 0.04, d: 0.2 }))).toBeCloseTo(1, 2);
    expect(first.crestM - first.wayOutM).toBeCloseTo(0.15, 9);
    expect(first.outlets[0].flowAt(first.wayOutM + 0.1)).toBeCloseTo(1.5 * 12 * 1 * 0.1 ** 1.5, 6);
    const silted = place({ ...ONE, siltedPercent: 50 }).stores([])[0];
    expect(silted.heldM3 / first.heldM3).toBeCloseTo(0.5, 6);
  });
  it('feed from what lies between them, their own ground left out', () => {
    expect(runOnM2(ONE, rows(ONE))).toBeCloseTo(10 * 5 - 2 * Math.PI, 0);
    expect(runOnM2({ ...ONE, rows: [line(50)] }, rows({ ...ONE, rows: [line(50)] }))).toBeNull();
  });
});

describe('what they take', () => {
  it('earth, days and manure, one by one and in all', () => {
    const { count, earthM3, dugM3, manureT, personDays } = partsOf(ONE, rows(ONE));
    expect(count).toBe(23);
    expect(earthM3 / (23 * earthOf(ONE, { slope: 0.04 }))).toBeCloseTo(1, 2);
    expect(dugM3).toBeCloseTo(23 * 2 * Math.PI * 0.2, 6);
    expect(manureT).toBeCloseTo(0.69, 9);
    expect(personDays).toBeCloseTo(Math.max(earthM3, dugM3) / 1.5, 9);
    const pits = partsOf(PITS, rows(PITS));
    expect(pits.earthM3 / pits.count).toBeCloseTo(Math.PI * 0.15 ** 2 * 0.18, 9);
  });
  it('lists what each form takes, and builds pits as pits', () => {
    const items = (work: HalfMoons) =>
      place(work)
        .quantities(factsOf(SITE))
        .map((q) => q.item);
    expect(items(ONE)).toEqual(['basin', 'cut', 'bank', 'stone', 'manure']);
    expect(items(withAt(withAt(ONE, 'tips', 'earth'), 'inputs.fertiliserG', 50))).toEqual(['basin', 'cut', 'bank', 'manure', 'fertiliser']);
    expect(items(PITS)).toEqual(['basin', 'cut', 'manure']);
    expect(place(ONE).buildSteps().map((s) => s.id)).toEqual(['peg', 'swing', 'crust', 'bund', 'tips', 'feed', 'plant', 'rest', 'after']); // prettier-ignore
    expect(place(PITS).buildSteps().map((s) => s.id)).toEqual(['peg', 'dig', 'feed', 'sow', 'rest', 'after']); // prettier-ignore
    expect(words(place(ONE).buildSteps()[1].does)).toContain('From a peg each 5.00 m swing a radius of 2.00 m');
  });
  it('pegs the ends of every row at the level of its tips, and draws one to scale', () => {
    const pegs = place(ONE).pegs(5, null);
    expect(pegs).toHaveLength(4);
    for (const p of pegs) expect(p.levelM).toBeCloseTo(levelAt(GRID, [p.x, p.y]), 2);
    for (const work of [ONE, PITS, { ...ONE, siltedPercent: 40 }]) {
      const { parts, levels } = place(work).section!(102.05);
      for (const { points } of parts) for (const [x, y] of points) expect(Number.isFinite(x + y)).toBe(true);
      expect(levels[levels.length - 1].name).toBe('floor');
    }
  });
  it('tells figures with the working of one', () => {
    const sheet = new Worksheet('moons');
    const fed = { ...ONE, crop: { needMm: 475, rainMm: 250, runoffShare: 0.25, usedShare: 0.5 } };
    const figures = new Map(
      place(fed)
        .figures(factsOf(SITE), sheet)
        .map((f) => [f.id, f.value]),
    );
    expect(figures.get('count')).toBe(23);
    expect(figures.get('ratioNeeded')).toBeCloseTo(7.2, 9);
    expect(figures.get('litresEach')).toBeCloseTo(1000 * MOON_ROOM.evaluate({ r: 2, S: 0.04, d: 0.2 }), -1);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['half-moons.room', 'half-moons.earth', 'half-moons.run-on']);
    const unsaid = new Map(
      place(ONE)
        .figures(factsOf(SITE), new Worksheet('m'))
        .map((f) => [f.id, f.value]),
    );
    expect(unsaid.get('ratioNeeded')).toBeNull();
    const pits = new Worksheet('pits');
    place(PITS).figures(factsOf(SITE), pits);
    expect(pits.lines.map((l) => l.formula)).toEqual(['half-moons.pit-room']);
  });
});

describe('from a drawing', () => {
  const land = { grid: GRID, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };
  const FIELD: Line = [[20, 20], [80, 20], [80, 80], [20, 80]]; // prettier-ignore
  it.each([
    ['half-moons', 'half-moon'],
    ['pits', 'pit'],
  ] as const)('%s fill a field in rows along its contours', (how, form) => {
    const begun = halfMoons.begin({ how, points: FIELD, host: null }, land);
    if (!begun.ok) throw new Error('refused');
    const [work] = begun.works as unknown as readonly [HalfMoons];
    expect(halfMoons.validate(work)).toEqual([]);
    expect(work.form).toBe(form);
    const all = rows(work);
    const each = runOnM2(work, all)!;
    if (form === 'pit') expect(each).toBeCloseTo(1 - Math.PI * 0.0225, 1);
    else expect(each / (2 * Math.PI)).toBeCloseTo(3, 0);
    for (const { ground } of all) expect(Math.max(...ground.groundM) - Math.min(...ground.groundM)).toBeLessThan(0.05);
    expect(words(begun.said)).toMatch(/^[\d ]+ in \d+ rows, /);
    expect(work.crop).not.toHaveProperty('needMm');
  });
  it('is refused on flat and on steep ground', () => {
    const on = (slope: number) => {
      const begun = halfMoons.begin(
        { how: 'half-moons', points: FIELD, host: null },
        { ...land, grid: gridOf((_x, y) => 100 + slope * y, { cells: 201, cellM: 0.5 }) },
      );
      return begun.ok ? 'begun' : begun.problem.code;
    };
    expect([on(0), on(0.14), on(0.2)]).toEqual(['half-moons.none', 'begun', 'half-moons.steep']);
  });
});

describe('what is refused', () => {
  it.each([
    ['rows', [], 'rows'],
    ['rows', [[[0, 0]]], 'rows.0'],
    ['form', 'moon', 'form'],
    ['tips', 'gold', 'tips'],
    ['dimensions.radiusM', 31, 'dimensions.radiusM'],
    ['dimensions.radiusM', 30, 'dimensions.radiusM'],
    ['crop.runoffShare', 0, 'crop.runoffShare'],
    ['breaches', 4, 'breaches'],
    ['breaches', [{ row: 1, number: 13 }], 'breaches.0'],
    ['breaches', [{ row: 3, number: 1 }], 'breaches.0'],
    ['breaches', [{ row: 1, number: 1.5 }], 'breaches.0.number'],
    ['breaches', [{ row: 0, number: 1 }], 'breaches.0.row'],
  ])('%s of %j is told at %s', (path, value, field) => {
    const short = path === 'dimensions.radiusM' && value === 30 ? { ...ONE, rows: [[[0, 0], [50, 0]]] as readonly Line[] } : ONE; // prettier-ignore
    expect(halfMoons.validate(ONE)).toEqual([]);
    expect(halfMoons.validate(withAt(short, path, value)).map((p) => p.field)).toContain(field);
  });
  it('more basins than anybody digs', () => {
    const many = withAt(
      withAt(
        PITS,
        'rows',
        Array.from({ length: 400 }, (_, k) => line(k / 10)),
      ),
      'dimensions.gapM',
      0.1,
    );
    expect(halfMoons.validate(many).map((p) => p.field)).toEqual(['dimensions.radiusM']);
    expect(pitchOf(many)).toBeCloseTo(0.4, 9);
  });
});

describe('what a field of rows passes on', () => {
  it('is all that leaves any row or runs past one, at its worst: a short lowest row lets out less than that', () => {
    const row = (y: number, right: number): Line => [[60, y], [right, y]]; // prettier-ignore
    const work = newMoons('moons', 'Moons', { ...FIRST['half-moons'], rows: [row(110, 120), row(100, 75)] });
    const { derived: d } = derived(planeProject({}, [work]));
    const own = d.stores.map((s) => s.id);
    expect(own).toEqual(['moons', 'moons:2']);
    const out = d.links.filter((l) => own.includes(l.from) && !own.includes(l.to));
    const passed = out.reduce((sum, l) => sum + l.mostM3s!, 0);
    expect(passed).toBeGreaterThan(1.5 * d.stores[1].worst.peakOutM3s.value);
    expect(d.verdicts.works).toContain(`Moons, 2 rows, pass on at most ${formatQuantity(passed, 'flow', 'metric')}.`);
    // No way is told to run less at its worst than in the storm that is shown, and none of them is left out.
    for (const l of d.links) expect(l.mostM3s!).toBeGreaterThanOrEqual(l.peakM3s!);
  });
});
