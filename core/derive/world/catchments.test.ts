// Ground gathered for many things one after the other, held against ground gathered for each alone.
import { describe, expect, it } from '@jest/globals';
import type { Intake } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { Project } from '../../project/index.ts';
import { catchingCells, shapeOf, slopesOf, upstreamOf } from '../../terrain/index.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import { exitGrounds, insideOf, naturalCatchments } from './catchments.ts';
import { interception } from './interception.ts';
import { groundModel } from './ground-model.ts';

const N = 61;
const level = (x: number, y: number): number => 100 + 0.09 * y + 0.0012 * (x - 40) ** 2 + 0.15 * Math.sin(x / 7) * Math.cos(y / 5);
const z = Array.from({ length: N * N }, (_, i) => level(2 * ((i % N) + 0.5), 2 * (N - Math.floor(i / N) - 0.5)));
const terrain: Project['terrain'] = { kind: 'grid', ncols: N, nrows: N, west: 0, south: 0, cellM: 2, rows: 'north-first', z };
const project = { ...planeProject(), terrain };
const model = groundModel(project, { registry, grids: noGrid, graph: new Graph() }, [])!;
const { grid, flow, edge } = model;

const line = (y: number): Line => [[20, y], [60, y - 2]]; // prettier-ignore
/** One below the other: what comes to each would come to the next. */
const lists = [20, 50, 80].map((y, k): readonly Intake[] => [{ store: `s${k}`, line: line(y) }]);

const alone = ([intake]: readonly Intake[]) => {
  const set = upstreamOf(flow, catchingCells(grid, intake));
  // What is only measured has no outline.
  const size = { ...shapeOf(grid, flow, { ...set, edge, slopes: slopesOf(grid, edge) }), ring: undefined };
  return { catchment: { of: intake.store, ...size }, members: set.members };
};

describe('ground of many stores', () => {
  it.each([[lists], [[...lists].reverse()]])('is what each would gather alone, whichever comes first', (all) => {
    const gathered = naturalCatchments(model, all, new Graph());
    expect(gathered).toEqual(all.map(alone));
    // Each holds that of the next one up.
    const areas = new Map(gathered.map(({ catchment: { of, areaM2 } }) => [of, areaM2]));
    expect([areas.get('s0')! > areas.get('s1')!, areas.get('s1')! > areas.get('s2')!, areas.get('s2')! > 400]).toEqual([true, true, true]);
  });
  it('stays as it was gathered while others are gathered again', () => {
    const graph = new Graph();
    const before = naturalCatchments(model, lists, graph);
    // The first reaches no other cells, though it is drawn anew; the second does.
    const now = naturalCatchments(model, [[{ store: 's0', line: [...line(20)] }], [{ store: 's1', line: line(54) }], lists[2]], graph);
    expect([now[0] === before[0], now[1] === before[1], now[2] === before[2]]).toEqual([true, false, true]);
    expect(now[1]).toEqual(alone([{ store: 's1', line: line(54) }]));
  });
});

describe('ground of places where water leaves', () => {
  it('is parted among them, and what no store catches is what bears none of their numbers', () => {
    const graph = new Graph();
    const inside = insideOf(model, [], graph);
    const met = interception(model, lists, graph);
    const label = met.label.read();
    const exits = exitGrounds(model, inside, { met, graph });
    expect(exits.reduce((sum, { whole }) => sum + whole.members.length, 0)).toBe(N * N);
    let caught = 0;
    for (const { exit, id, whole, uncaught } of exits) {
      const set = upstreamOf(flow, exit.cells);
      expect([whole.catchment.of, uncaught.catchment.of]).toEqual([id, id]);
      expect(whole.members).toEqual(set.members);
      expect(uncaught.members).toEqual(set.members.filter((i) => label[i] === 0));
      expect(uncaught.catchment.areaM2).toBe(4 * uncaught.members.length);
      caught += whole.members.length - uncaught.members.length;
    }
    expect(caught).toBe(label.reduce((n, number) => n + (number > 0 ? 1 : 0), 0));
    expect(caught).toBeGreaterThan(100);
  });
});
