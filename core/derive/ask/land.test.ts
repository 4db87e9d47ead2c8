// Questions about the land, asked of a plane that falls 10 % to the south, with things seen on it.
import { describe, expect, it } from '@jest/globals';
import type { Feature } from '../../contract/index.ts';
import type { Line, Point } from '../../geometry/index.ts';
import type { Project } from '../../project/index.ts';
import { spoken } from '../../units/index.ts';
import { registry } from '../../works/index.ts';
import { SEEN_KINDS } from '../../seen/index.ts';
import { LIP_M, SWALE, derived, planeLevels, planeProject } from '../../testing/projects.ts';
import { plane } from '../../testing/grids.ts';
import {
  LAYERS,
  type RoomContext,
  Graph,
  compareWithout,
  contourThrough,
  contoursOf,
  departure,
  fall,
  hollowAt,
  layerOf,
  pathDown,
  placeWords,
  places,
  reopen,
  runOn,
  sectionAlong,
  shadeOf,
  slopeAreas,
  storage,
} from '../index.ts';

const context = (): RoomContext => ({ registry, grids: () => plane(0.1, 0), graph: new Graph() });
const seen = (kind: string, more: Partial<Feature>, id = 'f1'): Feature => ({
  id,
  kind,
  ...SEEN_KINDS.find((k) => k.kind === kind)?.start,
  ...more,
});
const withSeen = (...features: Feature[]): Project => planeProject({ features });
/** Across the left two thirds of the swale, falling to the west: its water leaves past the west end. */
const WINDROW: Line = [
  [22, 138],
  [130, 144],
];
const windrow = (more: Partial<Feature> = {}): Feature => seen('windrow', { line: WINDROW, ...more });
/** The plane with a bowl of 2 m at (61, 61). */
const bowl = (): Project => {
  const z = planeLevels(0.02).map((v, i) => {
    const [x, y] = [((i % 101) + 0.5) * 2, (101 - Math.floor(i / 101) - 0.5) * 2];
    return v + Math.min(0, (((x - 61) ** 2 + (y - 61) ** 2) / 225 - 1) * 2);
  });
  return planeProject({ terrain: { ...planeProject().terrain!, z } as Project['terrain'] });
};

describe('a windrow above a swale', () => {
  const area = (p: Project): number => derived(p).derived.catchments.find((c) => c.of === 'w1')?.areaM2 ?? 0;
  it('takes what lies above it from the swale, at once and in derive', () => {
    const whole = area(planeProject());
    const cut = area(withSeen(windrow()));
    expect(cut).toBeLessThan(0.75 * whole);
    const [row] = compareWithout(withSeen(windrow()), context(), { id: 'f1' });
    expect(row).toMatchObject({ id: 'w1', withM2: cut, withoutM2: whole });
  });
  it('opened where the answer says, gives back what the answer says', () => {
    const project = withSeen(windrow());
    const answer = reopen(project, context(), { id: 'f1', target: 'w1' });
    expect(answer?.cutM).toBe(0.15);
    expect(answer?.openings.length).toBeGreaterThan(0);
    expect(answer?.lengthM).toBeLessThan(15);
    const open = answer?.openings.map((o) => [o.fromM, o.toM] as const);
    expect(area(withSeen(windrow({ open })))).toBe(answer?.openedM2);
    const back = ((answer?.openedM2 ?? 0) - (answer?.nowM2 ?? 0)) / ((answer?.withoutM2 ?? 1) - (answer?.nowM2 ?? 0));
    expect(back).toBeGreaterThan(0.5);
  });
  it('far below it takes nothing, and needs no opening', () => {
    const below = seen('windrow', {
      line: [
        [22, 40],
        [130, 44],
      ],
    });
    const answer = reopen(withSeen(below), context(), { id: 'f1', target: 'w1' });
    expect(answer).toMatchObject({ openings: [], lengthM: 0 });
    expect(answer?.nowM2).toBe(answer?.withoutM2);
  });
  it('that is no bank, or a target that is not there, has no answer', () => {
    expect(reopen(withSeen(seen('ditch', { line: WINDROW })), context(), { id: 'f1', target: 'w1' })).toBeNull();
    expect(reopen(withSeen(windrow()), context(), { id: 'f1', target: 'zz' })).toBeNull();
    expect(() => compareWithout(planeProject(), context(), { id: 'zz' })).toThrow('nothing with the id "zz"');
  });
});

describe('other things seen', () => {
  it('a culvert through a windrow gives the swale its water again', () => {
    const culvert = seen(
      'culvert',
      {
        line: [
          [24, 140],
          [60, 112],
        ],
      },
      'c1',
    );
    const without = derived(withSeen(windrow())).derived.catchments[0].areaM2;
    const led = derived(withSeen(windrow(), culvert)).derived;
    expect(led.catchments[0].areaM2).toBeGreaterThan(without + 3000);
    expect(led.checks.find((c) => c.on === 'c1')).toMatchObject({ id: 'seen.led-uphill', severity: 'fine' });
  });
  it('a pipe drawn uphill carries nothing and says so', () => {
    const found = derived(
      withSeen(
        seen('pipe', {
          line: [
            [60, 60],
            [60, 140],
          ],
        }),
      ),
    ).derived.checks.find((c) => c.on === 'f1');
    expect(found).toMatchObject({ id: 'seen.led-uphill', severity: 'mend' });
    expect(found?.value).toBeCloseTo(-8, 1);
  });
  it('a downspout below the swale takes its roof’s water past it', () => {
    const house: Feature = {
      id: 'h',
      kind: 'building',
      name: 'House',
      ring: [
        [90, 104],
        [110, 104],
        [110, 116],
        [90, 116],
      ],
    };
    const roofM2 = 20 * 12;
    const on = derived(withSeen(house)).derived.catchments[0].areaM2;
    const past = derived(withSeen(house, seen('downspout', { at: [100, 97] }))).derived.catchments[0].areaM2;
    expect(Math.abs(on - past - roofM2)).toBeLessThan(0.2 * roofM2);
  });
  it('a downspout takes the whole of a great roof, however many cells it has', () => {
    const shed: Feature = {
      id: 'h',
      kind: 'building',
      ring: [
        [60, 104],
        [140, 104],
        [140, 144],
        [60, 144],
      ],
    };
    const on = derived(withSeen(shed)).derived.catchments[0].areaM2;
    const past = derived(withSeen(shed, seen('downspout', { at: [100, 97] }))).derived.catchments[0].areaM2;
    // 800 cells of roof; what runs against its walls still finds the swale round its ends.
    expect(Math.abs(on - past - 80 * 40)).toBeLessThan(0.1 * 80 * 40);
  });
  it('a spring feeds the first work below it, day and night', () => {
    const spring = seen('spring', { at: [100, 150], flowM3s: 0.001 });
    const d = derived(withSeen(spring)).derived;
    expect(d.springs[0]).toMatchObject({ id: 'f1', to: 'w1', flowM3s: 0.001 });
    const [dry] = derived(planeProject()).derived.stores;
    const [wet] = d.stores;
    expect((wet.inM3 ?? 0) - (dry.inM3 ?? 0)).toBeGreaterThan(20);
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    expect(derived(withSeen(seen('spring', { at: [100, 50] }))).derived.springs[0].to).toBe('property-edge');
  });
  it('an arrow with the computed flow agrees; one across it is flagged with the likeliest cause', () => {
    const check = (...f: Feature[]) => derived(withSeen(...f)).derived.checks.find((c) => c.id === 'seen.flow-arrow');
    expect(
      check(
        seen('flow-arrow', {
          line: [
            [60, 150],
            [60, 140],
          ],
        }),
      )?.severity,
    ).toBe('fine');
    const across = seen('flow-arrow', {
      line: [
        [60, 150],
        [75, 150],
      ],
    });
    expect(check(across)).toMatchObject({ severity: 'weigh' });
    expect(Math.abs((check(across)?.value ?? 0) - 90)).toBeLessThan(5);
    expect(check(across)?.do).toMatch(/look for a windrow/);
    const track: Feature = {
      id: 't',
      kind: 'track',
      name: 'Mill track',
      line: [
        [50, 155],
        [90, 155],
      ],
    };
    expect(check(across, track)?.do).toMatch(/Mill track is near/);
  });
  it('a ditch wet at its higher end is to weigh; marks tell standing from running water', () => {
    const on = (f: Feature) => derived(withSeen(f)).derived.checks.find((c) => c.on === 'f1');
    const line: Line = [
      [40, 160],
      [80, 158],
    ];
    expect(on(seen('ditch', { line, wetEnd: 'end' }))?.severity).toBe('fine');
    expect(on(seen('ditch', { line, wetEnd: 'start' }))).toMatchObject({ severity: 'weigh', id: 'seen.wet-end' });
    const level = on(
      seen('debris-line', {
        line: [
          [40, 160],
          [80, 160],
        ],
        heightM: 0.2,
      }),
    );
    expect(spoken(level?.said.title ?? '', 'metric')).toMatch(/Water stood at 116\.20/);
    expect(
      on(
        seen('debris-line', {
          line: [
            [40, 160],
            [40, 120],
          ],
        }),
      )?.title,
    ).toMatch(/Water ran here/);
  });
});

describe('asked of the plane', () => {
  const project = planeProject();
  it('every layer covers the ground in its own unit', () => {
    const eroding = { ...project, ground: project.ground && { ...project.ground, erosion: { annualMm: 600 } } };
    for (const layer of LAYERS) expect(layerOf(eroding, context(), { layer })).toHaveLength(101 * 101);
    const middle = 50 * 101 + 50;
    expect(layerOf(project, context(), { layer: 'slope' })[middle]).toBeCloseTo(0.1, 4);
    expect(layerOf(project, context(), { layer: 'aspect' })[middle]).toBeCloseTo(180, 1);
    expect(layerOf(project, context(), { layer: 'area' })[middle]).toBeCloseTo(51 * 4, -1);
    expect(layerOf(project, context(), { layer: 'hollows' }).every(Number.isNaN)).toBe(true);
    expect(slopeAreas(project, context()).find((c) => c.areaM2 > 0)?.id).toBe('moderate');
    expect(shadeOf(project, context(), { sun: { bearing: 180, height: 45 } })[middle]).toBeGreaterThan(
      shadeOf(project, context(), { sun: { bearing: 0, height: 45 } })[middle],
    );
  });
  it('contours of more corners than a picture needs keep their lines, their ends and their levels', () => {
    // Fine ground, so that the lines are beyond those that are made smoother.
    const n = 420;
    const z = Array.from({ length: n * n }, (_, i) => 100 + 0.02 * (i % n) + 6 * Math.sin(i / n / 9) + 5 * Math.sin((i % n) / 11));
    const fine: Project = {
      ...project,
      terrain: { kind: 'grid', ncols: n, nrows: n, west: 0, south: 0, cellM: 1, rows: 'north-first', z },
    };
    const whole = contoursOf(fine, context(), { intervalM: 0.1 });
    const thin = contoursOf(fine, context(), { intervalM: 0.1, most: 20_000 });
    expect(whole.xy.length / 2).toBeGreaterThan(60_000);
    expect(thin.levelM).toEqual(whole.levelM);
    expect(thin.xy.length / 2).toBeLessThan(20_000 + 2 * thin.levelM.length);
    const ends = ({ xy, starts }: typeof whole, k: number): number[] => [
      xy[2 * starts[k]],
      xy[2 * starts[k] + 1],
      xy[2 * starts[k + 1] - 2],
      xy[2 * starts[k + 1] - 1],
    ];
    for (let k = 0; k < thin.levelM.length; k += 37) expect(ends(thin, k)).toEqual(ends(whole, k));
    expect(contoursOf(fine, context(), { intervalM: 2, most: 1e9 }).xy.length).toBe(
      contoursOf(fine, context(), { intervalM: 2 }).xy.length,
    );
  });
  it('contours come at any interval and through any point, and too many are refused', () => {
    const { levelM } = contoursOf(project, context(), { intervalM: 2.5 });
    expect([...new Set(levelM)].slice(0, 3)).toEqual([102.5, 105, 107.5]);
    const at: Point = [71, 83];
    const through = contourThrough(project, context(), { at });
    expect(through?.levelM).toBeCloseTo(108.3, 4);
    for (const [, y] of through?.line ?? []) expect(y).toBeCloseTo(83, 3);
    expect(contourThrough(project, context(), { at: [-5, 5] })).toBeNull();
    expect(() => contoursOf(project, context(), { intervalM: 0.001 })).toThrow('contours');
  });
  it('what runs onto a line or a house is the strip above it', () => {
    const line: Line = [
      [40, 51],
      [100, 51],
    ];
    const own = runOn(planeProject({}, []), context(), { line });
    expect(own?.run?.areaM2).toBe(60 * 152);
    expect(own?.run?.isEven).toBe(true);
    // With the swale above, only what falls between the two is left.
    const shared = runOn(project, context(), { line });
    expect(shared?.run?.areaM2).toBe(60 * 50);
    const house = runOn(project, context(), {
      ring: [
        [90, 60],
        [102, 60],
        [102, 70],
        [90, 70],
      ],
    });
    expect(house?.run).toBeNull();
    expect(Math.abs((house?.aboveM2 ?? 0) / (12 * 132) - 1)).toBeLessThan(0.1);
    expect(
      runOn(project, context(), {
        line: [
          [-9, -9],
          [-5, -5],
        ],
      }),
    ).toBeNull();
  });
  it('departure, falls and sections are those of the plane', () => {
    expect(
      departure(project, context(), {
        line: [
          [40, 101],
          [140, 100],
        ],
      })?.rangeM,
    ).toBeCloseTo(0.1, 3);
    expect(fall(project, context(), { from: [50, 150], to: [50, 100], gradeM: 0.01 })?.fallM).toBeCloseTo(5, 2);
    const section = sectionAlong(project, context(), {
      line: [
        [50, 150],
        [50, 100],
      ],
    });
    expect(section).toMatchObject({ lengthM: 50, ends: 'line' });
    expect(section.fallM).toBeCloseTo(5, 3);
    const down = pathDown(project, context(), { from: [50, 150] });
    expect(down.ends).toBe('property-edge');
    expect(down.points[down.points.length - 1].at[1]).toBeLessThan(11);
    expect(down.fallM / down.lengthM).toBeCloseTo(0.1, 2);
  });
  it('has no places at all, holds nothing behind a straight wall, and no hollow', () => {
    expect(places(project, context()).places).toEqual([]);
    expect(
      storage(project, context(), {
        line: [
          [60, 101],
          [140, 101],
        ],
      }),
    ).toBeNull();
    expect(hollowAt(project, context(), { at: [101, 101] })).toBeNull();
  });
  it('without ground says what is missing', () => {
    expect(() => places(planeProject({ terrain: null }), context())).toThrow('there is no ground yet');
  });
});

describe('a hollow', () => {
  it('is found with its depth, told in words, and drained when rims are cut', () => {
    const d = derived(bowl()).derived;
    expect(d.hollows).toHaveLength(1);
    const [hollow] = d.hollows;
    expect(hollow.depthM).toBeGreaterThan(1.5);
    const [standing] = places(bowl(), context()).places.filter((p) => p.kind === 'standing-water');
    expect(spoken(placeWords(standing), 'metric')).toMatch(
      /^Water stands here up to 1\.\d\d\sm deep, \d+\sm³ over \d+\sm², until it spills at 10\d\.\d\d\sm/,
    );
    expect(spoken(placeWords(standing), 'us')).toMatch(/ft deep, [\d\s]+ft³/);
    const water = hollowAt(bowl(), context(), { at: standing.at });
    expect(water?.full.volumeM3).toBeCloseTo(hollow.volumeM3, 0);
    expect(water?.ring.length).toBeGreaterThan(8);
    expect(derived({ ...bowl(), land: { hollows: 'breach' } }).derived.hollows).toEqual([]);
  });
  it('answers with a wall line: level, storage and how far it reaches', () => {
    const walled = storage(
      planeProject({
        terrain: {
          ...planeProject().terrain!,
          z: planeLevels(0.05).map((v, i) => v + 0.1 * Math.abs(((i % 101) + 0.5) * 2 - 101)),
        } as Project['terrain'],
      }),
      context(),
      {
        line: [
          [41, 61],
          [161, 61],
        ],
        levelM: 105,
      },
    );
    const H = 105 - (100 + 0.05 * 61);
    expect(Math.abs((walled?.at.volumeM3 ?? 0) / (H ** 3 / (3 * 0.05 * 0.1)) - 1)).toBeLessThan(0.12);
    expect(walled?.ring.length).toBeGreaterThan(8);
  });
});

it('the swale under test stands where its windrow is meant to cut it off', () => {
  expect(SWALE.line[0][1]).toBeLessThan(WINDROW[0][1]);
  expect(LIP_M).toBeCloseTo(100 + 0.1 * 101, 6);
});
