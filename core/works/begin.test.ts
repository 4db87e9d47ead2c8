// Works begun from a drawing: every kind, on ground and among stores as they are.
import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../contract/index.ts';
import { lineLength, pointAlong, type Point } from '../geometry/index.ts';
import { applyCommand } from '../commands/index.ts';
import { type BeginAsked, Graph, beginWorks } from '../derive/index.ts';
import { type Project, UserError } from '../project/index.ts';
import { derived, noGrid, planeProject } from '../testing/projects.ts';
import { POND, POND_SILL, valleyAt, valleyProject } from '../testing/valley.ts';
import { valueAt } from './fields.ts';
import { registry } from './index.ts';

const begin = (project: Project, asked: BeginAsked): readonly WorkBase[] =>
  beginWorks(project, { registry, grids: noGrid, graph: new Graph() }, asked).works;
const number = (work: WorkBase, path: string): number => valueAt(work, path) as number;
const BARE = valleyProject([]);
const WITH_POND = valleyProject([{ ...POND, levels: { crestM: 106.9, floorM: 104 } } as WorkBase, POND_SILL]);
const WALL: Point[] = [
  [81, 81],
  [121, 81],
];
const refusal = (project: Project, asked: BeginAsked): string => {
  try {
    begin(project, asked);
    return 'begun';
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    return error.problems.map((p) => p.code).join();
  }
};

/** A drawing for every way of drawing, in the valley. */
const DRAWN: Readonly<Record<string, Pick<BeginAsked, 'points' | 'host'>>> = {
  swale: { points: [[122, 40], [126, 60], [130, 75]] }, // prettier-ignore
  pond: { points: WALL },
  pit: { points: [[60, 30], [80, 30], [80, 50], [60, 50]] }, // prettier-ignore
  crossing: { points: [[88, 141], [114, 141]] }, // prettier-ignore
  diversion: { points: [[60, 100], [50, 50]] }, // prettier-ignore
  'check-dams': { points: [[101, 196], [101, 120]] }, // prettier-ignore
  'check-dams-gully': { points: [[101, 196], [101, 120]] }, // prettier-ignore
  'check-dam': { points: [[101, 196], [101, 170]] }, // prettier-ignore
  'gully-reach': { points: [[101, 196], [101, 120]] }, // prettier-ignore
  'creek-reach': { points: [[101, 196], [101, 120]] }, // prettier-ignore
  'ditch-reach': { points: [[101, 196], [101, 120]] }, // prettier-ignore
  'sump-pump': { points: [[60, 120], [75, 120]] }, // prettier-ignore
  'regrade-plane': { points: [[60, 120], [80, 120], [80, 140], [60, 140]] }, // prettier-ignore
  'regrade-level': { points: [[60, 120], [80, 120], [80, 140], [60, 140]] }, // prettier-ignore
  'regrade-fill': { points: [[60, 120], [80, 120], [80, 140], [60, 140]] }, // prettier-ignore
  'regrade-cut': { points: [[60, 120], [80, 120], [80, 140], [60, 140]] }, // prettier-ignore
  'regrade-by': { points: [[60, 120], [80, 120], [80, 140], [60, 140]] }, // prettier-ignore
  'lawn-dish': { points: [[60, 120], [80, 120]] }, // prettier-ignore
  weir: { points: [[90, 24], [112, 24]] }, // prettier-ignore
  'stone-lines': { points: [[20, 20], [60, 20], [60, 80], [20, 80]] }, // prettier-ignore
  'stone-line': { points: [[26, 20], [30, 40], [36, 60]] }, // prettier-ignore
  'stone-row': { points: [[26, 20], [36, 60]] }, // prettier-ignore
  'half-moons': { points: [[60, 120], [140, 120], [140, 170], [60, 170]] }, // prettier-ignore
  pits: { points: [[60, 120], [80, 120], [80, 140], [60, 140]] }, // prettier-ignore
  'rain-garden': { points: [[100, 150], [100, 143], [101, 136]] }, // prettier-ignore
  'soak-trench': { points: [[60, 120], [80, 120]] }, // prettier-ignore
  'soak-pit': { points: [[60, 120]] },
  'soak-shaft': { points: [[60, 120]] },
  terraces: { points: [[60, 120], [140, 120], [140, 150], [60, 150]] }, // prettier-ignore
  terrace: { points: [[60, 120], [100, 120]] }, // prettier-ignore
  ripping: { points: [[60, 120], [140, 120], [140, 150], [60, 150]] }, // prettier-ignore
  'rip-line': { points: [[60, 120], [140, 121]] }, // prettier-ignore
  'swales-interval': { points: [[60, 120], [140, 120], [140, 150], [60, 150]] }, // prettier-ignore
  'swales-even': { points: [[60, 120], [140, 120], [140, 150], [60, 150]] }, // prettier-ignore
  'swales-storage': { points: [[60, 120], [140, 120], [140, 150], [60, 150]] }, // prettier-ignore
  headcut: { points: [[90, 101], [98, 101]] }, // prettier-ignore
  roof: { points: [[60, 120], [72, 120], [72, 128], [60, 128]] }, // prettier-ignore
  'sheet-on-blocks': { points: [[60, 120], [66, 120], [66, 123], [60, 123]] }, // prettier-ignore
  'roof-of-building': { points: [[62, 122]] },
  cistern: { points: [[60, 120]] },
  tote: { points: [[60, 120]] },
  barrel: { points: [[60, 120]] },
  'mortar-tank': { points: [[60, 120]] },
  'crate-tank': { points: [[60, 120]] },
  'supply-line': { points: [[60, 120], [80, 100], [100, 60]] }, // prettier-ignore
  'drip-line': { points: [[60, 120], [80, 100], [100, 60]] }, // prettier-ignore
  'piped-drain': { points: [[60, 100], [60, 120], [60, 140]] }, // prettier-ignore
  'street-drain': { points: [[60, 100], [60, 120], [60, 140]] }, // prettier-ignore
  'closed-drain': { points: [[60, 100], [60, 120], [60, 140]] }, // prettier-ignore
  'seep-drain': { points: [[60, 100], [60, 120], [60, 140]] }, // prettier-ignore
  'wall-drain': { points: [[60, 100], [60, 120], [60, 140]] }, // prettier-ignore
  'slope-drain': { points: [[60, 100], [60, 120], [60, 140]] }, // prettier-ignore
  'level-sill': { points: [], host: 'pond' },
  'cut-spillway': { points: [], host: 'pond' },
  'stone-trench': { points: [], host: 'pond' },
  'pipe-outlet': { points: [], host: 'pond' },
};

/** What is not for the steep sides of the valley is begun on a plane of a tenth. */
const GENTLE = new Set([
  'sump-pump',
  'regrade-plane',
  'regrade-level',
  'regrade-fill',
  'regrade-cut',
  'regrade-by',
  'lawn-dish',
  'half-moons',
  'pits',
  'rain-garden',
  'soak-trench',
  'soak-pit',
  'soak-shaft',
  'terraces',
  'terrace',
  'ripping',
  'rip-line',
  'swales-interval',
  'swales-even',
  'swales-storage',
  'roof',
  'sheet-on-blocks',
  'cistern',
  'tote',
  'barrel',
  'mortar-tank',
  'crate-tank',
  'supply-line',
  'drip-line',
  'piped-drain',
  'street-drain',
  'closed-drain',
  'seep-drain',
  'wall-drain',
  'slope-drain',
]);
const PLANE = planeProject({}, []);
/** Ground that breaks off two metres. */
const STEP_Z = Array.from({ length: 101 * 101 }, (_, i) => 110 - 0.02 * Math.floor(i / 101) - (Math.floor(i / 101) > 50 ? 2 : 0));
const STEP = planeProject(
  { terrain: { kind: 'grid', ncols: 101, nrows: 101, west: 0, south: 0, cellM: 2, rows: 'north-first', z: STEP_Z } },
  [],
);
const HOUSE = { id: 'h', kind: 'building', ring: DRAWN['roof'].points };
/** Places that are not on bare ground of the valley. */
const PLACES: Readonly<Record<string, Project>> = { headcut: STEP, 'roof-of-building': { ...PLANE, features: [HOUSE] } };
const groundFor = (id: string): Project => (GENTLE.has(id) ? PLANE : (PLACES[id] ?? BARE));

describe('every way of drawing', () => {
  it.each(registry.draws.filter((d) => d.what !== 'between-stores').map((d) => [d.id, d] as const))(
    '%s begins works that are sound, stand and are computed',
    (id, draw) => {
      const project = draw.what === 'on-host' ? WITH_POND : groundFor(id);
      const works = begin(project, { kind: draw.kind, how: id, ...DRAWN[id] });
      expect(works[0].kind).toBe(draw.kind);
      for (const work of works) expect([work.kind, registry.bind(work).validate()]).toEqual([work.kind, []]);
      expect(new Set(works.map((w) => w.id)).size).toBe(works.length);
      const added = applyCommand(project, { type: 'works.add', payload: { works } }, registry).project;
      const { derived: d } = derived(added);
      expect(d.uncomputed).toEqual([]);
      expect(d.checks.filter((c) => c.on === works[0].id).length).toBeGreaterThan(2);
      // To the millimetre, as levels are set out.
      for (const work of works)
        for (const { path, kind } of registry.card(work.kind).fields)
          // A level that may be left out is nobody's guess.
          if (kind === 'level' && valueAt(work, path) !== undefined)
            expect(number(work, path)).toBeCloseTo(Math.round(1000 * number(work, path)) / 1000, 9);
    },
  );
  it.each(registry.kinds.map((k) => [k]))('%s has a sample, sound by itself, of its own kind', (kind) => {
    const { sample, draws, fields } = registry.card(kind);
    expect([sample.kind, registry.bind(sample).validate(), draws.length > 0, fields.length > 0]).toEqual([kind, [], true, true]);
  });
});

describe('levels to begin with', () => {
  it('a wall stands two metres over the lowest ground, under its lower end, with a sill where the ground reaches its level', () => {
    const [pond, sill] = begin(BARE, { kind: 'pond', points: WALL });
    const lowest = Math.min(...Array.from({ length: 41 }, (_, k) => valleyAt(81 + k, 81)));
    expect(number(pond, 'levels.crestM')).toBeCloseTo(lowest + 2, 1);
    expect(number(pond, 'levels.floorM')).toBeCloseTo(lowest, 1);
    expect(number(sill, 'levels.sillM')).toBeCloseTo(number(pond, 'levels.crestM') - 0.6, 6);
    const [x, y] = pointAlong(WALL, number(sill, 'atM')).point;
    expect(valleyAt(x, y)).toBeGreaterThanOrEqual(number(sill, 'levels.sillM') - 0.05);
    expect([pond.name, sill.name]).toEqual(['Pond 1', 'Pond 1 sill']);
    // Low ends keep it low; never under half a metre.
    const [low] = begin(BARE, { kind: 'pond', points: [[97, 81], [104, 81]] }); // prettier-ignore
    expect(number(low, 'levels.crestM')).toBeLessThan(lowest + 0.9);
    expect(number(low, 'levels.crestM')).toBeGreaterThanOrEqual(lowest + 0.5 - 0.2);
  });
  it('a drain runs from its higher to its lower end whichever was drawn first, 0.4 m under the ground', () => {
    const line = DRAWN['diversion'].points;
    const [down] = begin(BARE, { kind: 'diversion', points: line });
    const [up] = begin(BARE, { kind: 'diversion', points: [...line].reverse() });
    expect(valueAt(up, 'line')).toEqual(valueAt(down, 'line'));
    const high = Math.max(...line.map(([x, y]) => valleyAt(x, y)));
    expect(number(down, 'levels.startM')).toBeCloseTo(high - 0.4, 1);
    expect(number(down, 'levels.startM')).toBeGreaterThan(number(down, 'levels.endM'));
  });
  it('a road lies 1.3 m over the lowest ground under it, a pit two metres under its lowest rim', () => {
    const [road] = begin(BARE, { kind: 'crossing', ...DRAWN['crossing'] });
    const lowest = valleyAt(101, 141);
    expect(number(road, 'levels.roadM')).toBeCloseTo(lowest + 1.3, 0);
    expect(number(road, 'levels.roadM') - number(road, 'levels.inletM')).toBeCloseTo(1.3, 6);
    const [pit] = begin(BARE, { kind: 'pond', how: 'pit', ...DRAWN['pit'] });
    expect(number(pit, 'levels.crestM') - number(pit, 'levels.floorM')).toBeCloseTo(2.3, 6);
    expect(pit).not.toHaveProperty('wall');
  });
  it('a swale settles on the contour through its first point, its sill four metres from its end, and says how far it moved', () => {
    const project = planeProject({}, []);
    const { works, said } = beginWorks(project, { registry, grids: noGrid, graph: new Graph() }, { kind: 'swale', points: [[40, 101], [150, 96]] }); // prettier-ignore
    const [swale, sill] = works;
    const line = valueAt(swale, 'line') as Point[];
    for (const [, y] of line) expect(Math.abs(y - 101)).toBeLessThan(0.3);
    expect(number(sill, 'atM')).toBeCloseTo(lineLength(line) - 4, 2);
    expect(number(sill, 'levels.sillM')).toBeCloseTo(110.1, 2);
    expect(JSON.stringify(said)).toContain('contour through your first point');
  });
});

describe('a way out begun on a store', () => {
  const next = (project: Project, kind: string, points: BeginAsked['points'] = []): WorkBase =>
    begin(project, { kind, points, host: 'pond' })[0];
  it('stands above the highest by the head on the first, 50 mm at the least, under the crest', () => {
    const dry = { ...WITH_POND, rain: null };
    const [first, second] = [next(dry, 'cut-spillway'), next(WITH_POND, 'cut-spillway')];
    expect(number(first, 'levels.sillM')).toBeCloseTo(105.95, 9);
    const { crestM, least } = derived(WITH_POND).derived.stores.find((s) => s.id === 'pond')!;
    const peak = crestM - least!.value;
    expect(number(second, 'levels.sillM')).toBeCloseTo(105.9 + Math.max(0.05, peak - 105.9), 2);
    const alone = valleyProject([WITH_POND.options[0].works[0]]);
    expect(number(next(alone, 'level-sill'), 'levels.sillM')).toBeCloseTo(106.3, 9);
    const near = valleyProject([WITH_POND.options[0].works[0], { ...POND_SILL, levels: { sillM: 106.88 } } as WorkBase], { rain: null });
    expect(number(next(near, 'cut-spillway'), 'levels.sillM')).toBeCloseTo(106.85, 9);
  });
  it('on natural ground beside the water, ends in turn; or where it was drawn', () => {
    const first = next(valleyProject([WITH_POND.options[0].works[0]]), 'level-sill');
    const second = next(WITH_POND, 'cut-spillway');
    for (const w of [first, second]) expect(valleyAt(81 + number(w, 'atM'), 81)).toBeGreaterThanOrEqual(number(w, 'levels.sillM') - 0.05);
    expect([number(first, 'atM') > 20, number(second, 'atM') < 20]).toEqual([true, true]);
    expect(number(next(WITH_POND, 'cut-spillway', [[90, 60]]), 'atM')).toBeCloseTo(9, 3); // prettier-ignore
    const free = begin(WITH_POND, { kind: 'pipe-outlet', points: [[110, 90]] })[0]; // prettier-ignore
    expect([valueAt(free, 'host'), number(free, 'atM')]).toEqual(['pond', expect.closeTo(29, 3)]);
  });
  it('is named by its title, numbered among its host’s own', () => {
    expect([next(WITH_POND, 'cut-spillway').name, next(WITH_POND, 'level-sill').name]).toEqual(['Cut spillway', 'Level sill 2']);
  });
  it('needs a store that is there', () => {
    expect(refusal(BARE, { kind: 'level-sill', points: [] })).toBe('work.host');
    expect(refusal(BARE, { kind: 'level-sill', points: [[100, 90]] })).toBe('work.host'); // prettier-ignore
    expect(refusal(WITH_POND, { kind: 'level-sill', points: [], host: 'ps' })).toBe('work.host');
  });
});

describe('a pump', () => {
  const two = valleyProject([...WITH_POND.options[0].works, ...begin(BARE, { kind: 'crossing', ...DRAWN['crossing'] })]);
  it('takes from the store nearest to the first place and lifts to that nearest to the second', () => {
    const [pump] = begin(two, { kind: 'pump-back', points: [[101, 90], [101, 141]] }); // prettier-ignore
    expect([valueAt(pump, 'host'), valueAt(pump, 'to')]).toEqual(['pond', 'crossing-1']);
    const stores = new Map(derived(two).derived.stores.map((s) => [s.id, s]));
    expect(number(pump, 'levels.stopM')).toBeCloseTo(stores.get('pond')!.floorM + 0.5, 3);
    expect(number(pump, 'levels.deliveryM')).toBeCloseTo(stores.get('crossing-1')!.crestM + 0.2, 3);
    expect(number(pump, 'pipe.lengthM')).toBeGreaterThan(50);
    expect(registry.bind(pump).validate()).toEqual([]);
  });
  it('needs two different stores', () => {
    expect(refusal(two, { kind: 'pump-back', points: [[101, 90], [101, 91]] })).toBe('pump.stores'); // prettier-ignore
    expect(refusal(BARE, { kind: 'pump-back', points: [[101, 90], [101, 141]] })).toBe('pump.stores'); // prettier-ignore
  });
});

describe('what cannot begin', () => {
  it.each<[string, Project, BeginAsked]>([
    ['work.unknown-kind', BARE, { kind: 'moat', points: [] }],
    ['begin.points', BARE, { kind: 'pond', points: [[1, 1]] }],
    ['begin.points', BARE, { kind: 'pond', points: [[1, 1], [2, NaN]] }], // prettier-ignore
    ['begin.points', BARE, { kind: 'pond', points: 'x' as never }],
    ['begin.how', BARE, { kind: 'pond', how: 'moat', points: WALL }],
    ['work.off-terrain', BARE, { kind: 'pond', points: [[150, 81], [500, 81]] }], // prettier-ignore
    ['work.off-terrain', BARE, { kind: 'diversion', points: [[150, 81], [500, 81]] }], // prettier-ignore
    ['work.off-terrain', BARE, { kind: 'crossing', points: [[150, 81], [500, 81]] }], // prettier-ignore
    ['swale.settle', BARE, { kind: 'swale', points: [[500, 81], [510, 81]] }], // prettier-ignore
    ['terrain.missing', { ...BARE, terrain: null }, { kind: 'pond', points: WALL }],
  ])('%s', (code, project, asked) => {
    expect(refusal(project, asked)).toBe(code);
  });
  it('ids nobody has: the next number, or the parts given', () => {
    const once = begin(BARE, { kind: 'pond', points: WALL });
    expect(once.map((w) => w.id)).toEqual(['pond-1', 'sill-1']);
    const added = applyCommand(BARE, { type: 'works.add', payload: { works: once } }, registry).project;
    expect(begin(added, { kind: 'pond', points: WALL }).map((w) => [w.id, w.name])).toEqual([
      ['pond-2', 'Pond 2'],
      ['sill-2', 'Pond 2 sill'],
    ]);
    expect(begin(BARE, { kind: 'pond', points: WALL, fresh: ['a', 'b'] }).map((w) => w.id)).toEqual(['pond-a', 'sill-b']);
    expect(begin(added, { kind: 'pond', points: WALL, fresh: ['1'] }).map((w) => w.id)).toEqual(['pond-1-2', 'sill-2']);
  });
});

describe('taking a work away', () => {
  const remove = (project: Project, id: string): string[] =>
    applyCommand(project, { type: 'works.remove', payload: { ids: [id] } }, registry).project.options[0].works.map((w) => w.id);
  it('takes with it all that cannot be without it, and what cannot be without those', () => {
    const road = { ...begin(BARE, { kind: 'crossing', ...DRAWN['crossing'] })[0], id: 'road' };
    const chain = valleyProject([
      ...WITH_POND.options[0].works,
      road,
      { ...POND_SILL, id: 'rs', host: 'road', levels: { sillM: 108 } } as WorkBase,
      { ...registry.card('pump-back').sample, host: 'pond', to: 'road' } as WorkBase,
    ]);
    expect(remove(chain, 'road')).toEqual(['pond', 'ps']);
    expect(remove(chain, 'pond')).toEqual(['road', 'rs']);
    expect(remove(chain, 'ps')).toEqual(['pond', 'road', 'rs', 'pump']);
  });
});
