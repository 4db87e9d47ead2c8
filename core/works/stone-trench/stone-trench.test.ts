import { describe, expect, it } from '@jest/globals';
import { begunBy, expectFields, HOST, hostOf, NO_TRAITS, onHost, SITE, wrong } from '../../testing/guests.ts';
import { factsOf, linkOf, soilOf, siteOf, testSides, withAt, words } from '../../testing/rules.ts';
import { TRENCH } from '../../testing/valley.ts';
import { stoneStands } from '../exit.ts';
import { placeOnHost } from '../on-host.ts';
import { judgeBy } from '../rules.ts';
import { TRENCH_RULES, type StoneTrench, stoneTrench, trenchLaw } from './index.ts';

type Facts = Parameters<(typeof TRENCH_RULES)[number]['find']>[0];
const ONE: StoneTrench = { ...TRENCH, atM: 100, levels: { floorM: -0.2, sillM: 0, rockTopM: 0.3 } };

/** Flow through a metre of stone by Wilkins, stepped down a falling water line: no closed form. */
function wilkins(headM: number, lengthM: number, stoneM: number): number {
  const m = ((0.4 / 0.6) * stoneM) / 9;
  const at = (q: number): number => {
    let h = headM;
    const n = 20000;
    for (let k = 0; k < n && h > 0; k++) h -= ((q / (0.4 * 5.243 * Math.sqrt(m) * h)) ** (1 / 0.54) * lengthM) / n;
    return h;
  };
  let [lo, hi] = [0, 5];
  for (let k = 0; k < 50; k++) {
    const mid = (lo + hi) / 2;
    if (at(mid) > 0.001) lo = mid;
    else hi = mid;
  }
  return lo;
}

describe('a stone-filled trench', () => {
  const { placed, figure, formulas } = onHost(stoneTrench, ONE);
  const law = trenchLaw(ONE);
  it('seeps by Wilkins through its stone, stepped down the water line', () => {
    expect(law(0.3) / (2 * wilkins(0.3, 8, 0.15))).toBeCloseTo(1, 1);
    expect(law(0.15) / (2 * wilkins(0.15, 8, 0.15))).toBeCloseTo(1, 1);
    expect([law(0), law(-1)]).toEqual([0, 0]);
  });
  it('above its stone runs over it as over a sill; more head never passes less, larger stone and a shorter way pass more', () => {
    expect(law(0.5) - law(0.3)).toBeCloseTo(1.5 * 2 * 0.2 ** 1.5, 1);
    let before = 0;
    for (let H = 0.02; H < 1.5; H += 0.02) {
      expect(law(H)).toBeGreaterThan(before);
      before = law(H);
    }
    expect(trenchLaw(withAt(ONE, 'dimensions.stoneM', 0.3))(0.2)).toBeGreaterThan(law(0.2));
    expect(trenchLaw(withAt(ONE, 'dimensions.lengthM', 4))(0.2)).toBeGreaterThan(law(0.2));
    expect(trenchLaw(withAt(ONE, 'dimensions.widthM', 4))(0.2)).toBeCloseTo(2 * law(0.2), 6);
    // Stone no higher than the lip lets nothing through: it is a sill.
    expect(trenchLaw(withAt(ONE, 'levels.rockTopM', -0.1))(0.2)).toBeCloseTo(1.5 * 2 * 0.2 ** 1.5, 2);
  });
  it('is a way out over its stone’s width, pegged at lip and top, drawn along the flow', () => {
    expect(placed.outlets).toMatchObject([
      { id: 'trench', kind: 'rated', levelM: 0, dischargeAt: [132, 91], exit: { shape: 'sheet', widthM: 2 } },
    ]);
    expect(placed.outlets[0].flowAt(0.2)).toBe(law(0.2));
    expect(placed.pegs(5, null).map((p) => [p.name, p.x, p.y, p.levelM])).toEqual([
      ['spill lip', 132, 101, 0],
      ['top of stone', 132, 101, 0.3],
    ]);
    expect(placed.marks.map((m) => [m.role, m.levelM, m.path])).toEqual([
      ['floor', 0.3, 'levels.rockTopM'],
      ['sill', 0, 'levels.sillM'],
      ['floor', -0.2, 'levels.floorM'],
    ]);
    const shape = placed.section?.(null);
    expect(shape?.parts[0].points).toEqual([
      [0, 0],
      [8, -0.2],
      [8, expect.closeTo(0.1, 9)],
      [0, 0.3],
    ]);
    expect(shape?.parts[1].points[2]).toEqual([8, expect.closeTo(-0.8, 4)]);
    expect(shape?.levels.map((l) => l.levelM)).toEqual([0.3, 0, -0.2]);
    expect(onHost(stoneTrench, ONE, null).placed.section?.(null).parts).toHaveLength(1);
    expect(onHost(stoneTrench, ONE, null).placed.outlets).toEqual([]);
    expect([placed.host, placed.stores([])]).toEqual([null, []]);
  });
  it('tells its stone and what seeps before it runs over', () => {
    expect(figure('throughM3s')).toBeCloseTo(law(0.3), 2);
    // Two wide, eight long, from half way between floor and lip to its top.
    expect(figure('stoneM3')).toBeCloseTo(2 * 8 * 0.4, 9);
    expect(onHost(stoneTrench, withAt(ONE, 'levels.rockTopM', -5)).figure('stoneM3')).toBe(0);
    expect(formulas()).toEqual(['hydraulics.void-radius', 'hydraulics.rock-seepage']);
  });
  it('is refused with fields out of range or without a host', () => {
    expectFields(stoneTrench, ONE);
    expect(wrong(stoneTrench, { ...ONE, host: '' })).toEqual(['work.host@host']);
    expect([hostOf(stoneTrench, ONE), stoneTrench.footprint(ONE), stoneTrench.intakes(ONE)]).toEqual(['pond', [], []]);
    const key = (change: Partial<StoneTrench>): string => JSON.stringify(stoneTrench.groundKey({ ...ONE, ...change }));
    expect(key({ levels: { ...ONE.levels, sillM: 9 } })).toBe(key({}));
    for (const change of [{ atM: 3 }, { host: 'x' }, { dimensions: { ...ONE.dimensions, lengthM: 3 } }])
      expect(key(change)).not.toBe(key({}));
  });
});

describe('rules on stone trenches', () => {
  const place = placeOnHost(100, SITE, { host: HOST, lengthM: 8 });
  const [outlet] = onHost(stoneTrench, ONE).placed.outlets;
  const facts = (change: Partial<Facts> = {}, trench: StoneTrench = ONE): Facts => ({
    ...factsOf(siteOf(SITE.grid, { soilAt: () => soilOf({ cover: 'pasture-good' }) }), { links: [linkOf('trench', 0)] }),
    trench,
    place,
    outlet,
    ...change,
  });
  /** The peak at which water over the stone runs at a velocity on the slope below: Manning's sheet turned round. */
  const running = (velocity: number): Facts => {
    const n = 0.15 ** (1 / 6) / 21.1;
    const slope = place.slopeBelow ?? NaN;
    const over = 2 * (velocity ** (1 / 0.6) / (Math.sqrt(slope) / n)) ** 1.5;
    return facts({ links: [linkOf('trench', trenchLaw(ONE)(0.3) + over)] });
  };
  const limit = stoneStands(0.15);
  testSides<Facts>(TRENCH_RULES, {
    'stone-trench.levels': {
      at: (v) => facts({}, { ...ONE, levels: { floorM: -v, sillM: 0, rockTopM: 0.5 } }),
      limit: 0.1,
      judged: [
        [-0.001, 'mend', /100 mm or more/],
        [0, 'weigh'],
        [0.0999, 'weigh'],
        [0.1, 'fine'],
      ],
    },
    'stone-trench.fall': {
      at: (v) => facts({}, withAt(ONE, 'levels.floorM', -8 * v)),
      limit: 0.01,
      judged: [
        [-0.01, 'mend', /deeper/],
        [0, 'mend'],
        [0.0099, 'weigh', /deeper/],
        [0.01, 'fine'],
      ],
    },
    'stone-trench.stone': {
      at: running,
      limit,
      judged: [
        [0.999 * limit, 'fine'],
        [1.001 * limit, 'mend', /larger stone/],
      ],
      silent: [facts({ links: [] })],
    },
    'stone-trench.exit-velocity': { at: () => facts(), found: () => 0, judged: [[0, 'fine']], silent: [facts({ links: [] })] },
    'stone-trench.on-fill': {
      at: (v) => facts({ outlet: { ...outlet, levelM: v } }),
      limit: 0,
      judged: [
        [0.03, 'fine'],
        [0.0301, 'weigh'],
        [0.1501, 'mend'],
      ],
    },
  });
  const find = (id: string, on: Facts) =>
    judgeBy(
      TRENCH_RULES.find((r) => r.id === id)!,
      on,
    );
  it('its stone may be what stands too little above the lip', () => {
    expect(find('stone-trench.levels', facts({}, { ...ONE, levels: { floorM: -1, sillM: 0, rockTopM: 0.05 } }))?.value).toBeCloseTo(
      0.05,
      12,
    );
  });
  it('must meet falling ground', () => {
    for (const change of [{ slopeBelow: 0 }, { slopeBelow: null }, { groundM: null }]) {
      const found = find('stone-trench.fall', facts({ place: { ...place, ...change } }));
      expect(found?.severity).toBe('weigh');
      expect(words(found?.do)).toMatch(/meets the day/);
    }
  });
  it('judges no stone on ground nobody knows, and none that nothing runs over', () => {
    expect(find('stone-trench.stone', facts({ place: { ...place, slopeBelow: null } }))).toMatchObject({
      severity: 'unknown',
      value: null,
    });
    expect(find('stone-trench.stone', facts())).toMatchObject({ value: 0, severity: 'fine' });
    const flat = find('stone-trench.stone', { ...running(1), place: { ...place, slopeBelow: 0 } });
    const tilted = find('stone-trench.stone', { ...running(1), place: { ...place, slopeBelow: 0.01 } });
    expect(flat?.value).toBe(tilted?.value);
    expect(find('stone-trench.stone', facts({ links: [{ ...linkOf('trench', 0), peakM3s: null }] }))).toBeNull();
  });
});

describe('a stone trench to begin with', () => {
  it('lets its host out through its stone, and goes with it', () => {
    expect(stoneTrench.traits(ONE)).toEqual({ ...NO_TRAITS, canBlock: true, isCut: true, wayOut: 'through' });
    expect(stoneTrench.refs(ONE)).toEqual([{ role: 'host', id: ONE.host, path: 'host', whenGone: 'goes' }]);
    expect([stoneTrench.draws.map((d) => [d.id, d.what, d.least, d.most]), stoneTrench.family]).toEqual([
      [['stone-trench', 'on-host', 0, 1]],
      'way-out',
    ]);
  });
  it('is one of common practice, at its place and its level', () => {
    // 0.6 m under the crest of 0.35 m.
    expect(begunBy(stoneTrench, { points: [[60, 90]], host: 'store' })).toEqual([{ id: 'stone-trench-1', kind: 'stone-trench', name: 'Stone-filled trench', status: 'planned', host: 'store', atM: 28, levels: { floorM: -0.55, sillM: -0.25, rockTopM: 0.05 }, dimensions: { widthM: 1.5, lengthM: 8, stoneM: 0.15 } }]); // prettier-ignore
    expect(begunBy(stoneTrench, { host: 'nobody' })).toBe('work.host');
    expect(stoneTrench.validate(stoneTrench.sample)).toEqual([]);
  });
});
