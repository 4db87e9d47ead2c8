// Water behind a wall and in a pit, against volumes worked out by hand. The valley's floor falls 5 % along y, its sides rise 20 %.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Line, Point } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { POND, WALL, valleyAt } from '../../testing/valley.ts';
import { UnknownGround } from '../unknown-ground.ts';
import {
  type Earthwork,
  basinBuilt,
  basinOf,
  brimOutlets,
  crestOf,
  floorOf,
  measureBasin,
  measureWall,
  storeOf,
  wallEarth,
  wallGroundAt,
  waterAt,
  waterRings,
} from './index.ts';

const grid = gridOf(valleyAt, { cells: 101, cellM: 2 });
const flat = gridOf(() => 100, { cells: 101, cellM: 2 });
const SHAPE = { ...POND.dimensions, topWidthM: 2, waterSlopeHV: 3, backSlopeHV: 2 };
const WALLED: Earthwork = { ...POND, wall: WALL, levels: { crestM: 106.5, floorM: 104 }, dimensions: SHAPE };
const PIT: Line = [
  [80, 80],
  [120, 80],
  [120, 110],
  [80, 110],
];
const DUG: Earthwork = { ...POND, wall: undefined, pit: PIT, levels: { crestM: 100, floorM: 98 }, dimensions: { ...SHAPE, pitSlopeHV: 2 } };
const out = (at: Point): Point => at;

describe('water behind a wall', () => {
  const ground = measureBasin(WALLED, { grid });
  const basin = basinOf(WALLED, ground);
  it('is the volume of the valley above its floor, less what the wall’s foot takes', () => {
    // Depth d over (x, y): level - 104.05 - 0.05 (y - 81) - 0.2 |x - 101|, from the wall's middle on: a pyramid of sides d/0.05 and 2 d/0.2.
    const level = 105.9;
    const d = level - 104.05;
    const valley = ((d / 0.05) * ((2 * d) / 0.2) * d) / 6;
    const water = waterAt(basin, level);
    expect(water.volumeM3).toBeLessThan(valley);
    // The foot: by a fine comb of the wall's inner face over the same ground.
    let foot = 0;
    for (let x = 81.05; x < 121; x += 0.1)
      for (let y = 81.05; y < 100; y += 0.1) {
        const natural = valleyAt(x, y);
        const made = Math.max(natural, 106.5 - Math.max(0, y - 81 - 1) / 3);
        foot += 0.01 * Math.max(0, Math.min(level, made) - natural);
      }
    expect(Math.abs(water.volumeM3 / (valley - foot) - 1)).toBeLessThan(0.04);
    expect(water.reachM).toBeGreaterThan(0.9 * (d / 0.05));
    expect(water.reachM).toBeLessThan(1.05 * (d / 0.05));
  });
  it('grows by its surface: what stands between two levels is their mean surface times their distance', () => {
    fc.assert(
      fc.property(fc.double({ min: 104.2, max: 106.4, noNaN: true }), (level) => {
        const [low, high] = [waterAt(basin, level), waterAt(basin, level + 0.01)];
        expect(high.volumeM3 - low.volumeM3).toBeGreaterThanOrEqual(0.01 * low.surfaceM2 - 1e-9);
        expect(high.volumeM3 - low.volumeM3).toBeLessThanOrEqual(0.01 * high.surfaceM2 + 1e-9);
        expect(high.reachM).toBeGreaterThanOrEqual(low.reachM);
      }),
      { seed: 31, numRuns: 60 },
    );
    expect(waterAt(basin, floorOf(basin, WALLED))).toMatchObject({ volumeM3: 0, surfaceM2: 0, reachM: 0 });
  });
  it('goes round the lower end of the wall, and over its crest', () => {
    // Both ends stand at 104.05 + 0.2 * 20 = 108.05: over the crest, so that only the crest is passed.
    expect(ground.roundM).toBeGreaterThan(106.5);
    expect(brimOutlets(WALLED, ground, out).map((o) => o.id)).toEqual(['pond#crest']);
    const high = { ...WALLED, levels: { crestM: 109, floorM: 104 } };
    const [round, top] = brimOutlets(high, ground, out);
    expect([round.id, round.levelM, top.id, top.levelM]).toEqual(['pond#round', ground.roundM, 'pond#crest', 109]);
    expect([round.kind, top.kind]).toEqual(['bank', 'bank']);
    expect(top.flowAt(109.1)).toBeCloseTo(1.5 * 40 * 0.1 ** 1.5, 3);
    expect(round.flowAt(ground.roundM)).toBe(0);
    expect(round.flowAt(ground.roundM + 0.1)).toBeGreaterThan(0);
    expect(crestOf(high, ground)).toBe(109);
    expect(ground.roundSlope).toBeGreaterThan(0.1);
  });
  it('stands first over its lowest way out; what holds no water above its floor holds none', () => {
    const brims = brimOutlets(WALLED, ground, out);
    const sill = { ...brims[0], id: 's', kind: 'sill' as const, levelM: 105.9 };
    const store = storeOf(WALLED, { basin, brims }, [sill]);
    expect(store).toMatchObject({ work: 'pond', sillM: 105.9, wayOutM: 105.9, crestM: 106.5 });
    expect(store.heldM3).toBeCloseTo(waterAt(basin, 105.9).volumeM3, 9);
    expect(store.waterM2).toBe(waterAt(basin, 105.9).surfaceM2);
    expect([store.seepsMmPerHour, store.driesMmPerHour]).toEqual([3 / 24, 4 / 24]);
    expect(storeOf(WALLED, { basin, brims }, [])).toMatchObject({ sillM: null, wayOutM: 106.5 });
    // A joint is no way out of its own.
    const joint = { ...sill, kind: 'joint' as const, levelM: 104.5 };
    expect(storeOf(WALLED, { basin, brims }, [sill, joint])).toMatchObject({ sillM: 105.9, wayOutM: 105.9 });
    const low = storeOf(WALLED, { basin, brims }, [{ ...sill, levelM: 90 }]);
    expect([low.wayOutM, low.heldM3]).toEqual([low.floorM, 0]);
    const { levelM, volumeM3, wettedM2 } = store.stage;
    expect([levelM[0], levelM[60]]).toEqual([store.floorM, expect.closeTo(108, 9)]);
    for (let k = 1; k <= 60; k++) {
      expect(volumeM3[k]).toBeGreaterThan(volumeM3[k - 1]);
      expect(wettedM2[k]).toBeGreaterThanOrEqual(wettedM2[k - 1]);
    }
  });
  it('is drawn as rings on the ground it stands on', () => {
    const rings = waterRings(ground, 105.9);
    expect(rings.length).toBeGreaterThan(0);
    // Along the wall the window is closed by a rim of its own.
    const away = rings.flat().filter(([, y]) => y > 85);
    expect(away.length).toBeGreaterThan(20);
    for (const [x, y] of away) expect(Math.abs(valleyAt(x, y) - 105.9)).toBeLessThan(0.6);
    expect(waterRings({ window: null }, 105.9)).toEqual([]);
  });
  it('does not change when the land is moved by whole cells', () => {
    const far = { ...grid, west: 4000, south: -600 };
    const there = { ...WALLED, wall: WALL.map(([x, y]): Point => [x + 4000, y - 600]) };
    const moved = measureBasin(there, { grid: far });
    expect(waterAt(basinOf(there, moved), 105.9).volumeM3).toBeCloseTo(waterAt(basin, 105.9).volumeM3, 6);
    expect(moved.roundM).toBeCloseTo(ground.roundM, 6);
  });
});

describe('earth of a wall', () => {
  it('on level ground is w h + (z1 + z2) h² / 2 a metre, with its settling, topsoil and key', () => {
    const wall = measureWall(flat, WALL);
    const shape = {
      levels: { crestM: 102, floorM: 100 },
      dimensions: { ...SHAPE, keyDepthM: 1, keyWidthM: 2, stripM: 0.2 },
      settlementPercent: 5,
    };
    const earth = wallEarth(shape, wall)!;
    const base = 2 + (3 + 2) * 2;
    expect(earth.baseM2).toBeCloseTo(40 * base, 1);
    expect(earth.stripM3).toBeCloseTo(40 * base * 0.2, 1);
    expect(earth.earthM3 / (40 * (2 * 2 + (5 * 4) / 2) * 1.05 + earth.stripM3)).toBeCloseTo(1, 2);
    expect(earth.keyM3).toBeCloseTo(40 * 1 * 3, 6);
    expect([earth.heightM, earth.toeHeightM, earth.lengthM]).toEqual([2, 2, expect.closeTo(40, 6)]);
    expect(wallEarth({ ...shape, levels: { crestM: 99, floorM: 98 } }, wall)).toMatchObject({ earthM3: 0, lengthM: 0, heightM: 0 });
  });
  it('meets the ground between the places it is known at; one whose foot lies farther out than sections reach still has its height', () => {
    const wall = measureWall(flat, WALL);
    const earth = (crestM: number, waterSlopeHV: number) =>
      wallEarth({ levels: { crestM, floorM: 100 }, dimensions: { ...SHAPE, waterSlopeHV }, settlementPercent: 0 }, wall);
    // 1 m of crest and 2 m of height at 3.1 to 1 on one side, 1 m and 2 to 1 on the other: 7.2 m and 5 m.
    expect(earth(102, 3.1)?.baseM2).toBeCloseTo(40 * 12.2, 6);
    // 8 m at 4.2 to 1 end 34.6 m out; at 4.5 to 1 they are counted as far as 36 m.
    expect([earth(108, 4.2)?.heightM, earth(108, 4.5)?.heightM]).toEqual([8, 8]);
    expect([earth(108, 4.2)?.baseM2, earth(108, 4.5)?.baseM2]).toEqual([
      expect.closeTo(40 * (34.6 + 17), 6),
      expect.closeTo(40 * (36 + 17), 6),
    ]);
    // On level ground no side is the lower one: it is the left.
    expect(wall.waterSide).toBe(1);
  });
  it('on sloping ground is that between the wall’s outline and the ground, by a fine comb', () => {
    const slope = gridOf((_x, y) => 0.1 * y, { cells: 101, cellM: 2 });
    const wall = measureWall(slope, WALL);
    expect(wall.waterSide).toBe(1);
    const crest = 8.1 + 2;
    const earth = wallEarth({ levels: { crestM: crest, floorM: 0 }, dimensions: { ...SHAPE, stripM: 0 }, settlementPercent: 0 }, wall)!;
    let area = 0;
    for (let d = -40; d < 40; d += 0.005) {
      const beyond = Math.max(0, Math.abs(d) - 1);
      area += 0.005 * Math.max(0, crest - beyond / (d > 0 ? 3 : 2) - 8.1 - 0.1 * d);
    }
    expect(earth.earthM3 / (40 * area)).toBeCloseTo(1, 2);
    // The outer foot meets the ground at (crest - 1/...) : 1 + x where 2 - x/2 = -0.1 (1 + x).
    const x = 2.1 / 0.4;
    expect(earth.toeHeightM).toBeGreaterThan(2 + 0.1 * x);
    expect(earth.toeHeightM).toBeLessThan(2 + 0.1 * (1 + x) + 0.06);
    expect(measureWall(slope, [...WALL].reverse()).waterSide).toBe(-1);
  });
  it('holds water on the side the ground rises to at its lowest places, however its ends lean', () => {
    // Up to 8 m from the middle it rises 5 % to the north, beyond that 8 % to the south.
    const land = gridOf((x, y) => 104 + 0.2 * Math.abs(x - 101) + (y - 81) * (Math.abs(x - 101) < 8 ? 0.05 : -0.08), { cells: 101, cellM: 2 }); // prettier-ignore
    expect([measureWall(land, WALL).waterSide, measureWall(land, [...WALL].reverse()).waterSide]).toEqual([1, -1]);
  });
  it('is not told where a foot stands on ground nobody knows', () => {
    const cut = gridOf((_x, y) => (y < 78 ? null : 100), { cells: 101, cellM: 2 });
    expect(wallEarth({ levels: { crestM: 103, floorM: 100 }, dimensions: SHAPE, settlementPercent: 0 }, measureWall(cut, WALL))).toBeNull();
    expect(() =>
      measureWall(
        gridOf(() => null, { cells: 11, cellM: 2 }),
        WALL,
      ),
    ).toThrow(UnknownGround);
  });
  it('reads its ground straight between stations, and keeps to its ends', () => {
    const wall = measureWall(grid, WALL);
    expect(wallGroundAt(wall, 20)).toBeCloseTo(104.05, 1);
    expect(wallGroundAt(wall, 10)).toBeCloseTo(106.05, 2);
    // Measured every two metres it is the same.
    const coarse = measureWall(gridOf(valleyAt, { cells: 51, cellM: 4 }), WALL);
    expect([coarse.stepM, Math.abs(wallGroundAt(coarse, 10) - 106.05) < 0.15]).toEqual([2, true]);
    expect(wallGroundAt(wall, -5)).toBe(wall.groundM[0]);
    expect(wallGroundAt(wall, 500)).toBe(wall.groundM[wall.groundM.length - 1]);
  });
});

describe('a pit', () => {
  const ground = measureBasin(DUG, { grid: flat });
  const basin = basinOf(DUG, ground);
  it('holds the prismoid of its sides', () => {
    // 40 x 30 at the ground, 32 x 22 at 2 m with sides of 2 to 1, 36 x 26 half way.
    const prismoid = ((1200 + 4 * 36 * 26 + 32 * 22) / 6) * 2;
    // Within a hundredth: it is cut into pieces.
    expect(Math.abs(basin.dugM3 / prismoid - 1)).toBeLessThan(0.01);
    expect(waterAt(basin, 100).volumeM3).toBeCloseTo(basin.dugM3, 6);
    expect(waterAt(basin, 100).surfaceM2).toBeCloseTo(1200, 0);
    expect(floorOf(basin, DUG)).toBe(98);
    expect(ground.wall).toBeNull();
  });
  it('goes over its lowest rim', () => {
    const tilted = gridOf((x) => 100 + 0.01 * (x - 80), { cells: 101, cellM: 2 });
    const on = measureBasin(DUG, { grid: tilted });
    expect(on.rim?.lowestM).toBeCloseTo(100, 2);
    expect(on.rim?.lowestAt[0]).toBe(80);
    expect(on.rim?.meanM).toBeCloseTo(100.2, 1);
    const [rim] = brimOutlets(DUG, on, out);
    expect(rim).toMatchObject({ id: 'pond#crest', name: 'rim of the pit', levelM: on.rim?.lowestM });
    expect(crestOf(DUG, on)).toBe(on.rim?.lowestM);
    expect(rim.flowAt(100.2)).toBeGreaterThan(0);
    expect(on.roundSlope).toBe(0.02);
  });
  it('water that tops it falls where its rim is lowest, whichever side that is; one of uneven sides keeps its area', () => {
    // Ground falls towards the north-east: its lowest corner is (120, 110).
    const falling = gridOf((x, y) => 100 - 0.01 * (x - 80) - 0.02 * (y - 80), { cells: 101, cellM: 2 });
    const on = measureBasin(DUG, { grid: falling });
    expect(on.rim?.lowestAt).toEqual([120, 110]);
    expect([on.roundAt, on.roundM, on.rim?.lowestM]).toEqual([[120, 110], on.rim?.lowestM, expect.closeTo(99, 2)]);
    expect(brimOutlets(DUG, on, out)[0].dischargeAt).toEqual([120, 110]);
    const wedge: Line = [[80, 80], [120, 80], [80, 110]]; // prettier-ignore
    const pieces = measureBasin({ ...DUG, pit: wedge }, { grid: flat }).pieces;
    expect(pieces.reduce((sum, p) => sum + p.areaM2, 0)).toBeCloseTo(600, 6);
    // Its pieces lie about its middle: (280/3, 270/3).
    const middle = (k: 0 | 1) => pieces.reduce((sum, p) => sum + p.at[k] * p.areaM2, 0) / 600;
    expect([middle(0), middle(1)]).toEqual([expect.closeTo(280 / 3, 0), expect.closeTo(90, 0)]);
    for (const p of pieces) expect(p.at[0] >= 80 && p.at[1] >= 80 && (p.at[0] - 80) / 40 + (p.at[1] - 80) / 30 <= 1).toBe(true);
  });
  it('deeper, wider or steeper holds more; never less', () => {
    const held = (change: Partial<Earthwork>): number => waterAt(basinOf({ ...DUG, ...change }, ground), 100).volumeM3;
    expect(held({ levels: { crestM: 100, floorM: 97.5 } })).toBeGreaterThan(held({}));
    expect(held({ dimensions: { ...DUG.dimensions, pitSlopeHV: 1 } })).toBeGreaterThan(held({}));
  });
  it('its rim is lowest wherever along a side that is, and what is not known of it is left out', () => {
    // 10 m along two of its sides, between corners and middles.
    const dip = measureBasin(DUG, { grid: gridOf((x) => 100 + 0.02 * Math.abs(x - 91), { cells: 101, cellM: 2 }) });
    expect([dip.rim?.lowestM, dip.rim?.lowestAt[0]]).toEqual([expect.closeTo(100, 1), 90]);
    expect(dip.rim?.lowestM).toBeLessThan(100.1);
    const half = measureBasin(DUG, { grid: gridOf((x) => (x > 110 ? null : 100), { cells: 101, cellM: 2 }) });
    expect([half.rim?.lowestM, half.rim?.meanM, half.pieces.every((p) => p.groundM === 100)]).toEqual([100, 100, true]);
    expect(basinOf(DUG, half).dugM3).toBeGreaterThan(1000);
  });
  it('of no ground has its floor as it is drawn; under its crest it has no more than that', () => {
    const none = basinOf(DUG, { ...ground, pieces: [] });
    expect([floorOf(none, DUG), waterAt(none, 99)]).toEqual([98, { volumeM3: 0, surfaceM2: 0, reachM: 0 }]);
    expect(floorOf(basin, { ...DUG, levels: { crestM: 97, floorM: 98 } })).toBe(97);
  });
  it('off known ground is no pit', () => {
    expect(() => measureBasin(DUG, { grid: gridOf(() => null, { cells: 101, cellM: 2 }) })).toThrow(UnknownGround);
  });
});

describe('a wall that no valley closes', () => {
  // Along x the ground rises 5 %, across it lies level: its western end is the lower one.
  const rising = gridOf((x) => 100 + 0.05 * x, { cells: 101, cellM: 2 });
  const across: Line = [[60, 100], [100, 100]]; // prettier-ignore
  const on = (wall: Line, land = rising) => measureBasin({ wall, pit: undefined }, { grid: land });
  it('is gone round at its lower end, whichever way it was drawn, over ground that rises as it does there', () => {
    for (const wall of [across, [...across].reverse()]) {
      const ground = on(wall);
      expect(ground.roundAt).toEqual([60, 100]);
      expect(ground.roundSlope).toBeCloseTo(0.05, 4);
    }
    // Measured at other distances, by more corners, it is the same.
    const coarse = gridOf((x) => 100 + 0.05 * x, { cells: 51, cellM: 4 });
    const bent = on([[100, 100], [80, 101], [60, 100]], coarse); // prettier-ignore
    expect([bent.roundAt, bent.roundSlope]).toEqual([[60, 100], expect.closeTo(0.05, 3)]);
    // On level ground water still spreads at 1 %; of two ends alike it is the first.
    expect([on(across, flat).roundSlope, on(across, flat).roundAt]).toEqual([0.01, [60, 100]]);
  });
  it('its store ends at the lowest brim, and its table goes on over the highest', () => {
    const ground = on(across);
    const [top] = brimOutlets({ ...WALLED, wall: across }, ground, out);
    const basin = basinOf(WALLED, measureBasin(WALLED, { grid }));
    const brims = [{ ...top, id: 'a', levelM: 107 }, { ...top, id: 'b', levelM: 106 }]; // prettier-ignore
    const store = storeOf(WALLED, { basin, brims }, []);
    expect([store.crestM, store.wayOutM, store.stage.levelM[60]]).toEqual([106, 106, expect.closeTo(108.5, 9)]);
    expect(brimOutlets(WALLED, measureBasin(WALLED, { grid }), out)[0].dischargeAt).toEqual(measureBasin(WALLED, { grid }).bottomAt);
  });
});

describe('what is made of the ground', () => {
  const madeOf = (work: Earthwork, land = flat): ((x: number, y: number, groundM?: number) => number) => {
    const { levelAt } = basinBuilt(work, measureBasin(work, { grid: land }));
    return (x, y, groundM = 100) => levelAt([x, y], { groundM, madeM: groundM });
  };
  it('by a pit: its sides from its edge down to its floor, nothing beside it, nothing filled', () => {
    const at = madeOf(DUG);
    expect([at(100, 95), at(81, 95), at(83, 95), at(84, 95), at(100, 108.5)]).toEqual([98, 99.5, 98.5, 98, 99.25]);
    expect([at(79.9, 95), at(100, 95, 97)]).toEqual([100, 97]);
    expect(madeOf({ ...DUG, dimensions: { ...DUG.dimensions, pitSlopeHV: 0 } })(80.1, 95)).toBe(98);
  });
  it('by a wall: crest, water side 3 to 1, back 2 to 1, its ends as steep as its back; ground over it stays', () => {
    const { levels } = WALLED;
    const at = madeOf(WALLED, grid);
    // The wall runs along y = 81 from x = 81 to 121, 2 m wide; water stands on its northern side.
    expect([at(101, 81), at(101, 82), at(101, 80)]).toEqual([levels.crestM, levels.crestM, levels.crestM]);
    expect([at(101, 85), at(101, 77), at(79, 81)]).toEqual([levels.crestM - 1, levels.crestM - 1.5, levels.crestM - 1]);
    expect([at(101, 81, 120), at(101, 100), at(101, 60)]).toEqual([120, expect.closeTo(100.5, 9), 100]);
    const reversed = madeOf({ ...WALLED, wall: [...WALL].reverse() }, grid);
    expect([reversed(101, 85), reversed(101, 77)]).toEqual([levels.crestM - 1, levels.crestM - 1.5]);
  });
  it('by both: the pit first, the wall over it; its box holds all it changes', () => {
    const both: Earthwork = { ...WALLED, pit: [[95, 79], [107, 79], [107, 100], [95, 100]], levels: { crestM: 106.5, floorM: 103 } }; // prettier-ignore
    const { box, levelAt } = basinBuilt(both, measureBasin(both, { grid }));
    const at = (x: number, y: number): number => levelAt([x, y], { groundM: valleyAt(x, y), madeM: valleyAt(x, y) });
    expect([at(101, 81), at(101, 97)]).toEqual([106.5, expect.closeTo(valleyAt(101, 97) - 1.5, 9)]);
    for (let x = 40; x < 160; x += 2)
      for (let y = 40; y < 140; y += 2)
        if (x < box[0] || x > box[2] || y < box[1] || y > box[3]) expect(at(x, y)).toBeCloseTo(valleyAt(x, y), 9);
    expect(box[0]).toBeLessThan(81);
    expect(box[3]).toBeGreaterThan(100);
  });
});

it('a pit behind a wall is dug from the same ground, and adds to what the wall holds', () => {
  const both: Earthwork = { ...WALLED, pit: [[95, 90], [107, 90], [107, 100], [95, 100]], levels: { crestM: 106.5, floorM: 103 } }; // prettier-ignore
  const ground = measureBasin(both, { grid });
  const basin = basinOf(both, ground);
  const alone = basinOf(WALLED, measureBasin(WALLED, { grid }));
  expect(basin.dugM3).toBeGreaterThan(50);
  // Over its crest water falls where the ground behind is lowest, not at the rim of the pit.
  const [top] = brimOutlets(both, ground, out);
  expect(top.dischargeAt).toEqual(ground.bottomAt);
  expect(top.dischargeAt).not.toEqual(ground.rim?.lowestAt);
  const more = waterAt(basin, 105.9).volumeM3 - waterAt(alone, 105.9).volumeM3;
  expect(Math.abs(more / basin.dugM3 - 1)).toBeLessThan(0.15);
});
