// Times the kernels and the whole chain; with OUTLET_REF the same kernels of the C yardstick, alternating in one run.
import { drainTree, longFalls } from './drains.ts';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Intake } from '#core/contract';
import { Graph, derive, failureOrder, groundModel, interception, slopesIn, storeCatchments } from '#core/derive';
import { openProjectFile } from '#core/formats';
import { rasterise, triangulate } from '#core/geometry';
import { culvertLaw, grassedSillLaw } from '#core/hydraulics';
import { type RoutedStore, route } from '#core/network';
import { type Project, gridFromBytes } from '#core/project';
import {
  contourLines,
  edgeCells,
  fillDepressions,
  flowOf,
  spreadArea,
  interceptorCells,
  firstInterceptor,
  shapeOf,
  slopesOf,
  statsOf,
  upstreamOf,
  type Flow,
  type Grid,
} from '#core/terrain';
import { type CheckDams, registry } from '#core/works';
import { writeGeoTiff } from '../../core/formats/geotiff.ts';
import { manyProject, sillMoved } from '../../core/testing/many.ts';
import { fieldWorks } from './field-works.ts';
import { fieldWorksInPage } from './in-page.ts';
import { mapOf200kPlaces } from './files.ts';
import { demoSeason, hundredSizes } from './season.ts';
import { syntheticGauge, syntheticGrid, syntheticPoints } from './synthetic.ts';

const ROUNDS = 7;
/** Runs before the timed ones: the yardstick is compiled when it starts, this only after some use. What a first run costs is the cold chain's figure. */
const WARM = 5;

interface Timing {
  readonly kernel: string;
  readonly size: number;
  readonly medianS: number;
  readonly cellsPerS: number;
  readonly refS?: number;
  readonly ratio?: number;
}

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

function timed(run: () => unknown): number {
  const start = performance.now();
  run();
  return (performance.now() - start) / 1000;
}

/** Seconds the C yardstick reports for one kernel; null without it. */
function refSeconds(args: readonly string[]): number | null {
  const ref = process.env.OUTLET_REF;
  if (ref === undefined || ref === '') return null;
  const out = spawnSync(ref, args, { encoding: 'utf8' });
  const seconds = Number.parseFloat(out.stdout);
  return Number.isFinite(seconds) ? seconds : null;
}

function compare(kernel: string, size: number, how: { run: () => unknown; ref: readonly string[]; cells: number }): Timing {
  const [ours, theirs]: [number[], number[]] = [[], []];
  for (let k = 0; k < WARM; k++) how.run();
  for (let k = 0; k < ROUNDS; k++) {
    ours.push(timed(how.run));
    const ref = refSeconds(how.ref);
    if (ref !== null) theirs.push(ref);
  }
  const medianS = median(ours);
  const base = { kernel, size, medianS, cellsPerS: how.cells / medianS };
  return theirs.length === 0 ? base : { ...base, refS: median(theirs), ratio: medianS / median(theirs) };
}

function largest(flow: Flow): number {
  let at = 0;
  for (let i = 1; i < flow.cells.length; i++) if (flow.cells[i] > flow.cells[at]) at = i;
  return at;
}

function kernelsOn(size: number): Timing[] {
  const grid = syntheticGrid(size);
  const cells = size * size;
  const n = String(size);
  const out: Timing[] = [];
  out.push(compare('fill', size, { run: () => fillDepressions(grid), ref: ['fill', n, '2'], cells }));
  const filled = fillDepressions(grid);
  out.push(compare('flow and accumulation', size, { run: () => flowOf(grid, filled), ref: ['d8', n], cells }));
  out.push(compare('multiple-flow accumulation', size, { run: () => spreadArea(grid, filled), ref: ['mfd', n], cells }));
  const flow = flowOf(grid, filled);
  const outlet = largest(flow);
  out.push(compare('one catchment', size, { run: () => upstreamOf(flow, [outlet]), ref: ['watershed', n], cells }));
  const edge = edgeCells(grid);
  const slopes = slopesOf(grid, edge);
  const later = (): unknown => shapeOf(grid, flow, { ...upstreamOf(flow, [outlet]), edge, slopes });
  out.push(compare('a later catchment with its shape', size, { run: later, ref: ['none'], cells: flow.cells[outlet] }));
  const { minM, maxM } = statsOf(grid);
  const step = ((maxM ?? 0) - (minM ?? 0)) / 51;
  out.push(
    compare('50 contours', size, {
      run: () => contourLines(grid, { firstM: (minM ?? 0) + step, intervalM: step, count: 50 }),
      ref: ['contour', n, '50'],
      cells,
    }),
  );
  const lines = [
    [
      [100, 100],
      [size, size],
    ],
  ] as const;
  const own = compare('first interceptor', size, {
    run: () => firstInterceptor(flow, interceptorCells(grid, lines)),
    ref: ['none'],
    cells,
  });
  return [...out, own];
}

function surveySurface(): Timing {
  const points = syntheticPoints(100_000);
  const frame = { ncols: 1000, nrows: 1000, x0: 0, y0: 999, stepM: 1 };
  return compare('100k points to surface', 1000, {
    run: () => rasterise(points, triangulate(points), frame),
    ref: ['delaunay', '100000'],
    cells: 1e6,
  });
}

/** Cold chain as a worker runs it: fill, flow, accumulation and one catchment. */
function coldChain(grid: Grid): number {
  return timed(() => {
    const flow = flowOf(grid, fillDepressions(grid));
    upstreamOf(flow, [largest(flow)]);
  });
}

interface ChainReport {
  readonly seconds: number;
  readonly reports: readonly string[];
  readonly catchmentCells: number;
  readonly contourPoints: number;
}

/** A 1000 x 1000 GeoTIFF through a worker: seconds from its bytes to contours, flow and a catchment, and what it reported on the way. */
async function fileChain(size: number): Promise<ChainReport> {
  const bytes = writeGeoTiff(syntheticGrid(size), 32633);
  const reports: string[] = [];
  const start = performance.now();
  const { cells, contourPoints } = await inWorker<{ cells: number; contourPoints: number }>(
    './chain-worker.mjs',
    { name: 'bench.tif', bytes },
    (part) => reports.push(part),
  );
  return { seconds: (performance.now() - start) / 1000, reports, catchmentCells: cells, contourPoints };
}

/** Runs a worker to its last message, told apart by `done`; those before name the part just finished. */
function inWorker<T>(entry: string, workerData: unknown, report: (part: string) => void = () => undefined): Promise<T> {
  return new Promise((resolve, reject) => {
    // Compiled beside this.
    const worker = new Worker(new URL(entry, import.meta.url), { workerData });
    worker.on('error', reject);
    worker.on('message', (m: T & { readonly part?: string }) => {
      if (m.part !== undefined) report(m.part);
      else {
        resolve(m);
        void worker.terminate();
      }
    });
  });
}

/** Half a century of daily rain, read and fitted, and its bands by bootstrap, in a worker [s]. */
function gaugeInWorker(): Promise<{ readAndFitS: number; bootstrapS: number; years: number; draws: number }> {
  const bytes = new TextEncoder().encode(syntheticGauge(50));
  return inWorker('./gauge-worker.mjs', { name: 'bench.csv', bytes });
}

/** Ten thousand draws of a catchment's runoff and peak by each loss, in a worker [s]. */
function bandsInWorker(): Promise<{ samples: number; steps: number; seconds: Record<string, number> }> {
  return inWorker('./bands-worker.mjs', null);
}

interface Demo {
  readonly project: Project;
  readonly context: { readonly registry: typeof registry; readonly grids: () => Grid; readonly graph: Graph };
}

/** The demo holding with its ground worked out. */
function demo(file = 'demo.outlet'): Demo {
  const { json, assets } = openProjectFile(
    file,
    new Uint8Array(readFileSync(fileURLToPath(new URL(`../../demo/${file}`, import.meta.url)))),
  );
  const project = json as Project;
  const [bytes] = [...assets.values()];
  const grid = gridFromBytes(bytes);
  const context = { registry, grids: () => grid, graph: new Graph() };
  derive(project, context);
  return { project, context };
}

type Levels = Readonly<Record<string, number>>;

interface Answered {
  readonly medianMs: number;
  readonly worstMs: number;
  readonly perSecond: number;
}

const answered = (times: number[]): Answered => ({ medianMs: median(times), worstMs: Math.max(...times), perSecond: 1000 / median(times) });

/**
 * Derived computation after a change of one level of one work of the demo: by the storms that decided last, as the page asks for
 * it while something is dragged, and by the whole set, as it does when the hand rests. Of 60 edits [ms].
 */
function editOf(id: string, level: string): Answered & { readonly wholeSet: Answered } {
  const { project: first, context } = demo();
  let project = first;
  const { view } = derive(project, context);
  const quick = { only: new Set(view.first), startsM: new Map(Object.entries(view.starts)), isNear: true };
  const times: number[] = [];
  const whole: number[] = [];
  for (let k = 0; k < 60; k++) {
    const works = project.options[0].works.map((w) => {
      const { levels } = w as unknown as { readonly levels: Levels };
      return w.id === id ? { ...w, levels: { ...levels, [level]: levels[level] - 0.001 } } : w;
    });
    project = { ...project, options: [{ ...project.options[0], works }] };
    // A message brings the document as a copy.
    const copy = structuredClone(project);
    times.push(1000 * timed(() => derive(copy, context, quick)));
    whole.push(1000 * timed(() => derive(copy, context)));
  }
  return { ...answered(times), wholeSet: answered(whole) };
}

/** Derived computation after one sill was moved among two hundred swales with a sill each: by the storms that decided last, and by the whole set [ms]. */
function editAmongMany(): { readonly firstMs: number; readonly dragged: Answered; readonly wholeSet: Answered } {
  const grid = syntheticGrid(1000);
  const context = { registry, grids: () => grid, graph: new Graph() };
  let project = manyProject(grid, 200);
  const firstMs = 1000 * timed(() => derive(structuredClone(project), context));
  const { view } = derive(structuredClone(project), context);
  const quick = { only: new Set(view.first), startsM: new Map(Object.entries(view.starts)), isNear: true };
  const times = (asked: Parameters<typeof derive>[2]): number[] =>
    Array.from({ length: 60 }, () => {
      project = sillMoved(project, -0.001);
      // A message brings the document as a copy.
      const copy = structuredClone(project);
      return 1000 * timed(() => derive(copy, context, asked));
    });
  return { firstMs, dragged: answered(times(quick)), wholeSet: answered(times({})) };
}

/** A gully of check dams, and one of them in the middle made lower: the whole set each time [ms]. */
function editInGully(): { dams: number; firstMs: number; medianMs: number } {
  const { project, context } = demo('dry-fork.outlet');
  const firstMs = 1000 * timed(() => derive(project, { ...context, graph: new Graph() }));
  const [first, ...rest] = project.options;
  const series = first.works[0] as CheckDams;
  const middle = Math.floor(series.dams.length / 2);
  const times = Array.from({ length: 9 }, (_, n) => {
    const dams = series.dams.map((dam, k) => (k === middle ? { ...dam, heightM: dam.heightM - 0.001 * (n + 1) } : dam));
    const works = [{ ...series, dams }, ...first.works.slice(1)];
    const copy = structuredClone({ ...project, options: [{ ...first, works }, ...rest] });
    return 1000 * timed(() => derive(copy, context));
  });
  return { dams: series.dams.length, firstMs, medianMs: median(times) };
}

/** Two thousand small intakes over a million cells: what each of fifty stores they belong to catches [ms]. */
function smallIntakes(): number {
  const grid = syntheticGrid(1000);
  const model = groundModel(manyProject(grid, 1), { registry, grids: () => grid, graph: new Graph() });
  if (!model) throw new Error('no ground');
  const intakes = Array.from({ length: 2000 }, (_, k): Intake[] => {
    const [x, y] = [60 + 38 * (k % 50), 60 + 46 * Math.floor(k / 50)];
    return [{ store: `row${k % 50}`, line: [[x, y], [x + 4, y + 1]] }]; // prettier-ignore
  });
  const once = (): number => {
    const graph = new Graph();
    // Slopes are there already: every catchment asks for them.
    slopesIn(model, graph);
    // Drawn anew: what is known of a line is known by the line.
    const own = structuredClone(intakes);
    return timed(() => gathered(graph, own));
  };
  const gathered = (graph: Graph, own: typeof intakes): void => {
    const met = interception(model, own, graph);
    storeCatchments(model, met, graph);
  };
  return 1000 * median(Array.from({ length: 7 }, once));
}

/** Order of failure of the demo [s]. */
function orderOfFailure(): number {
  const { project, context } = demo();
  return median([1, 2, 3].map(() => timed(() => failureOrder(project, context))));
}

/** Routing of 200 stores over a day at one minute, some of them joined by a pipe [ms]. */
function routing(joined: boolean): number {
  const steps = 1440;
  const inflow = Array.from({ length: steps }, (_, i) => 0.05 * Math.exp(-(((i - 700) / 60) ** 2)) + 0.0005);
  const pipe = culvertLaw({
    barrels: 1,
    diameterM: 0.5,
    lengthM: 10,
    slope: 0,
    n: 0.013,
    inlet: 'corrugated-projecting',
    inletM: 0.2,
    outletM: 0.2,
  });
  const stores = Array.from({ length: 200 }, (_, k): RoutedStore => {
    const levelM = Float64Array.from({ length: 49 }, (__, i) => i / 24);
    const next = k % 10 === 9 ? 'ground' : `s${k + 1}`;
    const isJoined = joined && k % 5 === 0;
    return {
      id: `s${k}`,
      stage: { levelM, volumeM3: levelM.map((h) => (200 + k) * h), wettedM2: levelM.map(() => 200 + k) },
      inflow,
      outlets: [
        { id: `o${k}`, to: next, lagS: 130, flowAt: grassedSillLaw({ lengthM: 6, levelM: 0.5 }) },
        { id: `b${k}`, to: 'ground', lagS: 0, flowAt: grassedSillLaw({ lengthM: 100, levelM: 1 }) },
        ...(isJoined ? [{ id: `j${k}`, to: `s${k + 1}`, lagS: 0, flowAt: pipe, isJoint: true }] : []),
      ],
    };
  });
  return 1000 * median(Array.from({ length: 7 }, () => timed(() => route({ stores, stepS: 60, steps }))));
}

/** All figures of the benchmark. */
export async function runBench(): Promise<unknown> {
  const kernels = [1000, 2000].flatMap(kernelsOn);
  return {
    format: 'outlet-bench',
    node: process.version,
    kernels: [...kernels, surveySurface()],
    coldChainS: { '1000': median([1, 2, 3].map(() => coldChain(syntheticGrid(1000)))), '2000': coldChain(syntheticGrid(2000)) },
    fileToContoursInWorker: await fileChain(1000),
    gaugeOf50YearsInWorker: await gaugeInWorker(),
    bandsInWorker: await bandsInWorker(),
    editOfDepth: editOf('orchard', 'floorM'),
    draggedSill: editOf('far-sill', 'sillM'),
    sillAmong200: editAmongMany(),
    gully: editInGully(),
    fieldWorks: fieldWorks(),
    fieldWorksInPage: await fieldWorksInPage(),
    hundredSizesMs: hundredSizes(),
    season: demoSeason(),
    drainTree: drainTree(),
    longFallsMs: longFalls(),
    mapOf200kPlacesMs: await mapOf200kPlaces(),
    smallIntakes2000Ms: smallIntakes(),
    orderOfFailureS: orderOfFailure(),
    routing200StoresMs: { apart: routing(false), someJoined: routing(true) },
  };
}
