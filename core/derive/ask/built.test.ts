// Ground with the works built into it, against the earth the bill counts by sections, and against sections worked by hand.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { WorkBase } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { type Project, UserError } from '../../project/index.ts';
import { type Grid, cellAt, centreOf, levelAt } from '../../terrain/index.ts';
import { context } from '../../testing/ground.ts';
import { LIP_M, SILL, SWALE, derived, planeLevels, planeProject } from '../../testing/projects.ts';
import { CUT, DRAIN, EVERY_KIND, POND, POND_SILL, ROAD, GARDEN, MOONS, valleyAt, valleyProject } from '../../testing/valley.ts';
import { BENCHES, SET } from '../../testing/valley-fields.ts';
import { registry } from '../../works/index.ts';
import { builtGround } from './built.ts';

const planeAt = (_x: number, y: number): number => 100 + 0.1 * y;
const on = (project: Project): Grid => builtGround(project, context()).grid;
const at = (grid: Grid, x: number, y: number): number => grid.z[cellAt(grid, [x, y])] + grid.baseM;

const [plane, valley] = [on(planeProject({}, [])), on(valleyProject([]))];

/** Earth between the ground made and the ground before, over a box [m3]. */
function moved(
  grid: Grid,
  groundAt: (x: number, y: number) => number,
  [x0, y0, x1, y1]: readonly number[] = [0, 0, 202, 202],
): { cut: number; fill: number } {
  let [cut, fill] = [0, 0];
  for (let cell = 0; cell < grid.z.length; cell++) {
    const [x, y] = centreOf(grid, cell);
    if (x < x0 || x > x1 || y < y0 || y > y1) continue;
    const change = grid.z[cell] + grid.baseM - groundAt(x, y);
    if (change > 0) fill += change * grid.cellM ** 2;
    else cut -= change * grid.cellM ** 2;
  }
  return { cut, fill };
}

const billed = (project: Project, work: string, item: string): number =>
  derived(project).view.making[work].quantities.find((q) => q.item === item)?.likely ?? NaN;

describe('a swale built into the ground', () => {
  const alone = planeProject({}, [SWALE]);
  const grid = on(alone);
  it('is its section: floor above the lip, bank below it, the ground untouched beyond', () => {
    expect(grid.cellM).toBe(0.5);
    // Lip at y = 101; the floor from 1.5 · 0.35 = 0.525 m above it, 0.9 m wide; the bank rises 2 · 0.35 = 0.7 m, 0.5 m wide.
    expect(at(grid, 100.25, 101.75)).toBeCloseTo(LIP_M - 0.35, 4);
    expect(at(grid, 100.25, 102.25)).toBeCloseTo(LIP_M - 0.35, 4);
    expect(at(grid, 100.25, 101.25)).toBeCloseTo(LIP_M - 0.25 / 1.5, 4);
    expect(at(grid, 100.25, 102.75)).toBeCloseTo(LIP_M - 0.35 + (1.75 - 1.425) / 1.5, 4);
    expect(at(grid, 100.25, 100.25)).toBeCloseTo(LIP_M + 0.35, 4);
    expect(at(grid, 100.25, 100.75)).toBeCloseTo(LIP_M + 0.125, 4);
    expect(at(grid, 100.25, 99.25)).toBeCloseTo(LIP_M + 0.35 - (1.75 - 1.2) / 2, 4);
    for (const y of [90.25, 98.25, 104.25, 140.75]) expect(at(grid, 100.25, y)).toBeCloseTo(planeAt(0, y), 4);
    for (const x of [20.25, 180.25]) expect(at(grid, x, 101.75)).toBeCloseTo(planeAt(0, 101.75), 4);
  });
  it('moves the earth its sections add up to', () => {
    const { cut, fill } = moved(grid, planeAt, [40, 80, 160, 120]);
    // 120 of its 140 m: its ends run out beyond them. Cells of half a metre round a bank of 1.9 m.
    expect(cut / ((billed(alone, 'w1', 'cut') * 120) / 140)).toBeCloseTo(1, 1.3);
    expect(fill / ((billed(alone, 'w1', 'fill') * 120) / 140)).toBeCloseTo(1, 1);
  });
  it('runs out to the ground on a steep slope too: its bank ends in no step', () => {
    const steep = planeProject({ terrain: { kind: 'grid', ncols: 101, nrows: 101, west: 0, south: 0, cellM: 2, rows: 'north-first', z: planeLevels(0.3) } }, [
      { ...SWALE, levels: { floorM: 130.3 - 0.35, bankCrestM: 130.3 + 0.5 } } as WorkBase,
    ]);
    const { fill } = moved(on(steep), (_x, y) => 100 + 0.3 * y, [40, 60, 160, 140]);
    expect(fill / ((billed(steep, 'w1', 'fill') * 120) / 140)).toBeCloseTo(1, 1);
    const outer = Array.from({ length: 30 }, (_, k) => at(on(steep), 100.25, 99.25 - 0.5 * k));
    for (let k = 1; k < outer.length; k++) expect(outer[k - 1] - outer[k]).toBeLessThan(0.26);
  }); // prettier-ignore
  it('has no bank where its sill is, and a low one where it is to go first', () => {
    const sill = on(planeProject());
    // The sill is 6 m long about x = 152.
    expect(at(sill, 152.25, 100.25)).toBeCloseTo(LIP_M, 4);
    expect(at(sill, 154.75, 100.25)).toBeCloseTo(LIP_M, 4);
    expect(at(sill, 155.25, 100.25)).toBeCloseTo(LIP_M + 0.25 / 2, 4);
    expect(at(sill, 152.25, 101.75)).toBeCloseTo(LIP_M - 0.35, 4);
    const fuse = on(planeProject({}, [{ ...SWALE, fuse: { fromM: 20, toM: 30, crestM: LIP_M + 0.2 } } as WorkBase]));
    expect(at(fuse, 57.25, 100.25)).toBeCloseTo(LIP_M + 0.2, 4);
    expect(at(fuse, 70.25, 100.25)).toBeCloseTo(LIP_M + 0.35, 4);
  });
  it('is the same whichever way it is drawn; not there again where the survey shows it, and gone where it is retired', () => {
    const back = on(planeProject({}, [{ ...SWALE, line: [...SWALE.line].reverse() } as WorkBase]));
    expect(back.z.every((v, k) => Math.abs(v - grid.z[k]) < 1e-5)).toBe(true);
    for (const status of ['existing', 'retired'] as const) {
      const { grid: there, made } = builtGround(planeProject({}, [{ ...SWALE, status }]), context());
      expect(made).toEqual([]);
      expect([...there.z]).toEqual([...plane.z]);
    }
    for (const status of ['pegged', 'built'] as const)
      expect(builtGround(planeProject({}, [{ ...SWALE, status }]), context()).made).toEqual(['w1']);
  });
  it('follows a bent lip: every place is as high as its distance from it says', () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 8, noNaN: true }), fc.double({ min: 60, max: 140, noNaN: true }), (bend, x) => {
        const bent: Project = planeProject({}, [{ ...SWALE, line: [[50, 101], [100, 101 + bend / 8], [150, 101]] } as WorkBase]); // prettier-ignore
        const built = on(bent);
        const lipY = 101 + (bend / 8) * (1 - Math.abs(x - 100) / 50);
        const crest = Math.max(...[0.25, 0.5, 0.75, 1, 1.25, 1.5].map((down) => at(built, x, lipY - down)));
        const floor = Math.min(...[0.5, 0.75, 1, 1.25, 1.5].map((up) => at(built, x, lipY + up)));
        expect(crest).toBeGreaterThan(LIP_M + 0.2);
        expect(crest).toBeLessThanOrEqual(LIP_M + 0.35 + 1e-4);
        expect(floor).toBeCloseTo(LIP_M - 0.35, 1);
      }),
      { seed: 12, numRuns: 12 },
    );
  });
});

describe('a pond built into the ground', () => {
  const project = valleyProject([POND]);
  const grid = on(project);
  it('has its wall, as high and as flat as it is drawn, of the earth that is billed', () => {
    const { topWidthM, waterSlopeHV, backSlopeHV } = POND.dimensions;
    const crest = POND.levels.crestM;
    expect(at(grid, 101.25, 81.25)).toBeCloseTo(crest, 3);
    // Water stands to the north, where the valley rises.
    expect(at(grid, 101.25, 84.25)).toBeCloseTo(crest - (3.25 - topWidthM / 2) / waterSlopeHV, 3);
    expect(at(grid, 101.25, 78.25)).toBeCloseTo(crest - (2.75 - topWidthM / 2) / backSlopeHV, 3);
    const { fill, cut } = moved(grid, (x, y) => levelAt(valley, [x, y]));
    const { settlementPercent } = POND;
    const billedM3 = billed(project, 'pond', 'fill');
    const stripM3 = billed(project, 'pond', 'topsoil');
    expect(fill / ((billedM3 - stripM3) / (1 + settlementPercent / 100))).toBeCloseTo(1, 1.3);
    expect(cut).toBeLessThan(1e-3);
  });
  it('its emergency spillway goes through ground and wall at its level; its sill leaves the wall out', () => {
    const all = on(valleyProject([POND, POND_SILL, CUT]));
    // At 6 m along the wall natural ground stands at 106.85.
    expect(at(all, 87.25, 81.25)).toBeCloseTo(106.1, 3);
    expect(at(all, 87.25, 86.25)).toBeCloseTo(106.1, 3);
    expect(at(all, 87.25, 78.25)).toBeCloseTo(106.1, 3);
    expect(at(all, 83.75, 81.25)).toBeCloseTo(106.1 + (3.25 - 2.5) / 3, 2);
    // The sill about x = 115 stands at 105.9 where the wall would stand at 106.5 on lower ground.
    const [x, y] = [112.25, 81.25];
    expect(at(all, x, y)).toBeCloseTo(Math.max(105.9, valleyAt(x, y)), 1);
    expect(at(grid, x, y)).toBeCloseTo(106.5, 3);
  });
  it('a dug one is a pit with its sides', () => {
    const pit: Point[] = [[40, 140], [60, 140], [60, 156], [40, 156]]; // prettier-ignore
    const dug = { ...POND, wall: undefined, pit, levels: { crestM: 110, floorM: planeAt(0, 148) - 1.5 } } as unknown as WorkBase;
    const built = on(planeProject({}, [dug]));
    expect(at(built, 50.25, 148.25)).toBeCloseTo(planeAt(0, 148) - 1.5, 3);
    expect(at(built, 41.25, 148.25)).toBeCloseTo(planeAt(0, 148.25) - 1.25 / POND.dimensions.pitSlopeHV, 3);
    expect(at(built, 39.25, 148.25)).toBeCloseTo(planeAt(0, 148.25), 3);
  });
});

describe('other works built into the ground', () => {
  it('a drain on a slope is its bed from end to end, with the bank beside it', () => {
    const built = on(valleyProject([DRAIN]));
    const [a, b] = [DRAIN.line[0], DRAIN.line[DRAIN.line.length - 1]];
    const near = (p: readonly number[]): number => Math.min(...[-0.5, 0, 0.5].flatMap((dx) => [-0.5, 0, 0.5].map((dy) => at(built, p[0] + dx, p[1] + dy))));
    expect(near([a[0], a[1] - 1])).toBeCloseTo(DRAIN.levels.startM, 1);
    expect(near([b[0], b[1] + 1])).toBeCloseTo(DRAIN.levels.endM, 1);
    // Downhill is east, towards the valley's floor: the bank's top begins 0.5 + 3 · 0.5 m from the middle, as high as it is deep.
    const [mx, my] = DRAIN.line[1];
    const bed = DRAIN.levels.startM - 0.05;
    expect(at(built, mx + 2.25, my)).toBeCloseTo(bed + 0.5, 1);
    expect(at(built, mx - 12, my)).toBeCloseTo(valleyAt(mx - 12, my), 1);
  }); // prettier-ignore
  it('a road across is its bank; in a dip it is lower', () => {
    const flat = on(valleyProject([ROAD]));
    expect(at(flat, 101.25, 141.25)).toBeCloseTo(108.6, 3);
    expect(at(flat, 101.25, 144.25)).toBeCloseTo(108.6 - (3.25 - 2) / 2, 3);
    const dip = on(valleyProject([{ ...ROAD, form: 'dip', dimensions: { ...ROAD.dimensions, dipLengthM: 4 } } as WorkBase]));
    expect(at(dip, 101.25, 141.25)).toBeCloseTo(108.3, 3);
    expect(at(dip, 105.25, 141.25)).toBeCloseTo(108.6, 3);
  });
  it('swales in a set move the earth their sections add up to, and spill where they are lower', () => {
    const lines = [17.5, 15.5].map((over) => [70, 90, 110].map((y): Point => [101 - (over - 0.05 * y) / 0.2, y]));
    const set = (spillM: number): Project => valleyProject([{ ...SET, spills: 'start', lines, dimensions: { ...SET.dimensions, spillM } } as WorkBase]);
    const whole = set(SET.dimensions.bankM);
    const grid = on(whole);
    const { cut, fill } = moved(grid, (x, y) => levelAt(valley, [x, y]));
    expect(Math.abs(cut / billed(whole, 'set', 'cut') - 1)).toBeLessThan(0.06);
    expect(Math.abs(fill / billed(whole, 'set', 'bank') - 1)).toBeLessThan(0.06);
    // Two spills of 4 m and their ends: each a tenth of the length.
    const lower = moved(on(set(0)), (x, y) => levelAt(valley, [x, y])).fill;
    expect(1 - lower / fill).toBeGreaterThan(0.06);
    expect(1 - lower / fill).toBeLessThan(0.12);
  }); // prettier-ignore
  it('of every kind it is told whether it shows: what is shaped or built, and what is not', () => {
    const { made, left } = builtGround(valleyProject(EVERY_KIND), context());
    const own = EVERY_KIND.filter((w) => w.status !== 'existing' && w.status !== 'retired').map((w) => w.id);
    expect([...made, ...left].sort()).toEqual([...own].sort());
    const kinds = new Set(made.map((id) => EVERY_KIND.find((w) => w.id === id)?.kind));
    expect([...kinds].sort()).toEqual([
      'crossing',
      'cut-spillway',
      'diversion',
      'half-moons',
      'level-sill',
      'pond',
      'rain-garden',
      'regrade',
      'swale',
      'swale-set',
      'terraces',
    ]);
    for (const work of EVERY_KIND) expect(registry.has(work.kind)).toBe(true);
  });
  it('a sill in a bank that stands already is told as not in it: the survey has that bank', () => {
    const { grid, made, left } = builtGround(planeProject({}, [{ ...SWALE, status: 'existing' }, SILL]), context());
    expect([made, left]).toEqual([[], ['s1']]);
    expect([...grid.z]).toEqual([...plane.z]);
  });
  it('a sill goes through the bank it is of, and through no other beside it', () => {
    // Another swale's bank 8 m downhill of the sill, as high as the sill stands.
    const other = { ...SWALE, id: 'w2', line: [[120, 93], [180, 93]], levels: { floorM: 109, bankCrestM: 110.6 } } as WorkBase; // prettier-ignore
    const [with2, only2] = [on(planeProject({}, [SWALE, SILL, other])), on(planeProject({}, [other]))];
    for (const x of [150.25, 152.25, 154.75]) expect(at(with2, x, 91.25)).toBeCloseTo(at(only2, x, 91.25), 6);
    expect(at(only2, 152.25, 91.25)).toBeGreaterThan(LIP_M);
    expect(at(with2, 152.25, 100.25)).toBeCloseTo(LIP_M, 4);
  });
  it('a sill under the ground is dug through it on the downhill side, until it comes out; on the other nothing is', () => {
    // 0.2 m under the lip on a slope of 10 %: it comes out 2 m down.
    const deep = { ...SILL, levels: { sillM: LIP_M - 0.2 } };
    const low = { ...SWALE, levels: { floorM: LIP_M - 0.6, bankCrestM: LIP_M - 0.05 } } as WorkBase;
    const { grid, made, left } = builtGround(planeProject({}, [low, deep]), context());
    expect([made, left]).toEqual([['w1', 's1'], []]);
    expect([at(grid, 152.25, 100.75), at(grid, 152.25, 99.25)]).toEqual([expect.closeTo(LIP_M - 0.2, 3), expect.closeTo(LIP_M - 0.2, 3)]);
    expect(at(grid, 152.25, 98.75)).toBeCloseTo(planeAt(0, 98.75), 3);
    expect(at(grid, 152.25, 105.25)).toBeCloseTo(planeAt(0, 105.25), 3);
    expect(at(grid, 140.25, 100.75)).toBeCloseTo(planeAt(0, 100.75), 3);
  });
  it('asks for ground first', () => {
    expect(() => builtGround({ ...planeProject(), terrain: null }, context())).toThrow(UserError);
  });
});

describe('what is dug over a field, on a plane', () => {
  it('benches: cut as the triangle into the slope, filled as that before it with its edge on top, as far as they go', () => {
    const U = 1;
    const bench = { ...BENCHES, riser: 'earth', lines: [[[40, 101], [160, 101]]], dimensions: { ...BENCHES.dimensions, benchM: 8, riserHV: U, lipM: 0.4 } } as WorkBase; // prettier-ignore
    const project = planeProject({}, [bench]);
    const grid = on(project);
    // Its middle on the contour 110.1; level to its edge, which stands 0.4 m over it; the riser behind rises 1 in 1.
    for (const y of [97.75, 99.25, 101.25, 104.75]) expect(at(grid, 100.25, y)).toBeCloseTo(110.1, 4);
    expect(at(grid, 100.25, 97.25)).toBeCloseTo(110.1 + 0.4 - 0.25, 4);
    expect(at(grid, 100.25, 96.75)).toBeCloseTo(110.1 + 0.4 - 0.25, 4);
    expect(at(grid, 100.25, 105.25)).toBeCloseTo(110.1 + 0.25, 4);
    for (const y of [95.75, 106.25, 90.25]) expect(at(grid, 100.25, y)).toBeCloseTo(planeAt(0, y), 4);
    for (const x of [39.25, 160.75]) expect(at(grid, x, 99.25)).toBeCloseTo(planeAt(0, 99.25), 4);
    const { cut, fill } = moved(grid, planeAt, [60, 80, 140, 120]);
    const byHand = 80 * (0.5 * 0.1 * 4 ** 2 + 0.5 * 0.4 ** 2 + (0.5 * (0.4 + 0.1 * 4) ** 2 * U) / (1 - 0.1 * U));
    expect(cut / ((billed(project, 'benches', 'cut') * 80) / 120)).toBeCloseTo(1, 1.5);
    expect(fill / byHand).toBeCloseTo(1, 1.5);
  });

  it('benches below each other end in one riser, and none is heaped up on the one above', () => {
    const { dimensions } = BENCHES;
    const rows = [101, 101 - 8.889].map((y) => [[40, y], [160, y]]); // prettier-ignore
    const grid = on(planeProject({}, [{ ...BENCHES, riser: 'earth', lines: rows, dimensions: { ...dimensions, benchM: 8, riserHV: 1, lipM: 0 } } as WorkBase])); // prettier-ignore
    // The rise from bench to bench is what the slope falls over bench and riser: 0.1 · 8 / (1 − 0.1).
    const across = Array.from({ length: 36 }, (_, k) => at(grid, 100.25, 105.75 - 0.5 * k));
    expect(Math.max(...across.slice(1).map((level, k) => level - across[k]))).toBeLessThan(1e-4);
    expect(across.filter((level) => Math.abs(level - 110.1) < 1e-4)).toHaveLength(16);
    expect(across.filter((level) => Math.abs(level - 109.2111) < 1e-3)).toHaveLength(16);
  });

  it('a basin is its cone, with a bank all round but for its rock', () => {
    const flat = planeProject(
      { terrain: { kind: 'grid', ncols: 101, nrows: 101, west: 0, south: 0, cellM: 2, rows: 'north-first', z: planeLevels(0) } },
      [
        {
          ...GARDEN,
          line: [
            [100, 100],
            [130, 100],
          ],
          basins: [{ areaM2: 200, overflowM: 100 }],
          dimensions: { ...GARDEN.dimensions, pondM: 0.5, bermM: 0.4, rockWidthM: 4 },
        } as WorkBase,
      ],
    );
    const grid = on(flat);
    const R = Math.sqrt(200 / Math.PI);
    const under = Math.PI * (R - 1.5) ** 2;
    expect(at(grid, 100.25, 103.25)).toBeCloseTo(99.5, 4);
    // Its crest a radius and 3 · 0.4 m out, on the side away from where it lets go; over the rock nothing stands.
    expect(Math.max(...Array.from({ length: 12 }, (_, k) => at(grid, 100.25 - R - 3 + 0.5 * k, 100.25)))).toBeGreaterThan(100.3);
    expect(Math.max(...Array.from({ length: 20 }, (_, k) => at(grid, 100.25 + R - 2 + 0.5 * k, 100.25)))).toBeLessThan(100.0001);
    const { cut, fill } = moved(grid, () => 100);
    expect(cut / (billed(flat, 'garden', 'cut') - under * GARDEN.dimensions.mulchM)).toBeCloseTo(1, 1.7);
    // A ring of a triangle 0.4 m high (Pappus), without 4 m of it.
    expect(fill / ((2 * Math.PI * (R + 1.2) - 4) * 3 * 0.4 ** 2)).toBeCloseTo(1, 1.3);
  });

  it('half-moons are dug below their tips, their bunds as much earth as the bill counts; pits have none', () => {
    const dimensions = { radiusM: 8, gapM: 4, dugM: 0.3, overTipsM: 0.3, bundTopM: 0.6, bundSlopeHV: 2 };
    const of = (form: string): Project => planeProject({}, [{ ...MOONS, form, rows: [[[20, 101], [180, 101]]], dimensions } as WorkBase]); // prettier-ignore
    const moons = of('half-moon');
    const grid = on(moons);
    // 16 m each and 4 m between them, on 160 m.
    const count = 8;
    // The first about x = 28: dug 0.3 m below the ground inside; the bund level all along, 0.3 m over its tips.
    expect(at(grid, 28.25, 97.25)).toBeCloseTo(planeAt(0, 97.25) - 0.3, 4);
    expect(at(grid, 28.25, 92.75)).toBeCloseTo(110.4, 4);
    expect(at(grid, 28.25, 103.25)).toBeCloseTo(planeAt(0, 103.25), 4);
    expect(at(grid, 38.25, 97.25)).toBeCloseTo(planeAt(0, 97.25), 4);
    // Away from the rim of the map.
    const field = [10, 60, 190, 140] as const;
    const { fill, cut } = moved(grid, planeAt, field);
    // Its bund ends at the tips in half a cone each, which no section counts.
    const tips = (count * 2 * (Math.PI / 2) * 0.3 * (0.3 ** 2 + 0.3 * 0.9 + 0.9 ** 2)) / 3;
    // Sections are counted as on level ground: down a slope the outer side runs farther.
    const more = fill / (billed(moons, 'moons', 'bank') + tips);
    expect(more).toBeGreaterThan(1);
    expect(more).toBeLessThan(1.12);
    // Inside, the bund's side stands on the floor from its foot on: to that all is dug, from there to the ground half of it. Both feet
    // by hand, at every angle: 0.3 + 0.1 ρ sin θ over the ground is as high as the side is at ρ, (7.7 − ρ) / 2; or that and 0.3 more.
    const feet = Array.from({ length: 180 }, (_, k) => 0.5 + 0.1 * Math.sin((Math.PI * (k + 0.5)) / 180));
    const byHand = feet.reduce((sum, per) => sum + (0.075 * Math.PI * ((3.25 / per) ** 2 + (3.55 / per) ** 2)) / 180, 0);
    expect(cut / (count * byHand)).toBeCloseTo(1, 1.3);
    const pits = of('pit');
    const dug = moved(on(pits), planeAt, field);
    expect(dug.fill).toBeLessThan(0.01);
    expect(dug.cut / billed(pits, 'moons', 'cut')).toBeCloseTo(1, 1.3);
  });
});
