// The head of a gully: its drop, what falls there, how fast it moves and what is laid, worked by hand.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, withAt, words } from '../../testing/rules.ts';
import { HEAD_SAMPLE, newHead } from './create.ts';
import { BALE_FLOATS, CHUTE_STONE_GENTLE, CHUTE_STONE_STEEP, FALL_POWER, LOG_FLOATS, REACHES_IN, RETREAT } from './formulas.ts';
import { measureHead } from './ground.ts';
import { type Headcut, headcut } from './index.ts';
import { partsOf } from './making.ts';
import { paceOf } from './retreat.ts';
import { faceM, standingHead } from './standing.ts';

const GRID = gridOf((_x, y) => 100 + 0.02 * y - (y < 50 ? 2 : 0), { cells: 201, cellM: 0.5 });
const SITE = siteOf(GRID);
const LINE: Line = [
  [47, 50.5],
  [53, 50.5],
];
const GROUND = measureHead(LINE, SITE);
const ONE: Headcut = { ...HEAD_SAMPLE, line: LINE, above: 'healed', soil: 'firm', levels: { lipM: 101, footM: 99 } };
const place = (head: Headcut) => headcut.place(head, GROUND, null);
const land = { grid: GRID, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };

describe('the ground about a head', () => {
  it('finds lip, way down and foot, whichever way the lip was drawn', () => {
    for (const line of [LINE, [...LINE].reverse()]) {
      const { lipM, down, foot } = measureHead(line, SITE);
      expect(lipM).toBeCloseTo(101.01, 2);
      expect(down[1]).toBeCloseTo(-1, 9);
      expect(lipM - foot!.levelM).toBeGreaterThan(1.9);
      expect(foot!.awayM).toBeLessThan(2.1);
    }
  });
  it('begins from a lip drawn there, and is refused where nothing breaks off', () => {
    const begun = headcut.begin({ how: 'headcut', points: LINE, host: null }, land);
    if (!begun.ok) throw new Error('refused');
    const [one] = begun.works as unknown as readonly [Headcut];
    expect(headcut.validate(one)).toEqual([]);
    expect(one).toMatchObject({ form: 'left', above: 'unknown', soil: 'unknown' });
    expect(one.levels.lipM - one.levels.footM).toBeCloseTo(2, 1);
    const flat = headcut.begin({ how: 'headcut', points: [[47, 80], [53, 80]], host: null }, land); // prettier-ignore
    expect(flat).toMatchObject({ ok: false, problem: { code: 'headcut.no-drop' } });
    const off = headcut.begin({ how: 'headcut', points: [[47, 500], [53, 500]], host: null }, land); // prettier-ignore
    expect(off).toMatchObject({ ok: false, problem: { code: 'work.off-terrain' } });
  });
});

describe('laws of a head, by hand', () => {
  it('0.1 m2/s over 2 m is 1,962 W a metre', () => expect(FALL_POWER.evaluate({ q: 0.1, H: 2 })).toBeCloseTo(1962, 6));
  it('0.6 m in 180 mm of rain is 333 mm for 100; 30 m off it is there in 18 years of 500 mm', () => {
    const r = RETREAT.evaluate({ d: 0.6, R: 180 });
    expect(r).toBeCloseTo(333.33, 2);
    expect(REACHES_IN.evaluate({ D: 30, r, R: 500 })).toBeCloseTo(18, 9);
  });
  it('a dry log half under water is lifted as it weighs where it weighs half of water; a bale floats in a tenth of its height', () => {
    expect(LOG_FLOATS.evaluate({ y: 0.15, D: 0.3, w: 500, p: 0 })).toBeCloseTo(1, 9);
    expect(LOG_FLOATS.evaluate({ y: 9, D: 0.3, w: 600, p: 0 })).toBeCloseTo(1 / 0.6, 9);
    expect(BALE_FLOATS.evaluate({ y: 0.048, D: 0.4, w: 120, p: 0 })).toBeCloseTo(1, 9);
    // Staked by 40 kg a metre it takes 40 kg of water more: 0.1 m.
    expect(BALE_FLOATS.evaluate({ y: 0.148, D: 0.4, w: 120, p: 40 })).toBeCloseTo(1, 9);
  });
  it('a log is covered as a circle cut by chords is, summed in slices', () => {
    for (const y of [0.05, 0.12, 0.3]) {
      let area = 0;
      for (let k = 0; k < 20_000; k++) {
        const h = ((k + 0.5) * y) / 20_000;
        area += (2 * Math.sqrt(Math.max(0, 0.2 ** 2 - (0.2 - h) ** 2)) * y) / 20_000;
      }
      expect(LOG_FLOATS.evaluate({ y, D: 0.4, w: 1000, p: 0 })).toBeCloseTo(area / (Math.PI * 0.04), 4);
    }
  });
  it('stone of a chute: 0.2 m2/s at 5 and at 25 %, worked through logarithms', () => {
    expect(CHUTE_STONE_GENTLE.evaluate({ q: 0.2, S: 0.05 })).toBeCloseTo(Math.exp(Math.log((0.2 * 0.0111803) / 9.76e-7) / 1.89), 1);
    expect(CHUTE_STONE_STEEP.evaluate({ q: 0.2, S: 0.25 })).toBeCloseTo(Math.exp(Math.log((0.2 * 0.447513) / 8.07e-6) / 1.89), 1);
    expect(CHUTE_STONE_STEEP.evaluate({ q: 0.2, S: 0.25 })).toBeGreaterThan(130);
  });
});

describe('how it moves', () => {
  it('is told by the first and the last reading, and all rain between them', () => {
    const readings = [{ toLipM: 10, rainMm: 999 }, { toLipM: 9.8, rainMm: 80 }, { toLipM: 9.4, rainMm: 100 }]; // prettier-ignore
    expect(paceOf({ ...ONE, readings })).toMatchObject({ movedM: expect.closeTo(0.6, 9), rainMm: 180, reachesInYears: null });
    expect(paceOf({ ...ONE, readings: readings.slice(0, 1) })).toBeNull();
    expect(paceOf(ONE)).toBeNull();
  });
});

describe('a head among the works', () => {
  it('passes what comes, over its lip or its chute, and over its sides above that', () => {
    const [store] = place(ONE).stores([]);
    const lip = store.outlets[0];
    expect(store).toMatchObject({ floorM: 101, wayOutM: 101, heldM3: 0 });
    // The lip was drawn over level ground: nothing holds water beside it.
    expect(store.crestM).toBeCloseTo(101.01, 2);
    expect(lip.flowAt(101.1)).toBeCloseTo(1.5 * 6 * 0.1 ** 1.5, 9);
    const [chute] = place(withAt(ONE, 'form', 'rock')).stores([]);
    expect(chute.outlets[0].flowAt(101.1)).toBeCloseTo(1.5 * 3 * 0.1 ** 1.5, 9);
    expect(chute.outlets[0].exit).toMatchObject({ slope: 1 / 3, stoneM: 0.2 });
    expect(chute.outlets[1].levelM).toBe(101.4);
    // Water lands below the foot, down the gully.
    expect(lip.dischargeAt[1]).toBeLessThan(50);
  });
  it('says what it takes: a face of two metres laid back three to one, four wide at its middle, stone twice its size thick', () => {
    const rock = withAt(ONE, 'form', 'rock');
    const parts = partsOf(standingHead(rock, GROUND));
    expect(parts.earthM3).toBeCloseTo(((2 * 2 * 3) / 2) * (3 + 2 * 0.4), 6);
    const face = 2 * Math.sqrt(10) * (3 + 2 * 0.4 * Math.sqrt(5));
    expect(parts.faceM2).toBeCloseTo(face, 6);
    expect(parts.stoneM3).toBeCloseTo(face * 0.4 + 3 * 3 * 0.4, 6);
    expect(partsOf(standingHead(ONE, GROUND))).toMatchObject({ earthM3: 0, stoneM3: 0, hours: 0 });
  });
  it.each([
    ['left', ['peg'], ['above', 'mark', 'after']],
    ['batter', ['cut', 'seed'], ['above', 'mark', 'lead', 'cut', 'seed', 'fence', 'after']],
    ['rock', ['cut', 'stone', 'stone-weight', 'cloth'], ['above', 'mark', 'cut', 'cloth', 'foot', 'stone', 'lip', 'fence', 'after']],
    ['grass', ['cut', 'turf', 'stone', 'stone-weight'], ['above', 'mark', 'lead', 'cut', 'turf', 'apron', 'fence', 'after']],
    ['plug', ['bale', 'stake', 'stone', 'stone-weight'], ['above', 'mark', 'lay', 'stake', 'apron', 'after']],
  ] as const)('%s has its own quantities and steps, the ground above first', (form, items, steps) => {
    const one = place({ ...ONE, form });
    expect(one.quantities(factsOf(SITE)).map((q) => q.item)).toEqual(items);
    for (const q of one.quantities(factsOf(SITE))) expect(q.likely).toBeGreaterThan(0);
    expect(one.buildSteps().map((s) => s.id)).toEqual(steps);
    const { parts } = one.section!(101.1);
    expect(parts.map((p) => p.role)).toContain('water');
    for (const { points } of parts) for (const [x, y] of points) expect(Number.isFinite(x + y)).toBe(true);
  });
  it('below what is laid in stone is counted, carried, drawn and pegged where the water lands, over all its lip; none where none is laid', () => {
    const plug = withAt(ONE, 'form', 'plug');
    const bare = withAt(plug, 'dimensions.apronM', 0);
    const [with_, without] = [plug, bare].map((head) => partsOf(standingHead(head, GROUND)));
    // 6 m of lip, 3 m down, two stones of 0.2 m: 7.2 m3, laid at 2 m3 a day.
    expect([with_.stoneM3, without.stoneM3]).toEqual([expect.closeTo(7.2, 9), 0]);
    expect(with_.hours - without.hours).toBeGreaterThan((7.2 / 2) * 8 - 1e-9);
    const stoneIn = (head: Headcut) => place(head).section!(null).parts.filter(({ role }) => role === 'stone');
    const from = Number((faceM(standingHead(plug, GROUND)) + 0.4).toFixed(6));
    const [layer] = stoneIn(plug);
    const [xs, ys] = [layer.points.map(([x]) => x), layer.points.map(([, y]) => y)];
    expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map((v) => Number(v.toFixed(6)))).toEqual([
      from,
      from + 3,
      98.6,
      99,
    ]);
    const pegged = (head: Headcut) => place(head).pegs(5, null).find((p) => p.name === 'end of the apron'); // prettier-ignore
    const at = measureHead(LINE, SITE).at;
    expect(pegged(plug)).toMatchObject({ levelM: 99, y: expect.closeTo(at[1] - from - 3, 5) });
    const step = place(plug).buildSteps().find(({ id }) => id === 'apron'); // prettier-ignore
    expect(words(step?.does)).toMatch(/stone of 200 mm two thick, 3\.00 m down/);
    expect([
      stoneIn(bare),
      pegged(bare),
      place(bare)
        .buildSteps()
        .some(({ id }) => id === 'apron'),
    ]).toEqual([[], undefined, false]);
    expect(place(bare).quantities(factsOf(SITE)).map((q) => q.item)).toEqual(['bale', 'stake']); // prettier-ignore
  });
  it('logs are told by their length', () => {
    const logs = place({ ...ONE, form: 'plug', plug: 'log' }).quantities(factsOf(SITE));
    expect(logs[0]).toMatchObject({ item: 'log', likely: 3 * 6 });
    const steps = place({ ...ONE, form: 'plug', plug: 'log' }).buildSteps();
    expect(words(steps.find((s) => s.id === 'lay')?.does)).toMatch(/^Lay logs tight against the face/);
  });
  it.each([
    ['left', []],
    ['batter', ['earthM3', 'hours']],
    ['rock', ['earthM3', 'stoneM3', 'hours']],
    ['grass', ['earthM3', 'stoneM3', 'hours']],
    ['plug', ['stoneM3', 'hours']],
  ] as const)('%s tells of what it takes, and of nothing it does not', (form, ids) => {
    const figures = place({ ...ONE, form }).figures(factsOf(SITE), new Worksheet('head'));
    const taken = figures.filter(({ id }) => ['earthM3', 'stoneM3', 'hours'].includes(id));
    expect(taken.map(({ id }) => id)).toEqual(ids);
    for (const { value } of taken) expect(value).toBeGreaterThan(0);
  });
  it('pegs both ends, lip, foot, the end of an apron and a fixed mark uphill', () => {
    const pegs = place(withAt(ONE, 'form', 'rock')).pegs(5, null);
    expect(pegs.map((p) => p.name)).toEqual([
      'first end of the lip',
      'other end of the lip',
      'lip',
      'foot',
      'end of the apron',
      'fixed mark, uphill of the lip',
    ]);
    expect(pegs[2].y - pegs[3].y).toBeCloseTo(faceM(standingHead(withAt(ONE, 'form', 'rock'), GROUND)), 6);
    expect(pegs[5].y).toBeGreaterThan(50.5);
  });
  it('tells figures with their working, none of a storm that is not known', () => {
    const sheet = new Worksheet('head');
    const facts = factsOf(SITE, { storm: stormOf({ peakInM3s: 0.3 }), designPeakM3s: 0.6 });
    const figures = new Map(
      place(ONE)
        .figures(facts, sheet)
        .map((f) => [f.id, f.value]),
    );
    expect(figures.get('peakM3s')).toBe(0.6);
    expect(figures.get('powerW')).toBeCloseTo(1000 * 9.81 * 0.1 * 2, 6);
    expect(figures.get('scourMostM')).toBeGreaterThan(figures.get('scourLeastM')!);
    expect(sheet.lines.map((l) => l.formula)).toContain('gully.fall-power');
    const dry = place(ONE)
      .figures(factsOf(SITE), new Worksheet('head'))
      .map((f) => f.id);
    expect(dry).toEqual(['dropM', 'groundDropM']);
    expect(words(String(place(ONE).marks.map((m) => m.name)))).toBe('Lip,Foot');
  });
});

describe('what is refused', () => {
  it.each([
    ['form', 'glue', 'form'],
    ['above', 'none', 'above'],
    ['soil', '', 'soil'],
    ['levels.footM', 101.5, 'levels.footM'],
    ['dimensions.slopeHV', 0.1, 'dimensions.slopeHV'],
    ['threatM', -1, 'threatM'],
    ['readings', 7, 'readings'],
    [
      'readings',
      [
        { toLipM: 10, rainMm: 0 },
        { toLipM: 'near', rainMm: 0 },
      ],
      'readings.1.toLipM',
    ],
    ['readings', [null], 'readings.0.toLipM'],
  ])('%s of %j is told at %s', (path, value, field) => {
    const rock = withAt(ONE, 'form', 'rock');
    expect(headcut.validate(rock)).toEqual([]);
    expect(headcut.validate(withAt(rock, path, value)).map((p) => p.field)).toContain(field);
  });
  it('a new one says nothing it does not know', () => {
    const fresh = newHead('h', 'Head', { line: LINE, lipM: 101, footM: 99, widthM: 6 });
    expect(headcut.validate(fresh)).toEqual([]);
    expect(fresh).not.toHaveProperty('threatM');
  });
});
