import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { WorkBase } from '../../contract/index.ts';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { criticalDepth, normalDepth, trapezoid, uniformFlow } from '../../hydraulics/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { NO_TRAITS, begunBy, expectFields, landOf, wrong } from '../../testing/guests.ts';
import { derived } from '../../testing/projects.ts';
import { factsOf, siteOf, stormOf, words } from '../../testing/rules.ts';
import { DAMS, valleyProject } from '../../testing/valley.ts';
import { bedIn, measureBed } from '../bed.ts';
import { type CheckDams, type Dam, registry } from '../index.ts';
import { CONVEYANCE, SECTION_CARRIES, SECTION_SPEED } from './formulas.ts';
import { type Reach, type ReachSection, newReach, reach, sectionsFromRows } from './index.ts';
import { atPeak, carriesOf, channelFor, channelOf, profileOf, standingReach } from './standing.ts';
import { storesOf } from './store.ts';

/** A gully that falls a tenth to the south: a bed a metre wide, sides of one to one, a metre and a half deep. */
const GULLY = siteOf(gridOf((x, y) => 0.1 * y + Math.min(1.5, Math.max(0, Math.abs(x - 50) - 0.5)), { cells: 201, cellM: 0.5 }));
const LINE: Line = [[50, 90], [50, 30]]; // prettier-ignore
const section = (atM: number, bedM: number, change: Partial<ReachSection> = {}): ReachSection => ({ atM, bedM, bedWidthM: 1, leftOutM: 1.5, leftHighM: 1.5, rightOutM: 1.5, rightHighM: 1.5, ...change }); // prettier-ignore
/** Sections so far apart with beds so high. */
const along = (beds: readonly number[], apartM = 20, change: Partial<Reach> = {}): Reach => ({
  ...newReach('reach', 'Gully', { line: LINE, runs: 'gully', sections: beds.map((bedM, k) => section(k * apartM, bedM)) }),
  rough: 'pools',
  ...change,
});
const ground = measureBed(LINE, GULLY);
const standing = (work: Reach) => standingReach(work, ground);
const EVEN = along([9, 8.8, 8.6, 8.4]);

describe('a section', () => {
  it('is a bed and two banks: alike on both sides it is the trapezoid', () => {
    const [own, both] = [channelOf(section(0, 9)), trapezoid(1, 1)];
    for (const y of [0.1, 0.7, 2]) {
      expect(own.area(y)).toBeCloseTo(both.area(y), 12);
      expect(own.perimeter(y)).toBeCloseTo(both.perimeter(y), 12);
      expect(own.topWidth(y)).toBeCloseTo(both.topWidth(y), 12);
    }
  });
  it('with unlike banks is what a fine sum of strips has', () => {
    const own = channelOf(section(0, 9, { leftOutM: 3, leftHighM: 1, rightOutM: 0.2, rightHighM: 2 }));
    const y = 0.8;
    let [area, wetted] = [1 * y, 1];
    for (let h = 0; h < y; h += 0.0001) {
      area += 0.0001 * (3 + 0.1) * (h + 0.00005);
      wetted += 0.0001 * (Math.sqrt(10) + Math.sqrt(1.01));
    }
    expect(own.area(y)).toBeCloseTo(area, 3);
    expect(own.perimeter(y)).toBeCloseTo(wetted, 3);
  });
  it('carries, is crossed and is run through by the formulas as the reckoning has it', () => {
    const of = { b: 1, zl: 3, zr: 0.1, y: 0.8 };
    const own = channelOf(section(0, 9, { leftOutM: 3, leftHighM: 1, rightOutM: 0.2, rightHighM: 2 }));
    expect(SECTION_CARRIES.evaluate({ ...of, S: 0.02, n: 0.04 })).toBeCloseTo(uniformFlow(own, { slope: 0.02, n: 0.04 }, 0.8), 9);
    // By hand: A = 0.8 + 3.1·0.32 = 1.792, P = 1 + 0.8·(3.1623 + 1.0050) = 4.3338, K = 1.792·(0.41349)^(2/3)/0.04.
    expect(CONVEYANCE.evaluate({ ...of, n: 0.04 })).toBeCloseTo((1.792 * (1.792 / 4.33381) ** (2 / 3)) / 0.04, 3);
    expect(SECTION_SPEED.evaluate({ ...of, Q: 3.584 })).toBeCloseTo(2, 9);
  });
});

/** Depth up a channel by the law of gradually varied flow, in steps of a millimetre: dy/dx = (S0 − Sf)/(1 − Fr²), Runge-Kutta. */
function upstream(of: { readonly b: number; readonly z: number; readonly S: number; readonly n: number }, Q: number, on: { readonly lowerM: number; readonly lengthM: number }): number {
  const rate = (y: number): number => {
    const A = (of.b + of.z * y) * y;
    const P = of.b + 2 * y * Math.sqrt(1 + of.z ** 2);
    const Sf = (Q * of.n) ** 2 / (A ** 2 * (A / P) ** (4 / 3));
    const Fr2 = (Q ** 2 * (of.b + 2 * of.z * y)) / (9.80665 * A ** 3);
    return (of.S - Sf) / (1 - Fr2);
  };
  const dx = -0.01;
  let y = on.lowerM;
  for (let x = 0; x < on.lengthM - 1e-9; x -= dx) {
    const k1 = rate(y);
    const k2 = rate(y + (dx * k1) / 2);
    const k3 = rate(y + (dx * k2) / 2);
    y += (dx * (k1 + 2 * k2 + 2 * k3 + rate(y + dx * k3))) / 6;
  }
  return y;
} // prettier-ignore

describe('the water line', () => {
  it('on an even bed of one section is as deep as an even flow, everywhere', () => {
    for (const q of [0.05, 0.5, 2]) {
      const even = normalDepth(trapezoid(1, 1), { slope: 0.01, n: 0.04 }, q);
      for (const y of profileOf(standing(EVEN), () => q).depthsM) expect(y).toBeCloseTo(even, 4);
    }
  });
  it('above a flatter stretch stands higher, as the law of gradually varied flow has it', () => {
    const flat = standing(along([8.85, 8.45, 8.05, 8.03]));
    const q = 0.6;
    const { depthsM } = profileOf(flat, () => q);
    const lowerM = normalDepth(trapezoid(1, 1), { slope: 0.001, n: 0.04 }, q);
    expect(depthsM[3]).toBeCloseTo(lowerM, 6);
    expect(depthsM[2]).toBeCloseTo(lowerM, 4);
    // Twelve steps against two thousand: within a centimetre, and drawn up over even flow.
    const even = normalDepth(trapezoid(1, 1), { slope: 0.02, n: 0.04 }, q);
    expect(Math.abs(depthsM[1] - upstream({ b: 1, z: 1, S: 0.02, n: 0.04 }, q, { lowerM, lengthM: 20 }))).toBeLessThan(0.01);
    expect(depthsM[1]).toBeGreaterThan(even - 1e-6);
  });
  it('stands behind a hump with no water coming, and where it shoots runs no shallower than critical', () => {
    const { depthsM, meansM } = profileOf(standing(along([8.5, 8, 8.3, 7.9])), () => 0);
    expect(depthsM).toEqual([0, expect.closeTo(0.3, 9), 0, 0]);
    expect(meansM[1]).toBeCloseTo(0.15, 9);
    const steep = standing(along([9, 7, 5, 3], 20, { rough: 'earth' }));
    for (const y of profileOf(steep, () => 1).depthsM) expect(y).toBeCloseTo(criticalDepth(trapezoid(1, 1), 1), 6);
  });
  it('is drawn up by more water, never down', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -0.1, max: 1, noNaN: true }), { minLength: 2, maxLength: 6 }), fc.double({ min: 0.01, max: 3, noNaN: true }), (falls, q) => {
        let level = 20;
        const one = standing(along([level, ...falls.map((f) => (level -= f))], 10));
        const [less, more] = [profileOf(one, () => q), profileOf(one, () => 1.2 * q)];
        more.depthsM.forEach((y, k) => expect(y).toBeGreaterThan(less.depthsM[k] - 1e-9));
      }),
      { seed: 71, numRuns: 60 },
    ); // prettier-ignore
  });
  it('is at the lower bank of its tightest section with as much as it carries', () => {
    const narrow = along([9, 8.8, 8.6, 8.4]);
    const tight = { ...narrow, sections: narrow.sections.map((s, k) => (k === 2 ? { ...s, rightHighM: 0.7, rightOutM: 0.7 } : s)) };
    const carries = carriesOf(standing(tight))!;
    expect(carries.k).toBe(2);
    expect(profileOf(standing(tight), () => carries.flowM3s).depthsM[2]).toBeCloseTo(0.7, 3);
    // Clearing lets it carry more, as does a smoother bed.
    const more = (change: Partial<Reach>) => carriesOf(standing({ ...tight, ...change }))!.flowM3s;
    expect(more({ clearM: 0.2 })).toBeGreaterThan(carries.flowM3s);
    expect(more({ rough: 'clean' })).toBeGreaterThan(carries.flowM3s);
    expect(more({ roughness: 0.04 })).toBe(carries.flowM3s);
    expect(carriesOf(standing(EVEN))!.flowM3s).toBeCloseTo(uniformFlow(trapezoid(1, 1), { slope: 0.01, n: 0.04 }, 1.5), 1);
  });
});

describe('its stretches', () => {
  it('are stores one after the other, as deep as what leaves them makes them', () => {
    const stores = storesOf(standing(EVEN));
    expect(stores.map((s) => [s.id, s.along?.atM, s.heldM3])).toEqual([['reach', 20, 0], ['reach:2', 40, 0], ['reach:3', 60, 0]]); // prettier-ignore
    const [{ outlets, stage, floorM, crestM, tilt }] = stores;
    expect([floorM, crestM]).toEqual([8.8, expect.closeTo(10.3, 2)]);
    const even = normalDepth(trapezoid(1, 1), { slope: 0.01, n: 0.04 }, 0.7);
    expect(outlets[0].flowAt(8.8 + even)).toBeCloseTo(0.7, 1);
    expect(outlets[0]).toMatchObject({ role: 'end', staysIn: true, levelM: 8.8 });
    expect(outlets[1].flowAt(crestM + 0.1)).toBeCloseTo(1.5 * 20 * 0.1 ** 1.5, 6);
    // Between two rows of the table a level has the water that stands there: length by area.
    const row = 9;
    const y = stage.levelM[row] - 8.8;
    expect(stage.volumeM3[row]).toBeCloseTo(20 * (1 + y) * y, 1);
    expect(stage.wettedM2[row]).toBeCloseTo(20 * (1 + 2 * y), 1);
    expect(tilt!(8.8 + even).leftM).toBeCloseTo(1.5 - even, 2);
    for (const s of stores) s.stage.levelM.slice(1).forEach((level, k) => expect(level).toBeGreaterThan(s.stage.levelM[k]));
  });
  it('keep what stands behind a hump, and go over the bank that is lower', () => {
    const [, pool] = storesOf(standing(along([8.5, 8, 8.3, 7.9])));
    expect([pool.floorM, pool.wayOutM]).toEqual([8, expect.closeTo(8.3, 9)]);
    expect(pool.heldM3).toBeCloseTo(20 * (1 + 0.15) * 0.15, 6);
    expect(pool.stage.volumeM3[0]).toBe(0);
    const high = { leftHighM: 2, leftOutM: 2 };
    const right = { ...EVEN, sections: EVEN.sections.map((s) => ({ ...s, ...high })) };
    const east = storesOf(standing(right))[0].outlets[1];
    // Down to the south its right bank is to the west.
    expect(east.name).toMatch(/right bank/);
    expect(east.dischargeAt[0]).toBeLessThan(50);
    expect(storesOf(standing(EVEN))[0].outlets[1].dischargeAt[0]).toBeGreaterThan(50);
  });
  it('take in what comes down to each of their lower ends', () => {
    const lines = reach.intakes(EVEN);
    expect(lines.map((i) => [i.store, i.line?.[0][1]])).toEqual([['reach', 70], ['reach:2', 50], ['reach:3', 30]]); // prettier-ignore
    expect(reach.traits(EVEN)).toEqual({ ...NO_TRAITS, isChannel: true });
    expect(reach.footprint(EVEN)).toEqual([LINE]);
    expect(reach.groundKey(EVEN)).toBe(LINE);
  });
});

describe('in a storm', () => {
  const peaks = [0.4, 0.5, 0.6];
  const facts = (work: Reach, flows: readonly number[] = peaks) => {
    const one = standing(work);
    const others = storesOf(one).map((store, k) => ({ store, storm: stormOf({ peakInM3s: flows[k] }) }));
    return { ...factsOf(GULLY, { store: others[0].store, storm: others[0].storm, others, designPeakM3s: flows[0] }), standing: one };
  };
  it('each section has the flow of the stretch that ends there', () => {
    const at = atPeak(facts(EVEN))!;
    expect(at.map((a) => a.peakM3s)).toEqual([0.4, 0.4, 0.5, 0.6]);
    expect(at[3].depthM).toBeCloseTo(normalDepth(trapezoid(1, 1), { slope: 0.01, n: 0.04 }, 0.6), 6);
    const y = at[3].depthM;
    expect(at[3].froude).toBeCloseTo((0.6 / ((1 + y) * y)) * Math.sqrt((1 + 2 * y) / (9.80665 * (1 + y) * y)), 3);
    for (const a of at) {
      expect(a.leftM).toBeCloseTo(1.5 - a.depthM, 12);
      expect(a.velocityMs).toBeCloseTo(a.peakM3s / ((1 + a.depthM) * a.depthM), 9);
    }
    // Steep, it runs shallower and faster than the line that can stand there.
    const [fast] = atPeak(facts(along([9, 7, 5, 3], 20, { rough: 'earth' })))!;
    const even = normalDepth(trapezoid(1, 1), { slope: 0.1, n: 0.022 }, 0.4);
    expect(fast.velocityMs).toBeCloseTo(0.4 / ((1 + even) * even), 6);
    expect(fast.froude).toBeGreaterThan(1);
    expect(atPeak({ ...facts(EVEN), store: null, storm: null, others: [] })).toBeNull();
    expect(atPeak(facts(EVEN, [0, 0, 0]))!.every((a) => a.velocityMs === 0 && a.froude === 0)).toBe(true);
  });
  it('is told with its working, its pegs, marks and section', () => {
    const placed = reach.place({ ...EVEN, bedIs: 'stiff-clay', clearM: 0.1 }, ground, null);
    const sheet = new Worksheet('reach');
    const figures = new Map(placed.figures(facts(EVEN), sheet).map((f) => [f.id, f.value]));
    expect(sheet.lines.map((l) => l.formula)).toEqual(['reach.conveyance', 'reach.carries', 'reach.speed']);
    expect(figures.get('fall')).toBeCloseTo(0.01, 12);
    expect(figures.get('peakM3s')).toBe(0.6);
    expect(figures.get('standsMs')).toBe(1.143);
    // A metre wide and sixty long, a tenth off.
    expect(figures.get('cutM3')).toBeCloseTo(6, 9);
    expect(placed.pegs(10, null)).toHaveLength(12);
    const [bed, left, right] = placed.pegs(10, null);
    expect([bed.levelM, bed.groundM, left.levelM, right.x]).toEqual([8.9, expect.closeTo(9, 1), 10.5, 48]);
    expect(placed.marks.map((m) => [m.levelM, m.path])).toEqual([[9, 'sections.0.bedM'], [8.4, 'sections.3.bedM']]); // prettier-ignore
    expect(placed.section!(null).parts.map((p) => p.role)).toEqual(['earth', 'full', 'ground', 'cut']);
    expect(placed.quantities(facts(EVEN)).map((q) => [q.item, q.likely])).toEqual([['section', 4], ['cut', expect.closeTo(6, 9)], ['labour', expect.closeTo(16, 9)]]); // prettier-ignore
    expect(placed.buildSteps().map((s) => s.id)).toEqual(['walk', 'measure', 'clear', 'after']);
    const left0 = reach.place(EVEN, ground, null);
    expect([left0.quantities(facts(EVEN)).length, left0.buildSteps().length, left0.section!(null).parts.length]).toEqual([1, 3, 3]);
  });
});

describe('while nobody has said how rough it is', () => {
  const unsaid = standing({ ...EVEN, rough: 'unknown' });
  it('nothing is told of what it carries, and water is followed as in the roughest', () => {
    expect([carriesOf(unsaid), atPeak({ ...factsOf(GULLY), standing: unsaid })]).toEqual([null, null]);
    expect(carriesOf(standing({ ...EVEN, rough: 'unknown', roughness: 0.04 }))).toEqual(carriesOf(standing(EVEN)));
    const left = (rough: Reach['rough']): number => storesOf(standing({ ...EVEN, rough }))[0].outlets[0].flowAt(9.3);
    expect(left('unknown')).toBe(left('brush'));
    for (const rough of ['earth', 'stony', 'dense'] as const) expect(left('unknown')).toBeLessThan(left(rough));
    const placed = reach.place({ ...EVEN, rough: 'unknown' }, ground, null);
    expect(placed.section!(null).parts.map((p) => p.role)).toEqual(['earth', 'ground']);
    expect(placed.figures(factsOf(GULLY), new Worksheet('reach')).find((f) => f.id === 'carriesM3s')?.value).toBeNull();
  });
});

describe('what stands in it', () => {
  const site = siteOf(gridOf((x, y) => 0.1 * y + Math.abs(x - 50) * 0.02, { cells: 201, cellM: 0.5 }));
  const deep: Reach = { ...along([7.5, 5.5, 3.5, 1.5]), known: 'levelled' };
  const channel = channelFor(standingReach(deep, measureBed(LINE, site)));
  it('has its bed and its width, straight between sections; past its ends the terrain’s', () => {
    expect([channel.bedAt(10), channel.acrossAt(30).bankWidthM, channel.acrossAt(30).depthM, channel.isMeasured]).toEqual([
      6.5,
      4,
      1.5,
      true,
    ]);
    const bed = bedIn(channel, measureBed([[50.5, 95], [50.5, 40]], site)); // prettier-ignore
    expect(bed.bedM[0]).toBeCloseTo(9.51, 2);
    expect(bed.bedM[bed.bedM.length - 1]).toBeCloseTo(2.5, 2);
    const off = bedIn(channel, measureBed([[53.5, 80], [53.5, 40]], site)); // prettier-ignore
    expect(off.bedM[0]).toBeCloseTo(8.07, 2);
  });
  it('is begun on it where all of it is drawn there', () => {
    const land = landOf({ grid: site.grid, channels: [channel] });
    const dams = (points: Line): readonly CheckDams[] => {
      const made = registry.begin('check-dams', { how: 'check-dams', points, host: null }, land);
      return made.ok ? (made.works as readonly unknown[] as readonly CheckDams[]) : [];
    };
    const made = dams([[51, 45], [49, 85]]); // prettier-ignore
    expect(made[0]).toMatchObject({ channel: 'reach', line: [[50, 85], [50, 45]], dams: [expect.objectContaining({ bankWidthM: 4, depthM: 1.5, isMeasured: true }), ...new Array<unknown>(made[0].dams.length - 1).fill(expect.anything())] }); // prettier-ignore
    // Six tenths of a metre on a tenth: each six metres from the next.
    expect(made[0].dams[1].atM - made[0].dams[0].atM).toBeCloseTo(6, 2);
    const beside = dams([[56, 85], [56, 45]]); // prettier-ignore
    expect(beside[0].channel).toBeUndefined();
  });
});

describe('with dams in it, on the map', () => {
  const line: Line = [[101, 190], [101, 130]]; // prettier-ignore
  const own = { bedWidthM: 1.2, leftOutM: 3, leftHighM: 1, rightOutM: 3, rightHighM: 1 };
  const VALLEY: Reach = {
    ...newReach('reach', 'Gully', {
      line,
      runs: 'gully',
      sections: [0, 20, 40, 60].map((atM) => ({ atM, bedM: 109 - 0.05 * atM, ...own })),
    }),
    known: 'levelled',
  };
  const dam = (atM: number): Dam => ({ atM, heightM: 0.6, bedWidthM: 1.2, bankWidthM: 7.2, depthM: 1, isMeasured: true });
  const IN_IT: CheckDams = { ...DAMS, line: [[101, 180], [101, 140]], channel: 'reach', dams: [dam(20), dam(36)] }; // prettier-ignore
  const { derived: both } = derived(valleyProject([VALLEY, IN_IT] as WorkBase[]));
  const to = (store: string): string[] => [...new Set(both.links.filter((l) => l.from === store && l.role !== 'bank').map((l) => l.to))];
  it('water goes from stretch to dam to stretch as they lie along it, none of it lost', () => {
    // Sections at 20, 40 and 60; dams at 30 and 46 of the channel.
    expect([to('reach'), to('dams'), to('reach:2'), to('dams:2')]).toEqual([['dams'], ['reach:2'], ['dams:2'], ['reach:3']]);
    const of = (id: string) => both.stores.find((s) => s.id === id)!;
    const left = both.links.filter((l) => l.from === 'reach:2').reduce((a, l) => a + (l.volumeM3 ?? 0), 0);
    const ownIn = of('dams:2').inM3! - left;
    expect(ownIn).toBeGreaterThanOrEqual(-1e-6);
    expect(of('reach:3').peakOutM3s!).toBeGreaterThan(of('reach').peakOutM3s! * 0.8);
    // What the measured bed says, not the ground of the map: 109 at its upper end.
    expect(of('dams').floorM).toBeCloseTo(107.5, 6);
  });
  it('a dam outside of it is told; taken away, its dams stand on their own line again', () => {
    const check = (works: readonly object[]) => derived(valleyProject(works as WorkBase[])).derived.checks.find((c) => c.id === 'check-dams.in-reach');
    expect(check([VALLEY, IN_IT])).toMatchObject({ severity: 'fine', value: 0 });
    expect(check([{ ...VALLEY, sections: VALLEY.sections.slice(0, 3) }, IN_IT])).toMatchObject({ severity: 'mend', value: 1 });
    expect(check([{ ...IN_IT, channel: undefined }])).toBeUndefined();
    expect(registry.bind(IN_IT).refs).toEqual([{ role: 'in', id: 'reach', path: 'channel', whenGone: 'lets-go' }]);
  }); // prettier-ignore
});

describe('begun', () => {
  it('on the lowest ground beside the line, with sections as the terrain has them', () => {
    const made = begunBy(reach, { points: [[51, 32], [49.4, 88]] }, landOf({ grid: GULLY.grid })) as readonly Reach[]; // prettier-ignore
    const [{ sections, line, runs, known }] = made;
    expect([runs, known, sections.length]).toEqual(['gully', 'terrain', 5]);
    expect(line.every(([x]) => Math.abs(x - 50) < 0.6)).toBe(true);
    for (const s of sections) {
      expect(Math.abs(s.bedM - (8.8 - 0.1 * s.atM))).toBeLessThan(0.1);
      expect(Math.abs(s.leftHighM - 1.5)).toBeLessThan(0.15);
    }
    expect(reach.validate(made[0])).toEqual([]);
    expect(begunBy(reach, { how: 'ditch-reach', points: [[50, 80], [50, 60]] }, landOf({ grid: GULLY.grid }))).toMatchObject([{ runs: 'ditch', rough: 'unknown', bedIs: 'unknown' }]); // prettier-ignore
    expect(begunBy(reach, { points: [[50, 80], [50, 999]] }, landOf({ grid: GULLY.grid }))).toBe('work.off-terrain'); // prettier-ignore
    const level = gridOf(() => 5, { cells: 201, cellM: 0.5 });
    expect(begunBy(reach, { points: [[50, 80], [50, 60]] }, landOf({ grid: level }))).toBe('reach.rises'); // prettier-ignore
  });
});

describe('validated', () => {
  it('every number of it, and its sections', () => {
    expectFields(reach, EVEN);
    const bad = (sections: unknown) => wrong(reach, { ...EVEN, sections } as Reach);
    expect(bad([section(0, 9)])).toEqual(['reach.sections@sections']);
    expect(bad('none')).toEqual(['reach.sections@sections']);
    expect(bad(Array.from({ length: 101 }, (_, k) => section(k / 2, 9)))).toEqual(['reach.sections@sections']);
    expect(bad([section(0, 9), section(60.1, 8)])).toEqual(['reach.sections@sections.1.atM']);
    expect(bad([section(0, 9), section(60.04, 8)])).toEqual([]);
    expect(bad([section(10, 9), section(10.4, 8)])).toEqual(['reach.sections@sections']);
    expect(bad([section(10, 9), section(10.5, 8)])).toEqual([]);
    expect(bad([section(0, 9), section(10, 8, { leftHighM: 0 })])).toEqual(['work.field-range@sections.1.leftHighM']);
    expect(wrong(reach, { ...EVEN, runs: 'river' as 'creek' })).toEqual(['work.choice@runs']);
  });
  it('one more section stands in the widest gap, half-way in all it is', () => {
    const made = reach.lists![0].start({ ...EVEN, sections: [section(0, 9), section(10, 8.9), section(50, 8, { bedWidthM: 2 })] } as never);
    expect(made).toEqual({ ...section(30, 8.45), bedWidthM: 1.5 });
  });
  it('rows of a field book are sections, or none is taken in', () => {
    expect(sectionsFromRows('at\tbed\n0\t104,2\t0,9\t1\t1\t1,4\t0,9')).toEqual({ ok: true, rows: [{ atM: 0, bedM: 104.2, bedWidthM: 0.9, leftOutM: 1, leftHighM: 1, rightOutM: 1.4, rightHighM: 0.9 }] }); // prettier-ignore
    expect(sectionsFromRows('0,104.2,0.9,1')).toMatchObject({ ok: false, problems: [{ row: 1, what: expect.stringMatching(/left up/) }, { row: 1 }, { row: 1 }] }); // prettier-ignore
    expect(words(reach.validate({ ...EVEN, sections: [] })[0].what)).toBe('"Gully" has 0 sections');
  });
});
