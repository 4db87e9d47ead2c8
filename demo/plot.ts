// Generates a third demo: a school's plot with roofs, barrels, cement tanks and an old pool to be filled with crates. Run with
// `npm run demo:data`; the result is committed.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Command, execute, startHistory } from '#core/commands';
import type { WorkBase } from '#core/contract';
import { writeProjectFile } from '#core/formats';
import { Graph, beginWorks } from '#core/derive';
import type { Line, Point } from '#core/geometry';
import { type Project, type Supply, assetName, emptyProject, gridToBytes } from '#core/project';
import { gridFromLevels } from '#core/terrain';
import {
  type PipedDrain,
  type Roof,
  type SeepDrain,
  type Tank,
  type SupplyLine,
  newRoof,
  newSeepDrain,
  newTank,
  registry,
} from '#core/works';
import { LONG_M, POOL, WIDE_M, plotLevel } from './plot-ground.ts';

const CELL_M = 0.25;
// In mid-ocean on purpose: the school is nowhere.
const CRS = 32627;
const WEST = 440000;
const SOUTH = 4606000;
const [ncols, nrows] = [WIDE_M / CELL_M, LONG_M / CELL_M];
const levels = Float64Array.from({ length: ncols * nrows }, (_, i) => {
  const [row, col] = [Math.floor(i / ncols), i % ncols];
  return Math.round(1000 * plotLevel((col + 0.5) * CELL_M, (nrows - row - 0.5) * CELL_M)) / 1000;
});
const grid = gridFromLevels({ ncols, nrows, cellM: CELL_M, west: WEST, south: SOUTH }, levels);
const here = ([x, y]: readonly [number, number]): Point => [WEST + x, SOUTH + y];
const bytes = gridToBytes(grid);
const sha256 = assetName(bytes);

/** A rectangle from its south-west corner, turned a little: nothing on a plot stands square. */
const box = (x: number, y: number, size: { readonly w: number; readonly h: number; readonly turn: number }): Line =>
  ([[0, 0], [size.w, 0], [size.w, size.h], [0, size.h]] as const).map(([u, v]) => here([x + u * Math.cos(size.turn) - v * Math.sin(size.turn), y + u * Math.sin(size.turn) + v * Math.cos(size.turn)])); // prettier-ignore

const SCHOOL = box(13.2, 8.1, { w: 25.5, h: 8.4, turn: 0.035 });
const WING = box(37.6, 16.4, { w: 7.2, h: 13.5, turn: 0.035 });
const SHED = box(3.4, 27.3, { w: 5.6, h: 3.8, turn: -0.06 });
const BIKES = box(51.2, 12.6, { w: 4.2, h: 9.5, turn: 0.02 });

const roofOn = ([id, name]: readonly [string, string], ring: Line, change: Partial<Roof['dimensions']> = {}): Roof => {
  const first = newRoof(id, name, { ring });
  return {
    ...first,
    screen: 'mesh',
    fallPercent: 0.3,
    dimensions: { ...first.dimensions, eavesM: 3.1, riseM: 1.4, gutterM: 0.15, ...change },
  };
};
const schoolRoof: Roof = {
  ...roofOn(['school-roof', 'School roof'], SCHOOL, { gutterM: 0.2, downpipes: 6, downpipeM: 0.1 }),
  covering: 'concrete-tile',
};
const wingRoof = roofOn(['wing-roof', 'Wing roof'], WING, { gutterM: 0.2, downpipes: 3, downpipeM: 0.1, eavesM: 2.8 });
const shedRoof: Roof = {
  ...roofOn(['shed-roof', 'Shed roof'], SHED, { eavesM: 2.2, riseM: 0.3, gutterM: 0.125, downpipeM: 0.08, firstFlushMm: 2 }),
  screen: 'none',
};

const kitchen: Tank = {
  ...newTank('kitchen-tanks', 'Kitchen tanks', { how: 'mortar-tank', at: here([7.8, 11.6]) }),
  count: 2,
  use: 'drinking',
  frost: 'emptied',
};
const barrel = newTank('shed-barrels', 'Shed barrels', { how: 'barrel', at: here([9.9, 28.3]) });
const barrels: Tank = {
  ...barrel,
  status: 'existing',
  count: 3,
  frost: 'none',
  screen: 'none',
  wall: 'light',
  dimensions: { ...barrel.dimensions, overflowM: 0.6 },
};
const pool = newTank('pool-crates', 'Pool crates', { how: 'crate-tank', at: here([POOL.at[0], POOL.at[1]]) });
/** The old pool as it was measured inside, filled with crates under a lawn. */
const poolCrates: Tank = {
  ...pool,
  form: 'measured',
  ledges: [{ heightM: 0, areaM2: 17.5 }, { heightM: 0.6, areaM2: 31 }, { heightM: 1.1, areaM2: 34 }],
  crates: { ...pool.crates, pit: 'old-pool', coverM: 0.4, over: 'lawn' },
  dimensions: { ...pool.dimensions, heightM: 1.1, standM: 0.1, inletM: 1, overflowM: 0.88, overflowPipeM: 0.2 },
}; // prettier-ignore

function begun(
  kind: string,
  points: readonly (readonly [number, number])[],
  as: { readonly id: string; readonly name: string; readonly how: string },
): WorkBase {
  // prettier-ignore
  const land = { grid, stores: [], nameFor: () => as.name, idFor: () => as.id };
  const made = registry.begin(kind, { how: as.how, points: points.map(here), host: null }, land);
  if (!made.ok) throw new Error(`the demo's ${as.id} cannot begin: ${JSON.stringify(made.problem)}`);
  return made.works[0];
}
const garden = begun('rain-garden', [[33.5, 38.2], [29.6, 37.3]], { id: 'bed', name: 'Rain bed', how: 'rain-garden' }); // prettier-ignore

const rain = {
  durationsMin: [5, 10, 15, 30, 60, 120, 360, 1440],
  returnYears: [2, 5, 10, 20, 50, 100],
  depthMm: [
    [7.4, 11.2, 13.9, 19.4, 25.6, 32.7, 45.2, 62],
    [9.8, 14.9, 18.6, 26.1, 34.5, 43.8, 60.1, 82],
    [11.6, 17.7, 22.1, 31.1, 41.2, 52.3, 71.4, 97],
    [13.6, 20.8, 26, 36.7, 48.7, 61.7, 83.9, 113],
    [16.4, 25.2, 31.6, 44.7, 59.4, 75.1, 101.6, 136],
    [18.7, 28.9, 36.3, 51.4, 68.4, 86.4, 116.5, 155],
  ],
};
const SCHOOL_MONTHS = [1, 2, 3, 4, 5, 6, 9, 10, 11, 12];
const supply: Supply = {
  needs: [
    { id: 'kitchen', name: 'Kitchen, 110 pupils', store: 'kitchen-tanks', kind: 'daily', count: 110, each: 4, months: SCHOOL_MONTHS },
    { id: 'flush', name: 'Toilets', store: 'pool-crates', kind: 'daily', count: 110, each: 9, months: SCHOOL_MONTHS },
    { id: 'beds', name: 'Vegetable beds', store: 'shed-barrels', kind: 'garden', count: 34, each: 4, months: [5, 6, 7, 8, 9] },
  ],
  price: { fixed: 150, perM3: 95 },
  boughtPer1000L: 3.6,
};

const outline = [here([1.2, 3.6]), here([58.1, 3.2]), here([58.4, 41.6]), here([1.6, 41.9])];
const building = (id: string, name: string, ring: Line): Command => ({ type: 'feature.add', payload: { feature: { id, kind: 'building', name, ring } } }); // prettier-ignore
const TREES = [[4.2, 17.3], [6.8, 20.9], [3.9, 34.8], [31.2, 33.9], [54.9, 27.3], [42.6, 38.8], [19.8, 39.4]] as const; // prettier-ignore
const commands: Command[] = [
  { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256, source: 'demo/plot.outlet' }, crs: `EPSG:${CRS}` } },
  { type: 'site.set', payload: { outline } },
  building('school', 'School', SCHOOL),
  building('wing', 'Wing', WING),
  building('shed', 'Shed', SHED),
  building('bikes', 'Bicycles', BIKES),
  { type: 'feature.add', payload: { feature: { id: 'street', kind: 'road', name: 'Street', line: [here([0.5, 1.4]), here([30, 1.5]), here([61.5, 1.2])] } } }, // prettier-ignore
  ...TREES.map((at, k): Command => ({ type: 'feature.add', payload: { feature: { id: `tree-${k + 1}`, kind: 'tree', name: 'Tree', at: here(at) } } })), // prettier-ignore
  { type: 'feature.add', payload: { feature: { id: 'cooling', kind: 'buried-cable', name: 'Line of the cooling', line: [here([14.8, 15.9]), here([13.2, 20.6]), here([9.4, 23.2])], depthM: 0.3 } } }, // prettier-ignore
  { type: 'feature.add', payload: { feature: { id: 'irrigation', kind: 'buried-pipe', name: 'Irrigation', line: [here([5.2, 10.4]), here([9.8, 10.9]), here([13.4, 10.6])], depthM: 0.25 } } }, // prettier-ignore
  { type: 'rain.set', payload: { rain: { table: rain, storm: { returnYears: 20 }, source: 'invented for this demo', basis: 'table' } } },
  {
    type: 'ground.set',
    payload: { ground: { soilGroup: 'C', cover: 'pasture-fair', curveNumber: null, runoffC: null, infiltrationMmPerHour: 9, soilDepthM: 1.4, compaction: 'some' } }, // prettier-ignore
  },
  {
    type: 'climate.set',
    payload: {
      climate: {
        rainMm: [58, 46, 49, 52, 61, 66, 71, 68, 57, 63, 66, 62],
        wetDays: [11, 9, 10, 9, 9, 9, 10, 9, 8, 10, 11, 12],
        evaporationMm: [12, 20, 42, 66, 92, 108, 114, 96, 62, 34, 16, 10],
        source: 'invented for this demo',
      },
    },
  },
  { type: 'works.add', payload: { works: [kitchen, poolCrates, barrels, schoolRoof, wingRoof, shedRoof, garden] } },
  { type: 'link.set', payload: { outlet: 'school-roof#down', to: 'kitchen-tanks' } },
  { type: 'link.set', payload: { outlet: 'kitchen-tanks#over', to: 'pool-crates' } },
  { type: 'link.set', payload: { outlet: 'wing-roof#down', to: 'pool-crates' } },
  { type: 'link.set', payload: { outlet: 'pool-crates#over', to: 'property-edge' } },
  { type: 'link.set', payload: { outlet: 'shed-roof#down', to: 'shed-barrels' } },
  { type: 'supply.set', payload: { supply } },
];
const laid = commands.reduce((h, c) => execute(h, c, { registry }), startHistory(emptyProject('quill-lane', 'Quill Lane School')));

/** From the crates to the toilets of the wing: a house wants fifteen metres of head, and the crates lie lower than its floor. */
function toiletLine(): SupplyLine {
  const points = [[48.6, 32.9], [46.4, 30.6], [44.1, 27.2], [43.4, 22.1]].map((p) => here([p[0], p[1]])); // prettier-ignore
  const context = { registry, grids: () => grid, graph: new Graph() };
  const [first] = beginWorks(laid.project, context, { kind: 'supply-line', how: 'supply-line', points }).works;
  const line = first as SupplyLine;
  return {
    ...line,
    id: 'toilet-line',
    name: 'Line to the toilets',
    services: 'asked',
    frost: 'emptied',
    mains: 'none',
    flowM3s: 0.0003,
    endHeadM: 15,
    pipe: { ...line.pipe, diameterM: 0.026, coverM: 0.6 },
    pump: { ...line.pump, stands: 'dry', overM: 1.6, stops: 'by-itself', guarded: 'breaker', hoursADay: 1, plateW: 550 },
  };
}
/** From the low yard behind the school, round its western end, to the street. */
function yardDrain(): PipedDrain {
  const points = [[17.8, 19.2], [10.6, 18.6], [6.2, 14.1], [5.6, 6.2], [5.2, 2.2]].map((p) => here([p[0], p[1]])); // prettier-ignore
  const context = { registry, grids: () => grid, graph: new Graph() };
  const [first] = beginWorks(laid.project, context, { kind: 'piped-drain', how: 'street-drain', points }).works;
  const drain = first as PipedDrain;
  // A grate as large as its yard asks for, and pipes as wide as that.
  const basins = drain.basins.map((b, k) => ({
    ...b,
    pipeM: 0.15,
    invertM: Math.round(1000 * (b.invertM - 0.05)) / 1000,
    ...(k === 0 ? { grateLongM: 0.5, grateWideM: 0.5 } : {}),
  }));
  const levels = { outletM: drain.levels.outletM - 0.05 };
  return { ...drain, id: 'yard-drain', name: 'Yard drain', services: 'asked', thresholdM: 41.8, basins, levels };
}
/** A holed pipe somebody laid through the low yard years ago, a sock round it, into clay; nobody knows where it ends. */
const oldDrain: SeepDrain = {
  ...newSeepDrain('old-drain', 'Old holed drain', {
    line: [[29.2, 24.6], [22.4, 22.3], [15.1, 19.6]].map((p) => here([p[0], p[1]])),
    purpose: 'yard',
    levels: { upperM: 41.18, outletM: 41.12 },
  }),
  status: 'existing',
  wrap: 'pipe',
  soil: 'clay',
  downspouts: 'straight',
  seepM3s: 0.000004,
}; // prettier-ignore
const works = [toiletLine(), yardDrain(), oldDrain];
const drained = execute(laid, { type: 'works.add', payload: { works } }, { registry });
/** What stood there before anything was planned: the yard floods, and the old pipe is all that takes it. */
const EXISTING = new Set([barrels.id, shedRoof.id, oldDrain.id]);
const planned = drained.project.options[0].works.flatMap(({ id }) => (EXISTING.has(id) ? [] : [id]));
const { id: first } = drained.project.options[0];
const asItWas: Command[] = [
  { type: 'option.rename', payload: { id: first, name: 'Drained' } },
  { type: 'option.copy', payload: { from: first, id: 'as-it-was', name: 'As it was' } },
  { type: 'works.remove', payload: { ids: planned } },
  { type: 'option.choose', payload: { id: first } },
];
const { project } = asItWas.reduce((h, c) => execute(h, c, { registry }), drained);
writeFileSync(join(import.meta.dirname, 'plot.outlet'), writeProjectFile(project satisfies Project, new Map([[sha256, bytes]])));
console.log(JSON.stringify({ cells: grid.z.length, low: Math.min(...levels), high: Math.max(...levels) }));
