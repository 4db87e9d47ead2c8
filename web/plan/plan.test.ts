import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '#core/contract';
import type { Project } from '#core/project';
import type Geometry from 'ol/geom/Geometry.js';
import LineString from 'ol/geom/LineString.js';
import MultiLineString from 'ol/geom/MultiLineString.js';
import type OlPoint from 'ol/geom/Point.js';
import type Polygon from 'ol/geom/Polygon.js';
import { derived, planeProject, SILL, SWALE } from '../../core/testing/projects.ts';
import { gridOf } from '../../core/testing/grids.ts';
import { FOUR_DAMS } from '../../core/testing/valley.ts';
import { THEMES } from '../app/theme.ts';
import { planItems } from './items.ts';
import { markId } from './marks.ts';
import { offsetLine } from './offset.ts';
import { typedPoint } from './points.ts';
import { readGround } from './read.ts';
import { basinStyles } from './style-parts.ts';
import type { Drawing, PlanItem } from './types.ts';

describe('the plan', () => {
  const project = planeProject({
    pins: [{ id: 'k', at: [101, 31] }],
    features: [
      {
        id: 'h',
        kind: 'building',
        ring: [
          [1, 1],
          [9, 1],
          [9, 7],
        ],
      },
    ],
  });
  const drawing = {
    project,
    result: derived(project),
    selected: 'w1',
    levelText: String,
    flowText: (q: number) => `${q.toFixed(3)}`,
    showPegs: true,
  };
  it('draws all there is: land, catchments, works, where water goes and leaves, pins and pegs', () => {
    const ids = planItems(drawing).map((i) => i.id);
    expect(ids).toEqual(
      expect.arrayContaining(['outline', 'feature:h', 'catchment:w1', 'catchment:k', 'w1', 's1', 'link:s1', 'exit:s1', 'k', 'peg:0']),
    );
    expect(new Set(ids).size).toBe(ids.length);
    expect(planItems({ ...drawing, showPegs: false }).some((i) => i.id.startsWith('peg'))).toBe(false);
  });
  it('says anew what leaves where the ways of water are others, though the places it leaves at are the same', () => {
    const { result } = drawing;
    const left = (peakM3s: number): (string | undefined)[] => {
      const links = result.derived.links.map((link) => ({ ...link, peakM3s }));
      const drawn = planItems({ ...drawing, result: { ...result, derived: { ...result.derived, links } } });
      return drawn.filter((i) => i.id === 'exit:s1').map((i) => i.look.label);
    };
    expect([left(0.25), left(0.5), left(0)]).toEqual([['leaves: 0.250'], ['leaves: 0.500'], [undefined]]);
  });
  it('draws no way that is only taken when all is full or blocked', () => {
    const { result } = drawing;
    const links = result.derived.links.map((link) => (link.outlet === 's1' ? { ...link, isRare: true as const } : link));
    const ids = planItems({ ...drawing, result: { ...result, derived: { ...result.derived, links } } }).map((i) => i.id);
    expect(ids.filter((id) => id === 'link:s1' || id === 'exit:s1')).toEqual([]);
  });
  it('marks places found of a picture while it is pinned, by their numbers', () => {
    const px = [0, 0] as const;
    const picture = { id: 'air', name: 'Air', sha256: 'a', kind: 'image/png', widthPx: 9, heightPx: 9, source: 'a.png', laying: null, opacityPercent: 70, pins: [{ px, at: [5, 6] }, { px, at: [7, 8] }] } as const; // prettier-ignore
    const pinned = (pinning: string | null): string[] =>
      planItems({ ...drawing, project: { ...project, pictures: [picture] }, pinning }).flatMap((i) => (i.id.startsWith('pinned') ? [`${i.look.label ?? ''} ${(i.geometry as OlPoint).getCoordinates().join()}`] : [])); // prettier-ignore
    expect([pinned('air'), pinned(null), pinned('other')]).toEqual([['1 5,6', '2 7,8'], [], []]);
  });
  it('redraws only what changed', () => {
    const changed = { ...project, options: [{ ...project.options[0], works: [SWALE, { ...SILL, atM: 60 } as typeof SILL] }] };
    const before = new Map(planItems(drawing).map((i) => [i.id, i.version]));
    const after = planItems({ ...drawing, project: changed });
    expect(after.filter((i) => before.get(i.id) !== i.version).map((i) => i.id)).toEqual(['s1']);
  });
  it('draws a work anew only when it or what it was drawn from is another, and never where a hand left its mark', () => {
    const withDams = (...works: readonly WorkBase[]): Project => ({
      ...project,
      options: [{ ...project.options[0], works: [FOUR_DAMS, ...works] }],
    });
    const drawnOf = (id: string, on: Partial<Drawing> = {}): PlanItem =>
      planItems({ ...drawing, project: withDams(SWALE), ...on }).find((item) => item.id === id) as PlanItem;
    const bed = drawnOf(FOUR_DAMS.id);
    // Another work, another answer: what a series was drawn from is the same.
    const other = { project: withDams({ ...SWALE, name: 'Other' }), result: derived(planeProject()) };
    expect(drawnOf(FOUR_DAMS.id, other).geometry).toBe(bed.geometry);
    const chosen = drawnOf(FOUR_DAMS.id, { selected: FOUR_DAMS.id });
    expect([chosen.look.isSelected, bed.look.isSelected, chosen.version === bed.version]).toEqual([true, false, false]);
    // A swale is as wide on the plan as its section says, which is another in each answer.
    expect(drawnOf('w1', { result: null }).version).not.toBe(drawnOf('w1').version);
    const grip = (): OlPoint => drawnOf(markId(FOUR_DAMS.id, 'dam1')).geometry as OlPoint;
    const stood = grip().getCoordinates();
    grip().translate(50, 50);
    expect(grip().getCoordinates()).toEqual(stood);
  });
  it('leaves the dams of a series the marks they were while one is moved', () => {
    const marksOf = (work: WorkBase): ReadonlyMap<string, PlanItem> =>
      new Map(
        planItems({ ...drawing, project: { ...project, options: [{ ...project.options[0], works: [work] }] } }).map((i) => [i.id, i]),
      );
    const before = marksOf(FOUR_DAMS);
    const [first, second, ...rest] = FOUR_DAMS.dams;
    const after = marksOf({ ...FOUR_DAMS, dams: [first, { ...second, atM: second.atM + 1 }, ...rest] } as typeof FOUR_DAMS);
    const bars = FOUR_DAMS.dams.map((_, k) => `dam:${FOUR_DAMS.id}:${k}`);
    expect(bars.map((id) => after.get(id)!.geometry === before.get(id)!.geometry)).toEqual([true, false, true, true]);
    expect(bars.map((id) => after.get(id)!.version === before.get(id)!.version)).toEqual([true, false, true, true]);
    // On another line all stand elsewhere.
    const moved = marksOf({ ...FOUR_DAMS, line: FOUR_DAMS.line.map(([x, y]) => [x + 3, y] as const) } as typeof FOUR_DAMS);
    expect(bars.some((id) => moved.get(id)!.version === before.get(id)!.version)).toBe(false);
  });
  it('draws a catchment and a way of water again only when it or what is chosen is another', () => {
    const of = (on: Partial<Drawing>, id: string): PlanItem => planItems({ ...drawing, ...on }).find((i) => i.id === id) as PlanItem;
    for (const id of ['catchment:w1', 'link:s1']) {
      const one = of({}, id);
      expect(of({ project: { ...project, pins: [] } }, id)).toBe(one);
      const [chosen, other] = id === 'link:s1' ? ['s1', 'k'] : ['w1', 'k'];
      expect([of({ selected: chosen }, id).look.isSelected, of({ selected: other }, id).look.isSelected]).toEqual([true, false]);
    }
    const { catchments } = drawing.result.derived;
    const moved = catchments.map((c) => (c.of === 'w1' ? { ...c, ring: c.ring.map(([x, y]) => [x + 4, y] as const) } : c));
    const result = { ...drawing.result, derived: { ...drawing.result.derived, catchments: moved } };
    expect(of({ result }, 'catchment:w1').version).not.toBe(of({}, 'catchment:w1').version);
  });
  it('draws basins one by one where they can be told apart, else the row they stand in, its name once', () => {
    const basin = (x: number): number[][] => [[x, 0], [x + 1, -1.5], [x + 3, 0]]; // prettier-ignore
    const row = new MultiLineString([basin(0), basin(10), basin(20)]);
    const drawnAt = (resolution: number, geometry: Geometry = row) => {
      const styles = basinStyles({ role: 'basin-row', label: 'Moons', width: 0.4 }, THEMES.paper, { geometry, resolution });
      const stroked = styles.filter((s) => s.getStroke()).map((s) => s.getGeometry() as Geometry);
      return { stroked, named: styles.filter((s) => s.getText()).map((s) => s.getGeometry() as LineString) };
    };
    // Three metres across: six pixels at half a metre each.
    expect(drawnAt(0.49).stroked.every((g) => g === row)).toBe(true);
    const far = drawnAt(0.51);
    expect(far.stroked.map((g) => (g as LineString).getCoordinates())).toEqual(far.stroked.map(() => [[1.5, 0], [11.5, 0], [21.5, 0]])); // prettier-ignore
    expect([drawnAt(0.1).named.length, far.named.length, far.named[0].getType()]).toEqual([1, 1, 'LineString']);
    // A row without basins is what it is.
    const line = new LineString([[0, 0], [9, 0]]); // prettier-ignore
    expect(drawnAt(50, line).stroked.every((g) => g === line)).toBe(true);
  });
  it('smooths each outline once, however many there are', () => {
    // More than any plan had when it was thought of: an outline of many steps for each.
    const stairs = Array.from({ length: 400 }, (_, k): [number, number] => [Math.floor((k + 1) / 2), Math.floor(k / 2)]);
    const [one] = drawing.result.derived.catchments;
    const catchments = Array.from({ length: 300 }, (_, k) => ({
      ...one,
      of: `c${k}`,
      ring: stairs.map(([x, y]): [number, number] => [x + k, y]),
    }));
    const many = { ...drawing, result: { ...drawing.result, derived: { ...drawing.result.derived, catchments } } };
    const rings = (): unknown[] =>
      planItems(many).flatMap((i) => (i.look.role === 'catchment' ? [(i.geometry as Polygon).getCoordinates()] : []));
    const first = rings();
    expect(first.length).toBe(300);
    let looked = 0;
    const asked = catchments.map((c) => ({
      ...c,
      ring: new Proxy(c.ring, { get: (of, key) => (key === Symbol.iterator && looked++, Reflect.get(of, key) as unknown) }),
    }));
    many.result.derived.catchments = asked;
    expect(rings()).toEqual(first);
    expect(looked).toBe(0);
  });
  it('offsets a line to its right, keeping its distance', () => {
    const moved = offsetLine(
      new LineString([
        [0, 0],
        [10, 0],
        [20, 0],
      ]),
      2,
    ).getCoordinates();
    expect(moved).toEqual([
      [0, -2],
      [10, -2],
      [20, -2],
    ]);
  });
  it('reads typed places and refuses others', () => {
    expect(typedPoint('431200, 4612300')).toEqual([431200, 4612300]);
    expect(typedPoint('12.5 7')).toEqual([12.5, 7]);
    expect(typedPoint('north')).toBeNull();
    expect(typedPoint('1,2,3')).toBeNull();
  });
  it('reads level and slope under the pointer, and nothing off the ground', () => {
    const grid = gridOf((x) => 50 + 0.1 * x, { cells: 10, cellM: 2 });
    const view = { terrain: 't', key: '', frame: grid, reliefM: 1, z: grid.z, areaM2: new Float32Array(100).fill(8) };
    const read = readGround(view, [9, 9]);
    expect(read?.levelM).toBeCloseTo(50.9, 4);
    expect(read?.slope).toBeCloseTo(0.1, 4);
    expect(readGround(view, [-1, 9])).toBeNull();
  });
});
