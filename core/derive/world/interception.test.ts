// What catches water is moved about: what is worked out from the last answer is held against what is worked out from nothing, and
// against every cell's water followed by itself.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Feature, Intake } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { linkOf } from '../../network/index.ts';
import type { Project } from '../../project/index.ts';
import {
  type CellNumbers,
  cellAt,
  catchingCells,
  centreOf,
  lowestAmong,
  receiverOf,
  shareOfCell,
  upstreamOf,
  CellRoom,
} from '../../terrain/index.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import { waysDown } from '../water/ways.ts';
import { exitGrounds, insideOf, naturalCatchments, storeCatchments } from './catchments.ts';
import { groundModel } from './ground-model.ts';
import { interception } from './interception.ts';

const N = 57;
const HIGH = 2 * N;
const level = (x: number, y: number): number =>
  100 + 0.07 * y + 0.0012 * (x - 47) ** 2 + 0.4 * Math.sin(x / 7) * Math.cos(y / 9) + 0.2 * Math.sin(x / 3 + y / 4);
const z = Array.from({ length: N * N }, (_, i) => level(2 * ((i % N) + 0.5), HIGH - 2 * (Math.floor(i / N) + 0.5)));
// A corner nobody surveyed.
for (let row = 0; row < 9; row++) for (let col = 0; col < 7; col++) z[row * N + col] = NaN;
const terrain = { kind: 'grid', ncols: N, nrows: N, west: 0, south: 0, cellM: 2, rows: 'north-first', z: z.map((v) => (Number.isNaN(v) ? null : v)) } as Project['terrain']; // prettier-ignore
/** Water led across the slope: what is above its upper end comes out elsewhere. */
const culvert: Feature = { id: 'c1', kind: 'culvert', line: [[40, 70], [70, 40]] }; // prettier-ignore
const project = { ...planeProject(), terrain, features: [culvert] };
const on = { registry, grids: noGrid, graph: new Graph() };
const model = groundModel(project, on, [])!;
const { grid, flow } = model;
/** The same ground with nothing led across it: water runs otherwise. */
const unled = groundModel({ ...project, features: [] }, on, [])!;
const PROPERTY: Line = [[30, 40], [90, 40], [90, 100], [30, 100]]; // prettier-ignore

/** Where works stand, by numbers a hand would drag. */
interface Stand {
  readonly at: readonly (readonly [number, number])[];
  readonly size: number;
  readonly roofAt: number;
  /** A work that was taken away; none by -1. */
  readonly without: number;
  /** Whether the first two stand the other way round. */
  readonly isTurned: boolean;
  /** How far to the side the ways begin [cells]. */
  readonly beside: number;
  readonly hasProperty: boolean;
  readonly isUnled: boolean;
  /** Whether only what is caught is asked for. */
  readonly isGlance: boolean;
}
const STOOD = { roofAt: 60, without: -1, isTurned: false, beside: 0, hasProperty: false, isUnled: false, isGlance: false };

/** Stores that catch across lines, over a ring, at places, by narrow pieces, and one of a roof. */
function listsOf({ at: [a, b, c, d], size, roofAt: r, without, isTurned }: Stand): readonly (readonly Intake[])[] {
  const line = ([x, y]: readonly [number, number], long: number): Line => [[x, y], [x + long, y - 0.2 * long]]; // prettier-ignore
  const ring = ([x, y]: readonly [number, number]): Line => [[x, y], [x + size, y], [x + size, y + size], [x, y + size]]; // prettier-ignore
  const [first, second, ...rest] = [
    [{ store: 'across', line: line(a, 3 * size) }, { store: 'next', line: line([a[0], a[1] - 6], 2 * size) }], // prettier-ignore
    [{ store: 'over', ring: ring(b) }],
    [
      { store: 'places', points: [c, [c[0] + 4, c[1] + 1]] as Line },
      { store: 'places', line: line([c[0] + 9, c[1]], 1.2) },
    ],
    [0, 4, 8, 12].map((x) => ({ store: 'narrow', line: line([d[0] + x, d[1] + (x % 8)], 0.9) })),
    [{ store: 'roof', roof: [[r, 60], [r + 9, 60], [r + 9, 67], [r, 67]] as Line }], // prettier-ignore
  ];
  return (isTurned ? [second, first, ...rest] : [first, second, ...rest]).filter((_, k) => k !== without);
}

const tenths = (min: number, max: number): fc.Arbitrary<number> => fc.integer({ min: 10 * min, max: 10 * max }).map((v) => v / 10);
const place = fc.tuple(tenths(2, 100), tenths(8, 108));
const stand: fc.Arbitrary<Stand> = fc
  .record({ at: fc.tuple(place, place, place, place), size: tenths(2, 14) })
  .map((s) => ({ ...STOOD, ...s }));
type Change = (last: Stand) => Stand;
const moved = fc.tuple(fc.nat({ max: 3 }), tenths(-9, 9), tenths(-9, 9)).map(([which, dx, dy]): Change => (last) => ({
  ...last,
  at: last.at.map((p, k) => (k === which ? [p[0] + dx, p[1] + dy] : p)),
}));
const otherwise = fc.constantFrom<Change>(
  (last) => ({ ...last, roofAt: last.roofAt + 5 }),
  (last) => ({ ...last, without: last.without < 0 ? 1 : -1 }),
  (last) => ({ ...last, isTurned: !last.isTurned }),
  (last) => ({ ...last, beside: last.beside + 3 }),
  (last) => ({ ...last, beside: last.beside + 3, at: last.at.map(([x, y]) => [x + 2, y]) }),
  (last) => ({ ...last, hasProperty: !last.hasProperty, at: last.at.map(([x, y]) => [x, y - 2]) }),
  (last) => ({ ...last, isUnled: !last.isUnled }),
  (last) => ({ ...last, isGlance: true, at: last.at.map(([x, y], k) => [x + k, y - 2]) }),
);
/** Works are drawn somewhere, and then dragged about, with now and then another change between. */
const dragged = stand.chain((first) =>
  fc
    .array(fc.oneof({ weight: 3, arbitrary: moved }, { weight: 1, arbitrary: otherwise }), { minLength: 3, maxLength: 7 })
    .map((changes) =>
      changes.reduce<Stand[]>((stands, change) => [...stands, change({ ...stands[stands.length - 1], isGlance: false })], [first]),
    ),
);

/** Everything that hangs on where water is caught, as a graph that saw what was before works it out; null of what nobody asks for. */
function workedOut(one: Stand, graph: Graph) {
  const lists = listsOf(one);
  const under = one.isUnled ? unled : model;
  return graph.runFor('', () => {
    // Lists that stay are one thing, as they are for works that stay.
    const kept = graph.each('intakes', { ids: lists.map((l) => l[0].store), columns: [lists] }, (own) => own).all;
    const met = interception(under, kept, graph);
    const outline = graph.same('outline', one.hasProperty ? PROPERTY : []);
    const plan = graph.step('plan', [under, met], ({ flow: runs }, { owner, stores }) => ({ grid, flow: runs, owner, stores, outline }));
    // A store that catches nothing has ways too.
    const ids = one.isTurned ? ['loose', ...met.stores] : met.stores;
    const beginAt = ids.map((store, k) => ({ id: store, at: centreOf(grid, 20 * N + 9 * k + 4 + one.beside) }));
    const starts = graph.each('starts', { ids, columns: [beginAt] }, ({ id, at }) => [
      { id: `${id}/out`, work: id, role: 'way' as const, dischargeAt: at },
      null,
    ]).all;
    const asked = () => ({
      ways: waysDown('ways', { ids, starts }, { plan, met, graph }),
      stores: storeCatchments(under, met, graph),
      natural: naturalCatchments(under, kept, graph),
      exits: exitGrounds(under, insideOf(under, [], graph), { met, graph }),
    });
    return { met, ids, starts, plan, told: one.isGlance ? null : asked() };
  });
}

/** Whether two results are the same to the last bit. */
const isSame = (a: unknown, b: unknown): boolean => said(a) === said(b);
const said = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    ArrayBuffer.isView(v) ? Buffer.from(v.buffer, v.byteOffset, v.byteLength).toString('latin1') : v instanceof Map ? [...v] : v,
  );

/** The first of those that own cells on the way of a cell's water, followed by itself. */
function followed(owner: Int16Array, from: number): number {
  let i = from;
  while (i >= 0 && owner[i] === 0) i = receiverOf(flow, i);
  return i < 0 ? 0 : owner[i];
}

describe('what catches water, moved about', () => {
  it('is the same as from nothing, with all that hangs on it', () => {
    let wentOn = 0;
    fc.assert(
      fc.property(dragged, (stands) => {
        const graph = new Graph();
        const states: { readonly now: CellNumbers; readonly numbers: Int16Array }[] = [];
        for (const one of stands) {
          const now = workedOut(one, graph);
          const fresh = workedOut(one, new Graph());
          if (now.met.since) wentOn++;
          expect(fresh.met.since).toBeNull();
          for (const key of ['stores', 'shares'] as const) expect([key, isSame(now.met[key], fresh.met[key])]).toEqual([key, true]);
          for (const key of ['owner', 'label'] as const) states.push({ now: now.met[key], numbers: fresh.met[key].read() });
          for (const key of ['stores', 'natural', 'exits', 'ways'] as const)
            expect([key, isSame(now.told?.[key], fresh.told?.[key])]).toEqual([key, true]);
        }
        // What was before is still there to be read, whatever came after: forth and back again.
        for (const { now, numbers } of [...states, ...[...states].reverse()]) expect(isSame(now.read(), numbers)).toBe(true);
      }),
      { seed: 41, numRuns: 120 },
    );
    expect(wentOn).toBeGreaterThan(250);
  });

  it.each([Infinity, 1])('leaves of the water that meets it what narrow intakes do not take, %d of each store', (count) => {
    let narrow = 0;
    fc.assert(
      fc.property(dragged, (stands) => {
        const graph = new Graph();
        for (const one of stands) {
          const lists = listsOf(one).map((list) => list.slice(0, count));
          const { shares } = graph.runFor('', () => interception(model, lists, graph));
          const intakes = lists.flat();
          const owner = new Int16Array(N * N);
          intakes.forEach((intake, k) => catchingCells(grid, intake).forEach((i) => (owner[i] ||= k + 1)));
          const cells = new Map<string, { whole: number; taken: number }>(intakes.map(({ store }) => [store, { whole: 0, taken: 0 }]));
          for (let i = 0; i < N * N; i++) {
            const number = Number.isNaN(grid.z[i]) ? 0 : followed(owner, i);
            if (number === 0) continue;
            const of = cells.get(intakes[number - 1].store)!;
            of.whole++;
            of.taken += shareOfCell(grid, intakes[number - 1]);
          }
          const should = [...cells].flatMap(([store, { whole, taken }]) => (taken < whole ? [[store, (taken / whole).toFixed(9)]] : []));
          expect([...shares].map(([store, share]) => [store, share.toFixed(9)])).toEqual(should);
          narrow += should.length;
        }
      }),
      { seed: 43, numRuns: 25 },
    );
    expect(narrow).toBeGreaterThan(80);
  });

  it('meets the first store on the way of each cell, ground by ground and way by way', () => {
    fc.assert(
      fc.property(dragged, (stands) => {
        const graph = new Graph();
        for (const one of stands) workedOut(one, graph);
        const last = { ...stands[stands.length - 1], isUnled: false, isGlance: false };
        const { met, ids, starts, plan, told } = workedOut(last, graph);
        const { stores, exits, natural, ways } = told!;
        const roof = met.stores.indexOf('roof') + 1;
        const members = new Map(stores.map((one) => [one.catchment.of, new Set(one.members)]));
        let caught = 0;
        const wrong: number[] = [];
        for (let i = 0; i < N * N; i++) {
          const number = met.label.read()[i];
          if (Number.isNaN(grid.z[i]) || number === roof) continue;
          if (number > 0) caught++;
          const of = [...members].filter(([, own]) => own.has(i)).map(([store]) => store);
          const should = followed(met.owner.read(), i);
          if (number !== should || of.length !== (should > 0 ? 1 : 0) || (of.length > 0 && of[0] !== met.stores[should - 1])) wrong.push(i);
        }
        expect(wrong).toEqual([]);
        const ground = grid.z.filter((v) => !Number.isNaN(v)).length;
        const open = exits.reduce((n, e) => n + e.uncaught.members.length, 0);
        expect(open + caught + (members.get('roof')?.size ?? 0)).toBe(ground);
        for (const own of natural) {
          const intakes = listsOf(last).find(([first]) => first.store === own.catchment.of)!;
          if (intakes[0].roof) continue;
          const above = upstreamOf(
            flow,
            intakes.flatMap((intake) => catchingCells(grid, intake)),
          );
          expect(isSame(own.members.slice().sort(), above.members.slice().sort())).toBe(true);
        }
        ids.forEach((store, k) => {
          const [start] = starts[k];
          expect(ways[k]).toEqual([start && linkOf(plan, store, start), null]);
        });
      }),
      { seed: 42, numRuns: 40 },
    );
  });

  it('leaves the ground of the others the thing it was, and their ways', () => {
    const graph = new Graph();
    const at: Stand['at'] = [[30, 90], [80, 30], [20, 30], [70, 95]]; // prettier-ignore
    const stood = { ...STOOD, at, size: 8 };
    const before = workedOut(stood, graph).told!;
    const { met, told } = workedOut({ ...stood, at: [[31.5, 90], ...at.slice(1)] }, graph); // prettier-ignore
    const now = told!;
    const stayed = before.stores.filter((one, k) => one === now.stores[k]).map((one) => one.catchment.of);
    expect(stayed).toEqual(expect.arrayContaining(['over', 'places', 'narrow', 'roof']));
    expect(stayed).not.toContain('across');
    expect(met.since!.changed.length).toBeGreaterThan(0);
    expect(now.ways.filter((own, k) => own === before.ways[k]).length).toBeGreaterThan(2);
    // Where only ways begin elsewhere the others stay.
    const { told: begun } = workedOut({ ...stood, at: [[31.5, 90], ...at.slice(1)], beside: 1 }, graph); // prettier-ignore
    expect(begun!.stores).toBe(now.stores);
    expect(now.exits.some((one, k) => one === before.exits[k])).toBe(true);
    // Back where it was, it is what it was.
    expect(workedOut(stood, graph).told!.stores.every((one, k) => one === before.stores[k])).toBe(true);
  });
});

describe('the lowest among cells', () => {
  it('are those whose water passes no other, and all that drains to any drains to them', () => {
    const room = new CellRoom(N * N);
    fc.assert(
      fc.property(fc.array(fc.nat({ max: N * N - 1 }), { minLength: 1, maxLength: 30 }), (cells) => {
        const lowest = lowestAmong(flow, cells, room);
        const among = new Set(cells);
        const passes = (from: number): boolean => {
          let i = receiverOf(flow, from);
          while (i >= 0 && !among.has(i)) i = receiverOf(flow, i);
          return i >= 0;
        };
        const onGround = [...among].filter((i) => !Number.isNaN(grid.z[i])).sort((a, b) => a - b);
        expect(lowest).toEqual(onGround.filter((i) => !passes(i)));
        const of = (from: readonly number[]): Int32Array => upstreamOf(flow, from).members.slice().sort();
        expect(isSame(of(lowest), of(onGround))).toBe(true);
        expect(room.mask.every((v) => v === 0)).toBe(true);
      }),
      { seed: 43, numRuns: 80 },
    );
    expect(cellAt(grid, [40, 70])).toBeGreaterThan(0);
    expect(flow.jumps.size).toBe(1);
  });
});
