// What must not change when the world is moved, turned, lifted or mirrored, and what may only move one way.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Feature, WorkBase } from '../contract/index.ts';
import type { Line, Point } from '../geometry/index.ts';
import { type Project, UserError } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { SEEN_KINDS } from '../seen/index.ts';
import { LIP_M, SILL, SWALE, derived, planeProject } from '../testing/projects.ts';
import { type Tree, pathsIn, replacedAt, withFaults } from '../testing/trees.ts';
import { ranUnfilled } from '../testing/unfilled.ts';
import { registry } from '../works/index.ts';
import { type Derived, Graph, derive } from './index.ts';

const N = 61;
const CELL = 2;
/** A bowl-sided hill with some roughness: nothing about it is symmetrical. */
const level = (x: number, y: number): number =>
  100 + 0.09 * y + 0.0012 * (x - 40) ** 2 + 0.15 * Math.sin(x / 7) * Math.cos(y / 5) + 0.03 * x;
const levels = (of: (x: number, y: number) => number): number[] =>
  Array.from({ length: N * N }, (_, i) => of(((i % N) + 0.5) * CELL, (N - Math.floor(i / N) - 0.5) * CELL));

const LINE: Line = [
  [25, 61],
  [45, 58],
  [70, 55],
];
const onHill = (change: Partial<Project> = {}): Project => {
  const lip = level(45, 58);
  const works = [
    { ...SWALE, line: LINE, levels: { floorM: lip - 0.4, bankCrestM: lip + 0.45 } },
    { ...SILL, atM: 20, levels: { sillM: lip } },
  ] as object[] as WorkBase[];
  return planeProject(
    {
      site: {
        crs: null,
        outline: [
          [8, 8],
          [112, 8],
          [112, 112],
          [8, 112],
        ],
        zeroLevelM: 0,
      },
      terrain: { kind: 'grid', ncols: N, nrows: N, west: 0, south: 0, cellM: CELL, rows: 'north-first', z: levels(level) },
      pins: [{ id: 'k', at: [41, 31] }],
      features: [
        {
          id: 'b',
          kind: 'windrow',
          line: [
            [20, 80],
            [50, 84],
          ],
          heightM: 0.2,
        },
      ],
      ...change,
    },
    works,
  );
};

/** Every place in a project put somewhere else. */
function moved(project: Project, to: (p: Point) => Point): Project {
  const line = (l: Line): Line => l.map(to);
  const feature = (f: Feature): Feature => ({
    ...f,
    ...(f.line ? { line: line(f.line) } : {}),
    ...(f.ring ? { ring: line(f.ring) } : {}),
    ...(f.at ? { at: to(f.at) } : {}),
  });
  return {
    ...project,
    site: { ...project.site, outline: line(project.site.outline) },
    pins: project.pins.map((p) => ({ ...p, at: to(p.at) })),
    features: project.features.map(feature),
    options: project.options.map((o) => ({
      ...o,
      works: o.works.map((w) => ('line' in w ? ({ ...w, line: line((w as { line: Line }).line) } as WorkBase) : w)),
    })),
  };
}

/** The figures that say what happens, without any place. */
const gist = ({ catchments, runoff, stores, links, checks }: Derived) => ({
  areas: catchments.map((c) => c.areaM2),
  slopes: catchments.map((c) => c.meanSlope),
  volumes: runoff.map((r) => r.volumeM3),
  held: stores.map((s) => s.heldM3),
  peaks: stores.map((s) => s.peakOutM3s ?? 0),
  ends: links.map((l) => l.to),
  checks: checks.map((c) => `${c.id} ${c.severity}`).sort(),
});

function expectSame(a: ReturnType<typeof gist>, b: ReturnType<typeof gist>, share: number): void {
  expect(b.ends).toEqual(a.ends);
  expect(b.checks).toEqual(a.checks);
  for (const key of ['areas', 'slopes', 'volumes', 'held', 'peaks'] as const) {
    expect(b[key]).toHaveLength(a[key].length);
    a[key].forEach((v, k) => expect(Math.abs(b[key][k] - v)).toBeLessThanOrEqual(share * Math.max(Math.abs(v), 1e-6)));
  }
}

describe('the same land', () => {
  const here = gist(derived(onHill()).derived);
  it('elsewhere on the map gives the same answers', () => {
    const [dx, dy] = [431000, 4612000];
    const project = moved(onHill(), ([x, y]) => [x + dx, y + dy]);
    const terrain = { ...onHill().terrain!, west: dx, south: dy } as Project['terrain'];
    // A place is kept to a nanometre near the origin and to a tenth of a micrometre far from it.
    expectSame(here, gist(derived({ ...project, terrain }).derived), 1e-6);
  });
  it('lifted by whole metres gives the same answers, all levels lifted with it', () => {
    const lift = 350;
    const base = onHill();
    const works = base.options[0].works.map((w) => {
      const up = Object.fromEntries(
        Object.entries((w as unknown as { levels: Record<string, number> }).levels).map(([k, v]) => [k, v + lift]),
      );
      return { ...w, levels: up } as WorkBase;
    });
    const z = levels((x, y) => level(x, y) + lift);
    const project = { ...base, terrain: { ...base.terrain!, z } as Project['terrain'], options: [{ ...base.options[0], works }] };
    const lifted = derived(project).derived;
    expectSame(here, gist(lifted), 1e-3);
    const [a, b] = [derived(base).derived.stores[0], lifted.stores[0]];
    expect((b.peakLevelM ?? 0) - (a.peakLevelM ?? 0)).toBeCloseTo(lift, 3);
    expect(b.wayOutM - a.wayOutM).toBeCloseTo(lift, 9);
  });
  it('with its works listed in another order gives the same answers', () => {
    const base = onHill();
    const turned = { ...base, options: [{ ...base.options[0], works: [...base.options[0].works].reverse() }] };
    expect(gist(derived(turned).derived)).toEqual(here);
  });
  it('with its swale drawn from the other end gives the same answers', () => {
    const base = onHill();
    const [swale, sill] = base.options[0].works as [typeof SWALE, typeof SILL];
    const total = LINE.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - LINE[i][0], p[1] - LINE[i][1]), 0);
    const works = [
      { ...swale, line: [...LINE].reverse() },
      { ...sill, atM: total - sill.atM },
    ] as object[] as WorkBase[];
    expectSame(here, gist(derived({ ...base, options: [{ ...base.options[0], works }] }).derived), 1e-6);
  });
  it('turned by a quarter or mirrored gives the same areas to within the ties of a grid', () => {
    const size = N * CELL;
    const turns: [(p: Point) => Point, (x: number, y: number) => number][] = [
      [([x, y]) => [y, size - x], (x, y) => level(size - y, x)],
      [([x, y]) => [size - x, y], (x, y) => level(size - x, y)],
    ];
    for (const [to, ground] of turns) {
      const project = moved(onHill(), to);
      const terrain = { ...onHill().terrain!, z: levels(ground) } as Project['terrain'];
      const there = gist(derived({ ...project, terrain }).derived);
      expect(there.ends).toEqual(here.ends);
      here.areas.forEach((v, k) => expect(Math.abs(there.areas[k] / v - 1)).toBeLessThan(0.05));
      here.held.forEach((v, k) => expect(there.held[k]).toBeCloseTo(v, 3));
    }
  });
});

describe('only one way', () => {
  // One terrain and one memory for all: only what a change touches is worked out again.
  const base = planeProject();
  const graph = new Graph();
  const noGrid = (): never => {
    throw new Error('the test project has inline terrain');
  };
  const of = (p: Project): Derived => derive(p, { registry, graph, grids: noGrid }).derived;
  const store = (p: Project): Derived['stores'][number] => of(p).stores[0];
  const swale = (change: object, sill: object = {}): Project => ({
    ...base,
    options: [
      {
        ...base.options[0],
        works: [
          { ...SWALE, ...change },
          { ...SILL, ...sill },
        ] as object[] as WorkBase[],
      },
    ],
  });
  const dims = (change: Partial<typeof SWALE.dimensions>): Project => swale({ dimensions: { ...SWALE.dimensions, ...change } });
  const small = fc.double({ min: 0.01, max: 0.4, noNaN: true });

  it('a wider floor holds more and spills less', () => {
    fc.assert(
      fc.property(small, (by) => {
        const [a, b] = [store(swale({})), store(dims({ floorWidthM: SWALE.dimensions.floorWidthM + by }))];
        expect(b.heldM3).toBeGreaterThan(a.heldM3);
        expect(b.spilledM3 ?? 0).toBeLessThan(a.spilledM3 ?? 0);
      }),
      { seed: 81, numRuns: 12 },
    );
  });
  it('a deeper floor holds more; a lower sill holds less and leaves more freeboard', () => {
    fc.assert(
      fc.property(small, (by) => {
        const before = store(swale({}));
        const deep = store(swale({ levels: { ...SWALE.levels, floorM: SWALE.levels.floorM - by } }));
        expect(deep.heldM3).toBeGreaterThan(before.heldM3);
        const low = store(swale({}, { levels: { sillM: LIP_M - by * 0.7 } }));
        expect(low.heldM3).toBeLessThan(before.heldM3);
        expect(low.freeboardM ?? 0).toBeGreaterThan(before.freeboardM ?? 0);
      }),
      { seed: 82, numRuns: 12 },
    );
  });
  it('a longer sill stands lower at its peak', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 20, noNaN: true }), (by) => {
        const longer = store(swale({}, { dimensions: { ...SILL.dimensions, lengthM: SILL.dimensions.lengthM + by } }));
        expect(longer.peakLevelM ?? 0).toBeLessThan(store(swale({})).peakLevelM ?? 0);
      }),
      { seed: 83, numRuns: 12 },
    );
  });
  it('more rain, a wetter cover or a higher curve number never bring less', () => {
    const volume = (change: Partial<Project>): number => of({ ...base, ...change }).runoff[0].volumeM3;
    fc.assert(
      fc.property(fc.double({ min: 1, max: 3, noNaN: true }), fc.integer({ min: 45, max: 94 }), (times, cn) => {
        const rain = {
          ...base.rain!,
          table: { ...base.rain!.table, depthMm: base.rain!.table.depthMm.map((row) => row.map((d) => d * times)) },
        };
        expect(volume({ rain })).toBeGreaterThanOrEqual(volume({}));
        const ground = (curveNumber: number) => ({ ground: { ...base.ground!, curveNumber } });
        expect(volume(ground(cn + 4))).toBeGreaterThanOrEqual(volume(ground(cn)));
      }),
      { seed: 84, numRuns: 20 },
    );
  });
  it('soil that takes more empties sooner', () => {
    const hours = (rate: number): number =>
      store({ ...base, ground: { ...base.ground!, infiltrationMmPerHour: rate } }).drainDownH ?? Infinity;
    expect(hours(10)).toBeCloseTo(2 * hours(20), 6);
    expect(hours(0)).toBe(Infinity);
  });
});

describe('whatever is drawn', () => {
  const place = fc.tuple(
    fc.double({ min: -20, max: 140, noNaN: true }),
    fc.double({ min: -20, max: 140, noNaN: true }),
  ) as fc.Arbitrary<Point>;
  const features = fc.array(
    fc.record({
      kind: fc.constantFrom(...SEEN_KINDS, { kind: 'building' }, { kind: 'track' }, { kind: 'line' }),
      points: fc.array(place, { minLength: 3, maxLength: 5 }),
    }),
    { maxLength: 5 },
  );
  const toFeatures = (list: { kind: { kind: string; start?: object; shape?: string }; points: Point[] }[]): Feature[] =>
    list.map(({ kind, points }, k) => ({
      id: `f${k}`,
      kind: kind.kind,
      ...kind.start,
      ...(kind.shape === 'point' ? { at: points[0] } : kind.kind === 'building' ? { ring: points } : { line: points }),
    }));
  const numbers = (value: unknown): number[] =>
    typeof value === 'number' ? [value] : typeof value === 'object' && value !== null ? Object.values(value).flatMap(numbers) : [];

  it('nothing is NaN, water is neither made nor lost, and every check can be read', () => {
    fc.assert(
      fc.property(
        features,
        fc.array(place, { minLength: 2, maxLength: 4 }),
        fc.constantFrom('fill' as const, 'breach' as const),
        (list, line, hollows) => {
          const base = onHill();
          const [swale, sill] = base.options[0].works as [typeof SWALE, typeof SILL];
          const works = [
            swale,
            sill,
            { ...swale, id: 'w9', name: 'Any', line },
            { ...sill, id: 's9', host: 'w9', atM: 5 },
          ] as object[] as WorkBase[];
          const { derived: d } = derived({
            ...base,
            features: toFeatures(list),
            land: { hollows },
            options: [{ ...base.options[0], works }],
          });
          expect(numbers({ ...d, pegs: [] }).filter(Number.isNaN)).toEqual([]);
          expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
          expect(ranUnfilled(d)).toEqual([]);
          for (const c of d.checks) {
            expect(['mend', 'weigh', 'fine', 'unknown']).toContain(c.severity);
            expect(`${c.title} ${c.why} ${c.do}`).not.toMatch(/NaN|undefined|null|Infinity/);
          }
          for (const text of Object.values(d.verdicts)) expect(text).not.toMatch(/NaN|undefined|Infinity/);
          const total = d.catchments.filter((c) => c.of !== 'k').reduce((sum, c) => sum + c.areaM2, 0);
          expect(total).toBeLessThanOrEqual(N * N * CELL * CELL);
        },
      ),
      { seed: 85, numRuns: 60 },
    );
  });
});

describe('a document that a file reader takes', () => {
  const whole = JSON.parse(
    JSON.stringify({
      ...onHill(),
      land: { hollows: 'fill' },
      rain: {
        ...onHill().rain,
        basis: 'table',
        storm: {
          ...onHill().rain?.storm,
          upliftPercent: 10,
          againAfterH: 4,
          shape: { kind: 'own', name: 'mine', stepMin: 10, stepsMm: [1, 8, 2] },
        },
      },
      survey: { heightOfCollimationM: 120, pegIntervalM: 10 },
      features: [
        ...onHill().features,
        {
          id: 'h',
          kind: 'building',
          ring: [
            [30, 70],
            [38, 70],
            [38, 76],
            [30, 76],
          ],
        },
        { id: 'd', kind: 'downspout', at: [29, 69] },
        { id: 's', kind: 'spring', at: [40, 90], flowM3s: 0.001 },
        {
          id: 'o',
          kind: 'ditch',
          line: [
            [60, 90],
            [90, 84],
          ],
          depthM: 0.3,
          wetEnd: 'end',
          open: [[3, 5]],
        },
      ],
    }),
  ) as Tree;
  const paths = pathsIn(whole).filter((path) => !/^terrain\.z\.(?!7$)/.test(path));
  it('can be computed, without NaN and without a fault, whatever stands in it', () => {
    const odd = fc.constantFrom<unknown>(
      0,
      -1,
      1e-9,
      1e9,
      0.5,
      null,
      '',
      'x',
      [],
      {},
      [[1, 2]],
      [1, 'x'],
      true,
      [
        [0, 0],
        [0, 0],
      ],
      [
        [9, 9],
        [1e9, 9],
      ],
    );
    let taken = 0;
    fc.assert(
      fc.property(fc.constantFrom(...paths), odd, (path, value) => {
        let project: Project;
        try {
          project = readProject(replacedAt(whole, path, value), registry);
        } catch (error) {
          if (error instanceof UserError) return;
          throw error;
        }
        taken++;
        const { derived: d } = derived(project);
        expect(withFaults(d)).not.toContain('NOT FINITE');
      }),
      { seed: 86, numRuns: 250 },
    );
    expect(taken).toBeGreaterThan(20);
  });
});
