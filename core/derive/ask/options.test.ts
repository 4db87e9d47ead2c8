// Options side by side: each as if it stood alone, and one hollow in all of them.
import { describe, expect, it } from '@jest/globals';
import { execute, startHistory } from '../../commands/index.ts';
import type { Project } from '../../project/index.ts';
import { SILL, SWALE, noGrid, planeProject } from '../../testing/projects.ts';
import { MOONS, valleyProject } from '../../testing/valley.ts';
import { newDrain, newSeepDrain, registry } from '../../works/index.ts';
import { Graph, compareOptions, derive } from '../index.ts';

const context = () => ({ registry, grids: noGrid, graph: new Graph() });
const with2nd = (project: Project, works: Project['options'][number]['works']): Project => ({
  ...project,
  options: [...project.options, { id: 'o2', name: 'B', works }],
});

describe('options side by side', () => {
  it('are each told as when it is looked at alone, and leave nothing behind', () => {
    const project = with2nd(planeProject(), [SWALE, { ...SILL, dimensions: { ...SILL.dimensions, lengthM: 2 } } as typeof SILL]);
    const on = context();
    const { options } = compareOptions(project, on);
    for (const told of options) {
      const { derived } = derive({ ...project, activeOption: told.option }, context());
      expect(told.mend).toBe(derived.checks.filter((c) => c.severity === 'mend').length);
      expect(told.weigh).toBe(derived.checks.filter((c) => c.severity === 'weigh').length);
      expect(told.unknown).toBe(derived.checks.filter((c) => c.severity === 'unknown').length);
      expect(told.least).toMatchObject({ store: 'w1', leftM: derived.stores[0].least!.value });
      expect(told.holdsM3).toBeCloseTo(derived.stores[0].heldM3, 9);
      // On a plane water leaves all along the line, at no one place.
      expect([told.leavesM3s, derived.exits.some((e) => e.isPlace)]).toEqual([null, false]);
    }
    // A narrower sill leaves less.
    expect(options[1].least!.leftM).toBeLessThan(options[0].least!.leftM);
    expect(derive(project, on).derived).toEqual(derive(project, context()).derived);
    // Works of the past are not counted, nor is freeboard where nothing is known of rain.
    const past = compareOptions(with2nd({ ...planeProject(), rain: null }, [{ ...SWALE, status: 'retired' }]), context()).options;
    expect(past.map((o) => [o.works, o.least, o.labour])).toEqual([[2, null, null], [0, null, null]]); // prettier-ignore
  });
  it('are told by labour where works tell hours', () => {
    const project = with2nd(valleyProject([MOONS]), []);
    const { options } = compareOptions(project, context());
    const places = derive(project, context()).derived.exits.filter((e) => e.isPlace);
    expect(options[0].leavesM3s).toBe(Math.max(...places.map((e) => e.worst.peakM3s.value)));
    expect(options[0].labour!.aFill).toBeCloseTo((1000 * options[0].labour!.holdsM3) / options[0].labour!.hours, 9);
    expect([options[0].rows.length, options[1].rows.length, options[1].labour]).toEqual([1, 0, null]);
  });
  it('show how one hollow stands in each: a holed pipe leaves it full for days, a drain empties it', () => {
    const z = Array.from({ length: 81 * 81 }, (_, i) => {
      const r = Math.hypot(((i % 81) + 0.5) * 0.5 - 20, (81 - Math.floor(i / 81) - 0.5) * 0.5 - 20);
      return 100 + 0.03 * Math.min(r, 30 - r);
    });
    const yard = planeProject(
      { terrain: { kind: 'grid', ncols: 81, nrows: 81, west: 0, south: 0, cellM: 0.5, rows: 'north-first', z }, site: { crs: null, outline: [], zeroLevelM: 0 } },
      [newSeepDrain('h', 'Holed pipe', { line: [[24, 20], [16, 20]], purpose: 'yard', levels: { upperM: 99.5, outletM: 99.42 } })],
    ); // prettier-ignore
    const drain = newDrain('d', 'Drain', { line: [[20, 20], [20, 2]], basins: [{ atM: 0, invertM: 99.6, pipeM: 0.2, grateLongM: 0.5, grateWideM: 0.5, sumpM: 0.15 }], levels: { outletM: 99.4 } } as never); // prettier-ignore
    const three: Project = { ...with2nd(yard, [drain]), options: [...with2nd(yard, [drain]).options, { id: 'o3', name: 'C', works: [] }] };
    const { hollows } = compareOptions(three, context());
    expect(hollows.map((h) => h.name)).toEqual(['Drain']);
    const [before, after, none] = hollows[0].stands;
    expect(none).toBeNull();
    expect(before!.isStill).toBe(true);
    expect(after!.isStill).toBe(false);
    expect(before!.foundM).toBeGreaterThan(3 * after!.foundM);
    expect(before!.standsH).toBeGreaterThan(10 * after!.standsH);
    expect(after!.worstM).toBeGreaterThan(after!.foundM);
    // By hand: level over the lowest ground, of the store the work has when looked at alone.
    const [store] = derive({ ...three, activeOption: 'o1' }, context()).derived.stores;
    expect(before!.foundM).toBeCloseTo(store.peakLevelM! - store.hollow!.lowM, 9);
    expect(store.hollow!.at).toEqual(hollows[0].at);
  });
  it('a copy is told as what it was copied from', () => {
    const { project } = execute(startHistory(planeProject()), { type: 'option.copy', payload: { from: 'o1', id: 'o2', name: 'B' } }, { registry }); // prettier-ignore
    const [a, b] = compareOptions(project, context()).options;
    expect({ ...b, option: a.option, name: a.name }).toEqual(a);
  });
});
