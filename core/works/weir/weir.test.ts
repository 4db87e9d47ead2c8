// A weir across a gully: what it holds, passes, takes and says, worked by hand.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, withAt, words } from '../../testing/rules.ts';
import { valleyAt, WEIR } from '../../testing/valley.ts';
import { WEIR_SAMPLE } from './create.ts';
import { channelUnder, fallBelow } from './ground.ts';
import { type Weir, weir } from './index.ts';
import { partsOf } from './making.ts';
import { standingWeir } from './standing.ts';

const LINE: Line = [
  [44, 40.25],
  [56, 40.25],
];
const SITE = siteOf(gridOf((x, y) => 0.05 * y + Math.min(2.5, Math.max(0, Math.abs(x - 50) - 1.5)), { cells: 201, cellM: 0.5 }));
const ground = weir.measure({ ...WEIR_SAMPLE, line: LINE }, SITE, null);
const channel = channelUnder(ground.wall!);
const BED = channel.bedM;
const TIGHT: Weir = {
  ...WEIR_SAMPLE,
  line: LINE,
  face: 'sealed',
  levels: { notchM: BED + 1, crestM: BED + 1.4 },
  notchAtM: 6,
  dimensions: { ...WEIR_SAMPLE.dimensions, notchWidthM: 2, bedWidthM: 3, topWidthM: 1, baseWidthM: 1, rampUpHV: 0 },
};
const place = (work: Weir) => weir.place(work, ground, null);
const store = (work: Weir) => place(work).stores([])[0];

describe('the channel under a weir', () => {
  it('has its bed, its middle, its depth and its fall as the ground was made', () => {
    expect(BED).toBeCloseTo(0.05 * 40.25, 6);
    expect(channel.middleM).toBeCloseTo(6, 1);
    expect(Math.abs(channel.widthM - 3)).toBeLessThan(0.6);
    expect(channel.depthM).toBeCloseTo(2.5, 1);
    expect(fallBelow(ground.down)).toBeCloseTo(0.05, 2);
  });
  it('is followed round its bends, down and up, and is not known where the map ends', () => {
    // A bed that swings 6 m to both sides: straight on it would be read as its bank.
    const bent = gridOf((x, y) => 0.05 * y + Math.min(2.5, Math.max(0, Math.abs(x - 50 - 6 * Math.sin(y / 9)) - 1.5)), {
      cells: 201,
      cellM: 0.5,
    });
    const at = 50 + 6 * Math.sin(40 / 9);
    const one = weir.measure({ ...TIGHT, line: [[at - 6, 40], [at + 6, 40]] }, siteOf(bent), null); // prettier-ignore
    expect(fallBelow(one.down)).toBeLessThan(0.05);
    expect(fallBelow(one.down)).toBeGreaterThan(0.03);
    expect(Math.max(...one.up.levelM) - one.up.levelM[0]).toBeLessThan(2);
    const near = weir.measure({ ...TIGHT, line: [[44, 8], [56, 8]] }, SITE, null); // prettier-ignore
    expect(fallBelow(near.down)).toBeNull();
  });
});

describe('a weir as a store', () => {
  it('holds the wedge of its channel: b H²/2 and z H³/3 over the fall, less what its own body stands on', () => {
    // 3 m of bed and banks one to one, a metre high over a twentieth: (1.5 + 1/3) · 20 m, less 0.5 m of 4 m2 under half its body.
    const wedge = (1.5 + 1 / 3) * 20 - 0.5 * 4;
    expect(Math.abs(store(TIGHT).heldM3 / wedge - 1)).toBeLessThan(0.05);
    expect(store(TIGHT)).toMatchObject({ sillM: BED + 1, wayOutM: BED + 1, crestM: BED + 1.4 });
  });
  it('passes 1.65 L H^1.5 over its notch', () => {
    const notch = store(TIGHT).outlets.find((o) => o.role === 'way')!;
    expect(notch.flowAt(BED + 1.3)).toBeCloseTo(1.65 * 2 * 0.3 ** 1.5, 9);
    expect(notch.flowAt(BED + 1)).toBe(0);
  });
  it('silt takes its share of the room from the bed up', () => {
    const half = store(withAt(TIGHT, 'siltedPercent', 50));
    expect(half.heldM3 / store(TIGHT).heldM3).toBeCloseTo(0.5, 6);
    expect(half.floorM).toBeGreaterThan(BED + 0.5);
    expect(half.stage.volumeM3[0]).toBeCloseTo(0, 6);
  });
  it('open baskets let water through, the less the more silt lies there; masonry and sealed faces hold', () => {
    const through = (work: Weir) =>
      store(work)
        .outlets.find((o) => o.role === 'through')
        ?.flowAt(BED + 0.8) ?? null;
    const open = withAt(TIGHT, 'face', 'open');
    expect(through(TIGHT)).toBeNull();
    expect(through(withAt(open, 'form', 'masonry'))).toBeNull();
    expect(through(open)).toBeGreaterThan(0.01);
    // Silt stands to its level and closes as much of what is above: nothing comes from under it, less from over it.
    const silted = store(withAt(open, 'siltedPercent', 60));
    const part = silted.outlets.find((o) => o.role === 'through')!;
    expect([part.levelM, part.flowAt(silted.floorM)]).toEqual([silted.floorM, 0]);
    expect(part.flowAt(BED + 1)).toBeGreaterThan(0);
    expect(part.flowAt(BED + 1)).toBeLessThan(
      0.4 *
        store(open)
          .outlets.find((o) => o.role === 'through')!
          .flowAt(BED + 1),
    );
    expect(through(withAt(open, 'siltedPercent', 100))).toBeNull();
    expect(store(open)).toMatchObject({ heldM3: 0, wayOutM: BED });
  });
  it('one water has found a way past holds nothing', () => {
    for (const found of ['flanked', 'undermined', 'burst'] as const) {
      const one = store(withAt(TIGHT, 'found', found));
      expect(one).toMatchObject({ heldM3: 0 });
      expect(one.outlets[0].flowAt(one.outlets[0].levelM + 1)).toBeCloseTo(1.65, 9);
    }
  });
  it('ends above the banks let water round, where the ground is lowest', () => {
    const tall = store(withAt(TIGHT, 'levels.crestM', BED + 2.8));
    const round = tall.outlets.find((o) => o.role === 'round')!;
    expect(round.levelM).toBeCloseTo(BED + 2.5, 1);
    expect(tall.crestM).toBe(round.levelM);
    expect(store(TIGHT).outlets.some((o) => o.role === 'round')).toBe(false);
  });
});

describe('what a weir takes', () => {
  // Upright, a metre thick: 2 m of notch 1.5 m high with its base, the rest of its line up to its ends.
  it('is the face of its channel times its thickness', () => {
    const { bodyM3, keysM3, apronM3, fillM3 } = partsOf(standingWeir(TIGHT, ground));
    // Heights over the ground: notch 1, 1 m of bed beside it 1.4, banks from 1.4 to nothing on both sides; base half a metre under all.
    const face = 2 * 1.5 + 1 * 1.9 + 2 * (1.4 * 0.5 + 1.4 ** 2 / 2);
    expect(Math.abs(bodyM3 / face - 1)).toBeLessThan(0.06);
    expect(keysM3).toBeCloseTo(2 * 1 * 1 * (0.4 + 0.5), 1);
    expect(apronM3).toBeCloseTo(4 * 3 * 0.3, 6);
    expect(fillM3).toBe(0);
    const ramp = partsOf(standingWeir(withAt(TIGHT, 'dimensions.rampUpHV', 3), ground)).fillM3;
    expect(Math.abs(ramp / ((3 * (2 * 1 + 1 * 1.4 ** 2 + (2 * 1.4 ** 3) / 3)) / 2) - 1)).toBeLessThan(0.06);
  });
  it('lists baskets, stone, digging, fill and cloth; masonry no baskets; steps from consent to the first flood', () => {
    const items = (work: Weir) =>
      place(work)
        .quantities(factsOf(SITE))
        .map((q) => q.item);
    expect(items(TIGHT)).toEqual(['stone', 'stone-weight', 'basket', 'cut', 'fill', 'cloth']);
    expect(items(withAt(TIGHT, 'form', 'masonry'))).toContain('masonry');
    const steps = place(TIGHT).buildSteps();
    expect(steps.map((s) => s.id)).toEqual(['leave', 'peg', 'dig', 'bed', 'apron', 'body', 'notch', 'fill', 'after']);
    expect(words(steps[2].does)).toContain('0.50 m under the bed');
    expect(words(place(withAt(TIGHT, 'dimensions.rampUpHV', 3)).buildSteps()[7].does)).toContain('upper face');
  });
  it('pegs both sides of the notch, both ends and the end of the apron down the channel', () => {
    const pegs = place(TIGHT).pegs(5, null);
    expect(pegs.map((p) => p.role)).toEqual(['sill', 'sill', 'crest', 'crest', 'stone']);
    expect([pegs[0].x, pegs[1].x]).toEqual([49, 51]);
    expect(pegs[4].y).toBeLessThan(40.25 - 4);
    expect(pegs[4].levelM).toBeCloseTo(BED - 0.2, 9);
  });
  it('draws base, notch and apron to scale, the fall to the right', () => {
    const { parts, levels } = place(TIGHT).section!(BED + 1.2);
    const body = parts.filter((p) => p.role === 'stone')[1].points;
    expect(Math.min(...body.map((p) => p[1]))).toBeCloseTo(BED - 0.5, 6);
    expect(Math.max(...body.map((p) => p[1]))).toBeCloseTo(BED + 1, 6);
    const apron = parts.filter((p) => p.role === 'stone')[0].points;
    expect(Math.max(...apron.map((p) => p[0]))).toBeCloseTo(0.5 + 4, 6);
    const grounds = parts.find((p) => p.role === 'ground')!.points;
    expect(grounds[0][1]).toBeGreaterThan(grounds[grounds.length - 1][1]);
    expect(levels.map((l) => l.name)).toEqual(['ends', 'notch', 'water', 'bed', 'base']);
  });
});

describe('figures of a weir', () => {
  it('tell what a peak asks for, with the working written down, and nothing without a storm', () => {
    const sheet = new Worksheet('weir');
    const proved = withAt(withAt(TIGHT, 'ground', 'gravel'), 'dimensions.baseWidthM', 2.5);
    const facts = factsOf(SITE, { storm: stormOf({ peakInM3s: 0.6, peakLevelM: BED + 1.2 }), designPeakM3s: 0.8 });
    const figures = new Map(
      place(proved)
        .figures(facts, sheet)
        .map((f) => [f.id, f.value]),
    );
    expect(figures.get('headM')).toBeCloseTo((0.8 / 1.65 / 2) ** (2 / 3), 9);
    expect(figures.get('notchNeededM')).toBeCloseTo(0.8 / 1.65 / 0.4 ** 1.5, 1);
    expect(figures.get('overturning')).toBeGreaterThan(0.5);
    expect(sheet.lines.map((l) => l.formula)).toEqual(
      expect.arrayContaining(['hydraulics.drop-length', 'gravity.overturning', 'hydraulics.scour-veronese']),
    );
    expect(
      place(proved)
        .figures(factsOf(SITE), new Worksheet('weir'))
        .some((f) => f.id === 'headM'),
    ).toBe(false);
  });
});

describe('what is refused', () => {
  const problems = (path: string, value: unknown, of: Weir = WEIR) => weir.validate(withAt(of, path, value)).map((p) => p.field);
  it.each([
    ['form', 'straw', 'form'],
    ['ground', 'cheese', 'ground'],
    ['channel', 'guessed', 'channel'],
    ['levels.notchM', 103, 'levels.notchM'],
    ['dimensions.notchWidthM', 1.6, 'dimensions.notchWidthM'],
    ['dimensions.topWidthM', 2.6, 'dimensions.baseWidthM'],
    ['notchAtM', 0.2, 'notchAtM'],
    ['siltedPercent', 101, 'siltedPercent'],
    ['labour.m3PerDay', 0, 'labour.m3PerDay'],
  ])('%s of %s is told at %s', (path, value, field) => {
    expect(weir.validate(WEIR)).toEqual([]);
    expect(problems(path, value)).toEqual([field]);
  });
});

describe('a weir from a drawing', () => {
  const land = { grid: gridOf(valleyAt, { cells: 101, cellM: 2 }), stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };
  it('stands a metre over the bed, its notch in the middle, its ends under the banks', () => {
    const begun = weir.begin({ how: 'weir', points: [[90, 24], [112, 24]], host: null }, land); // prettier-ignore
    if (!begun.ok) throw new Error(JSON.stringify(begun.problem));
    const [one] = begun.works as unknown as readonly Weir[];
    expect(weir.validate(one)).toEqual([]);
    expect(one.levels.crestM - one.levels.notchM).toBeCloseTo(0.3, 6);
    expect(one.levels.notchM).toBeCloseTo(channelUnder(weir.measure(one, { grid: land.grid }, null).wall!).bedM + 1, 3);
    expect(Math.abs(one.notchAtM - 11)).toBeLessThan(1);
    expect(one).toMatchObject({ ground: 'unknown', status: 'planned' });
  });
  it('is refused on ground that is no channel', () => {
    const begun = weir.begin({ how: 'weir', points: [[40, 60], [40, 100]], host: null }, land); // prettier-ignore
    expect(begun).toMatchObject({ ok: false, problem: { code: 'weir.no-channel' } });
  });
});
