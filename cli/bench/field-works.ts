// A hill full of works: swales in a set, rows of half-moons, check dams in four gullies; everything once, and after one edit of each.
import type { WorkBase } from '#core/contract';
import { Graph, beginWorks, derive } from '#core/derive';
import type { Line } from '#core/geometry';
import { type Project, emptyProject } from '#core/project';
import { type Grid, gridFromLevels } from '#core/terrain';
import { type CheckDams, type Dam, registry } from '#core/works';

const N = 1000;
const GULLIES = [500, 620, 740, 860];

/** The level of the hill between its gullies. */
const uncut = (x: number, y: number): number =>
  100 + 0.05 * y + 1.5 * Math.sin(x / 90) * Math.cos(y / 140) + 0.4 * Math.sin(x / 23 + y / 31);

/** A hillside of a square kilometre that rolls, four gullies cut into its eastern half. */
function hill(): Grid {
  const levels = Float64Array.from({ length: N * N }, (_, i) => {
    const [x, y] = [i % N, N - 1 - Math.floor(i / N)];
    const cut = GULLIES.reduce((a, at) => Math.max(a, 1.6 - Math.abs(x - at - 6 * Math.sin(y / 60)) / 2.2), 0);
    return uncut(x, y) - cut;
  });
  return gridFromLevels({ ncols: N, nrows: N, west: 0, south: 0, cellM: 1 }, levels);
}

const RAIN: Project['rain'] = {
  table: { durationsMin: [10, 60, 120, 1440], returnYears: [2, 20], depthMm: [[8, 18, 24, 40], [16, 40, 58, 95]] }, // prettier-ignore
  storm: { returnYears: 20, durationMin: 120 },
};

/** The hill with as many works as one keeps at most: 200 check dams, 2,000 half-moons in 44 rows, 40 swales. */
export function crowded(): {
  readonly project: Project;
  readonly context: { readonly registry: typeof registry; readonly grids: () => Grid };
} {
  const grid = hill();
  const context = { registry, grids: () => grid };
  const empty: Project = {
    ...emptyProject('crowded', 'Crowded'),
    terrain: { kind: 'asset', sha256: 'crowded' } as Project['terrain'],
    rain: RAIN,
    ground: { soilGroup: 'B', cover: 'pasture-fair', curveNumber: null, runoffC: null, infiltrationMmPerHour: 20, soilDepthM: 3 },
  };
  const graph = new Graph();
  const works: WorkBase[] = [];
  const withThem = (): Project => ({ ...empty, options: [{ ...empty.options[0], works: [...works] }] });
  const add = (name: string, points: Line): void => {
    works.push(...beginWorks(withThem(), { ...context, graph }, { ...drawnAs(name), points }).works);
  };
  const box = (west: number, south: number, [wide, high]: readonly [number, number]): Line => [[west, south], [west + wide, south], [west + wide, south + high], [west, south + high]]; // prettier-ignore
  add('Swales over a field, even ground above each', box(60, 420, [260, 480]));
  add('Half-moons over a field', [...alongLevel(104.5, [60, 380]), ...alongLevel(114.4, [60, 380]).reverse()]);
  for (const x of GULLIES) add('Check dams, crest level with toe', [700, 550, 300, 80].map((y) => [x + 6 * Math.sin(y / 60), y] as const)); // prettier-ignore
  return { project: withThem(), context };
}

/** Along the hill at one level, from west to east. */
function alongLevel(level: number, [west, east]: readonly [number, number]): [number, number][] {
  return Array.from({ length: 17 }, (_, k) => {
    const x = west + (k * (east - west)) / 16;
    let y = 0;
    while (uncut(x, y) < level) y += 0.5;
    return [x, y];
  });
}

/** A way of drawing by what it is called where it is offered. */
function drawnAs(name: string): { readonly kind: string; readonly how: string } {
  const draw = registry.draws.find((d) => d.name === name);
  if (!draw) throw new Error(`nothing is drawn as "${name}"`);
  return { kind: draw.kind, how: draw.id };
}

/**
 * What an edit of the hill costs: of all of one kind, and of a single dam in the middle of its gully, made lower or dragged along it,
 * and the whole set when the hand rests [ms].
 */
export interface FieldWorks {
  readonly stores: number;
  readonly firstMs: number;
  readonly editMs: Readonly<Record<string, number>>;
  readonly oneDam: { readonly loweredMs: number; readonly draggedMs: number; readonly wholeSetMs: number };
  /** What a loop that does nothing took before and after: the machine's own speed, which changes by twice and more within a run. */
  readonly idleLoopMs: readonly [before: number, after: number];
}

function idleLoop(): number {
  const start = performance.now();
  let sum = 0;
  for (let i = 0; i < 1e8; i++) sum += i & 3;
  return sum > 0 ? performance.now() - start : NaN;
}

const medianOf = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** Everything from nothing, and after one work of each kind was made a millimetre larger: the median of five such edits. */
export function fieldWorks(): FieldWorks {
  const { project, context } = crowded();
  const before = idleLoop();
  const graph = new Graph();
  const took = (one: Project, asked: Parameters<typeof derive>[2] = {}): number => {
    const copy = structuredClone(one);
    const start = performance.now();
    derive(copy, { ...context, graph }, asked);
    return performance.now() - start;
  };
  const firstMs = took(project);
  const stores = derive(project, { ...context, graph }).derived.stores.length;
  const [option] = project.options;
  const editMs = Object.fromEntries(
    [...new Set(option.works.map((w) => w.kind))].map((kind) => {
      const at = option.works.findIndex((w) => w.kind === kind);
      const edited = (n: number): Project => {
        const works = option.works.map((w, k) => (k === at ? nudged(w, 0.001 * n) : w));
        return { ...project, options: [{ ...option, works }] };
      };
      return [kind, medianOf([1, 2, 3, 4, 5].map((n) => took(edited(n))))];
    }),
  );
  const { view } = derive(project, { ...context, graph });
  const quick = { only: new Set(view.first), startsM: new Map(Object.entries(view.starts)), isNear: true };
  const nine = (change: (dam: Dam, n: number) => Partial<Dam>): Project[] =>
    Array.from({ length: 9 }, (_, n) => withDam(project, (dam) => change(dam, n + 1)));
  const lower = nine(({ heightM }, n) => ({ heightM: heightM - 0.001 * n }));
  const along = nine(({ atM }, n) => ({ atM: atM + 0.3 * n - 1.4 }));
  const oneDam = {
    loweredMs: medianOf(lower.map((one) => took(one, quick))),
    draggedMs: medianOf(along.map((one) => took(one, quick))),
    wholeSetMs: medianOf(along.map((one) => took(one))),
  };
  return { stores, firstMs, editMs, oneDam, idleLoopMs: [before, idleLoop()] };
}

/** The hill with the dam in the middle of its first gully changed. */
function withDam(project: Project, change: (dam: Dam) => Partial<Dam>): Project {
  const [option] = project.options;
  const series = option.works.find(isSeries);
  if (!series) throw new Error('no dams stand on the hill');
  const middle = Math.floor(series.dams.length / 2);
  const dams = series.dams.map((dam, k) => (k === middle ? { ...dam, ...change(dam) } : dam));
  const works = option.works.map((w) => (w === series ? { ...series, dams } : w));
  return { ...project, options: [{ ...option, works }] };
}

const isSeries = (work: WorkBase): work is CheckDams => 'dams' in work;

/** The same, its first dimension more by so much. */
function nudged(work: WorkBase, byM: number): WorkBase {
  const one = work as WorkBase & { readonly dimensions: Readonly<Record<string, number>> };
  const [first] = Object.keys(one.dimensions);
  return { ...one, dimensions: { ...one.dimensions, [first]: one.dimensions[first] + byM } } as WorkBase;
}
