// Generates the second demo: a dry, gullied hillside with its works in every state. Run with `npm run demo:data`.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { WorkBase } from '#core/contract';
import { type Command, execute, startHistory } from '#core/commands';
import { writeProjectFile } from '#core/formats';
import { type Project, assetName, emptyProject, gridToBytes } from '#core/project';
import type { Line, Point } from '#core/geometry';
import { gridFromLevels } from '#core/terrain';
import { type CheckDams, type Dam, type HalfMoons, type Headcut, type Reach, type StoneLines, type Weir, registry } from '#core/works';
import { HEAD_Y, LONG_M, WIDE_M, bedOf, dryForkLevel, mainAt } from './dry-fork-ground.ts';

const CELL_M = 1.5;
// In mid-ocean on purpose, like the first.
const CRS = 32626;
const WEST = 436000;
const SOUTH = 4618000;

const [ncols, nrows] = [Math.round(WIDE_M / CELL_M), Math.round(LONG_M / CELL_M)];
const levels = new Float64Array(ncols * nrows);
for (let row = 0, i = 0; row < nrows; row++) {
  for (let col = 0; col < ncols; col++, i++)
    levels[i] = Math.round(100 * dryForkLevel((col + 0.5) * CELL_M, (nrows - row - 0.5) * CELL_M)) / 100;
}
const grid = gridFromLevels({ ncols, nrows, cellM: CELL_M, west: WEST, south: SOUTH }, levels);
const here = ([x, y]: readonly [number, number]): Point => [WEST + x, SOUTH + y];

const rain = {
  durationsMin: [5, 10, 30, 60, 120, 360, 1440],
  returnYears: [2, 5, 10, 20, 50, 100],
  depthMm: [
    [5.4, 8.2, 13.1, 16.4, 19.2, 25.5, 34],
    [7.6, 11.6, 18.7, 23.4, 27.3, 35.8, 47],
    [9.2, 14.1, 22.8, 28.6, 33.3, 43.4, 57],
    [10.9, 16.7, 27.1, 34, 39.5, 51.2, 67],
    [13.3, 20.4, 33.3, 41.8, 48.4, 62.3, 81],
    [15.2, 23.5, 38.4, 48.2, 55.7, 71.5, 93],
  ],
};

const bytes = gridToBytes(grid);
const sha256 = assetName(bytes);

/** What a drawing begins with. */
function begun(
  kind: string,
  points: readonly (readonly [number, number])[],
  as: { readonly id: string; readonly name: string; readonly how: string },
): unknown {
  const land = { grid, stores: [], nameFor: () => as.name, idFor: () => as.id };
  const made = registry.begin(kind, { how: as.how, points: points.map(here), host: null }, land);
  if (!made.ok) throw new Error(`the demo's ${as.id} cannot begin: ${JSON.stringify(made.problem)}`);
  return made.works[0];
}

/** The series a drawing down a bed begins with. */
function drawn(
  bed: readonly (readonly [number, number])[],
  as: { readonly id: string; readonly name: string; readonly how: string },
): CheckDams {
  return begun('check-dams', bed, as) as CheckDams;
}

/** As they were found and measured two seasons on: the upper ones full of silt, one broken by a root that came down. */
const found = (dams: readonly Dam[]): Dam[] =>
  dams.map((dam, k): Dam => {
    const silted = Math.round(Math.max(0, 92 - 17 * k + 8 * Math.sin(2.4 * k)));
    return {
      ...dam,
      heightM: Math.round(100 * (dam.heightM - 0.04 + 0.06 * Math.sin(3.1 * k))) / 100,
      isMeasured: true,
      ...(silted > 0 ? { siltedPercent: silted } : {}),
      ...(k === 3 ? { lostPercent: 45, note: 'A root came down in the spring flood and took the east end; picture 31.' } : {}),
      rockNearM3: Math.round(10 * (2.1 + 1.6 * Math.sin(1.7 * k))) / 10,
    };
  });

const upper = drawn(bedOf('main', [246, 166]), { id: 'upper', name: 'Upper gully', how: 'check-dams' });
const fork = drawn(bedOf('fork', [214, 154]), { id: 'fork', name: 'Fork', how: 'check-dams-gully' });

/** A weir of baskets from before, set on the bed with hardly a key: the second flood went round its west end. */
const old = begun('weir', [[mainAt(118) - 5, 113.9], [mainAt(118) + 5, 122.3]], { id: 'old-weir', name: 'Old weir', how: 'weir' }) as Weir; // prettier-ignore
const oldWeir: Weir = {
  ...old,
  status: 'existing',
  ground: 'firm',
  found: 'flanked',
  dimensions: {
    ...old.dimensions,
    topWidthM: 1,
    baseWidthM: 1,
    foundationM: 0.2,
    keyM: 0.3,
    apronM: 1,
    apronDropM: 0,
    cutoffM: 0,
    rampUpHV: 0,
  },
  siltedPercent: 60,
};
/** Where the gully eats into the hill, read against a peg for two seasons. */
const lip = begun('headcut', [[mainAt(HEAD_Y) - 3.5, HEAD_Y + 3], [mainAt(HEAD_Y) + 4.5, HEAD_Y + 2.6]], { id: 'head', name: 'Gully head', how: 'headcut' }) as Headcut; // prettier-ignore
const head: Headcut = {
  ...lip,
  status: 'existing',
  above: 'resting',
  soil: 'firm',
  readings: [
    { toLipM: 12, rainMm: 0 },
    { toLipM: 11.7, rainMm: 142 },
    { toLipM: 11.45, rainMm: 96 },
    { toLipM: 10.9, rainMm: 171 },
  ],
  threatM: 42,
  yearRainMm: 310,
};
/** Half-moons dug by a crew on the old field, two of them broken in their first storm. */
const dug = begun('half-moons', [[41, 31], [88, 36], [90, 58], [38, 60]], { id: 'moons', name: 'Field moons', how: 'half-moons' }) as HalfMoons; // prettier-ignore
const moons: HalfMoons = {
  ...dug,
  status: 'existing',
  crop: { needMm: 420, rainMm: 240, runoffShare: 0.35, usedShare: 0.6 },
  breaches: [
    { row: 2, number: 3 },
    { row: 3, number: 5 },
  ],
};
const rowsOfStone = begun('stone-lines', [[52, 62], [92, 61], [92, 79], [50, 79]], { id: 'lines', name: 'Field lines', how: 'stone-lines' }) as StoneLines; // prettier-ignore
/** The wash below the old weir, taped and levelled after the second flood: the map's cells are as wide as its bed. */
const wash = begun('reach', bedOf('main', [104, 58]), { id: 'wash', name: 'Lower wash', how: 'gully-reach' }) as Reach;
const taped = (at: number, k: number): number => Math.round(100 * at * (1 + 0.14 * Math.sin(1.9 * k + at))) / 100;
const lowerWash: Reach = {
  ...wash,
  known: 'levelled',
  rough: 'stony',
  bedIs: 'coarse-gravel',
  sections: wash.sections.map((s, k) => ({
    atM: s.atM,
    bedM: Math.round(100 * (s.bedM - 0.12 - 0.04 * Math.sin(2.2 * k))) / 100,
    bedWidthM: taped(s.bedWidthM, k),
    leftOutM: taped(0.7 * s.leftOutM, k),
    leftHighM: taped(s.leftHighM, k + 1),
    rightOutM: taped(0.8 * s.rightOutM, k + 2),
    rightHighM: taped(s.rightHighM, k + 3),
  })),
};
const works: readonly unknown[] = [
  { ...upper, status: 'existing', dams: found(upper.dams), labour: { ...upper.labour, carryM: 35, fillsAYear: 5, siltM3AYear: 9 } },
  { ...fork, form: 'brush', labour: { m3PerDay: 2, carryM: 80 } },
  oldWeir,
  head,
  moons,
  { ...rowsOfStone, rockNearM3: 9, gaps: [{ row: 1, atM: 17, widthM: 0.4 }] },
  lowerWash,
];

const ring: Line = [[14, 14], [176, 9], [252, 40], [249, 252], [206, 331], [58, 328], [12, 214]]; // prettier-ignore
const track: Line = [[12, 96], [70, 84], [112, 70], [150, 66], [206, 82], [252, 74]]; // prettier-ignore
const commands: Command[] = [
  { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256, source: 'demo/dry-fork.outlet' }, crs: `EPSG:${CRS}` } },
  { type: 'site.set', payload: { outline: ring.map(here) } },
  { type: 'feature.add', payload: { feature: { id: 'track', kind: 'track', name: 'Mule track', line: track.map(here) } } },
  { type: 'rain.set', payload: { rain: { table: rain, storm: { returnYears: 20 }, source: 'invented for this demo', basis: 'table' } } },
  {
    type: 'ground.set',
    payload: {
      ground: {
        soilGroup: 'C',
        cover: 'desert-poor',
        curveNumber: null,
        runoffC: null,
        infiltrationMmPerHour: 7,
        soilDepthM: 0.9,
        compaction: 'some',
        healing: { treatment: 'rest', cover: 'desert-fair' },
        healedYears: 6,
      },
    },
  },
  { type: 'works.add', payload: { works: works as readonly WorkBase[] } },
];

const { project } = commands.reduce((h, c) => execute(h, c, { registry }), startHistory(emptyProject('dry-fork', 'Dry Fork')));
writeFileSync(join(import.meta.dirname, 'dry-fork.outlet'), writeProjectFile(project satisfies Project, new Map([[sha256, bytes]])));
console.log(JSON.stringify({ cells: grid.z.length, upper: upper.dams.length, fork: fork.dams.length }));
