// Generates the demo holding: terrain as GeoTIFF, sample files to start from, and the project built by the same commands
// that the interface uses. Run with `npm run demo:data`; the result is committed.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Command, execute, startHistory } from '#core/commands';
import { importFile, writeProjectFile, writeRainTable } from '#core/formats';
import { usualCases } from '#core/derive';
import type { Line, Point } from '#core/geometry';
import type { FieldTest } from '#core/ground';
import { type Project, type Supply, type Zone, assetName, emptyProject, gridToBytes, recordToBytes } from '#core/project';
import { gridFromLevels, levelAt, settleOnContour } from '#core/terrain';
import {
  type Crossing,
  type CutSpillway,
  type LevelSill,
  type PipeOutlet,
  type Pond,
  type Roof,
  type Swale,
  type Tank,
  newPond,
  newRoof,
  newSwale,
  newTank,
  registry,
} from '#core/works';
import { writeGeoTiff } from '../core/formats/geotiff.ts';
import { gaugeCsv } from './weather.ts';
import { HEIGHT_M, WIDTH_M, groundLevel } from './surface.ts';

const CELL_M = 2;
// In mid-ocean on purpose: the holding is nowhere.
const CRS = 32626;
const WEST = 431000;
const SOUTH = 4612000;

const [ncols, nrows] = [WIDTH_M / CELL_M, HEIGHT_M / CELL_M];
const levels = new Float64Array(ncols * nrows);
for (let row = 0, i = 0; row < nrows; row++) {
  for (let col = 0; col < ncols; col++, i++)
    levels[i] = Math.round(1000 * groundLevel((col + 0.5) * CELL_M, (nrows - row - 0.5) * CELL_M)) / 1000;
}
const grid = gridFromLevels({ ncols, nrows, cellM: CELL_M, west: WEST, south: SOUTH }, levels);
const here = (x: number, y: number): Point => [WEST + x, SOUTH + y];
const out = (name: string, data: Uint8Array | string): void => writeFileSync(join(import.meta.dirname, name), data);

const outline = [here(96, 70), here(330, 44), here(520, 92), here(548, 300), here(500, 505), here(250, 520), here(88, 470)];
const box = (x: number, y: number, size: { w: number; h: number; turn: number }): Point[] =>
  [
    [0, 0],
    [size.w, 0],
    [size.w, size.h],
    [0, size.h],
  ].map(([u, v]) => here(x + u * Math.cos(size.turn) - v * Math.sin(size.turn), y + u * Math.sin(size.turn) + v * Math.cos(size.turn)));

const rain = {
  durationsMin: [5, 10, 15, 30, 60, 120, 360, 1440],
  returnYears: [2, 5, 10, 20, 50, 100],
  depthMm: [
    [6.1, 9.4, 11.7, 16.2, 21.6, 28.1, 41.0, 66.0],
    [8.2, 12.6, 15.8, 21.8, 29.1, 37.6, 54.6, 86.0],
    [9.8, 15.1, 18.9, 26.1, 34.8, 44.9, 64.8, 101.0],
    [11.5, 17.7, 22.1, 30.6, 40.8, 52.4, 75.3, 116.0],
    [13.8, 21.3, 26.6, 36.8, 49.0, 62.8, 89.6, 137.0],
    [15.7, 24.2, 30.2, 41.8, 55.7, 71.2, 101.1, 153.0],
  ],
};

/** A line drawn roughly by hand, settled on the contour through its first point. */
function settled(drawn: Line): { line: Point[]; levelM: number } {
  const result = settleOnContour(grid, drawn);
  if (!result.ok) throw new Error(`the demo line cannot settle: ${result.why}`);
  const round = (v: number): number => Math.round(v * 100) / 100;
  return { line: result.line.map(([x, y]) => [round(x), round(y)] as Point), levelM: Math.round(1000 * result.levelM) / 1000 };
}

const ridge = settled([here(168, 372), here(250, 350), here(330, 345), here(420, 372)]);
const orchard = settled([here(190, 258), here(260, 250), here(330, 236), here(420, 268)]);

const [ridgeSwale, ridgeSill] = newSwale({ swale: 'ridge', sill: 'ridge-sill' }, 'Ridge swale', { ...ridge, sillAtM: 206 });
const [orchardSwale, orchardSill] = newSwale({ swale: 'orchard', sill: 'orchard-sill' }, 'Orchard swale', { ...orchard, sillAtM: 196 });
/** Wider and deeper than a first guess, with a sill to match. */
const sized = (swale: typeof ridgeSwale, sill: typeof ridgeSill, lengthM: number): Command => ({
  type: 'works.change',
  payload: {
    changes: [
      {
        id: swale.id,
        set: {
          'levels.floorM': Math.round(1000 * (sill.levels.sillM - 0.45)) / 1000,
          'levels.bankCrestM': Math.round(1000 * (sill.levels.sillM + 0.45)) / 1000,
          'dimensions.floorWidthM': 1.5,
        },
      },
      { id: sill.id, set: { 'dimensions.lengthM': lengthM } },
    ],
  },
});

/** An old pond in the valley: its wall, what was dug before it, and the pipe that never carried enough. */
const pond: Pond = {
  ...newPond('pond', 'Gate pond', {
    wall: [here(284, 190), here(352, 188), here(424, 190)],
    pit: [here(330, 193), here(384, 193), here(378, 212), here(336, 212)],
    crestM: 109.15,
    floorM: 106.6,
  }),
  status: 'existing',
  clayPercent: 23,
};
const oldPipe: PipeOutlet = {
  id: 'old-pipe',
  kind: 'pipe-outlet',
  name: 'Old pipe',
  status: 'existing',
  host: 'pond',
  atM: 36,
  form: 'through',
  inlet: 'corrugated-projecting',
  seal: 'none',
  levels: { sillM: 108.1, outletM: 107.2 },
  dimensions: { diameterM: 0.2, mouthM: 0.4, lengthM: 14 },
  roughness: 0.024,
  blockedPercent: 40,
};
const emergency: CutSpillway = {
  id: 'emergency',
  kind: 'cut-spillway',
  name: 'Emergency sill',
  status: 'planned',
  host: 'pond',
  atM: 10,
  levels: { sillM: 108.75 },
  dimensions: { bottomWidthM: 6, sideSlopeHV: 3, inletLengthM: 5, controlLengthM: 6, stoneM: 0 },
};
const beside = settled([here(399, 205), here(404, 190), here(411, 176), here(432, 164)]);
const [backUp, farSill] = newSwale({ swale: 'back-up', sill: 'far-sill' }, 'Back-up swale', { ...beside, sillAtM: 42 });
const joined: Swale = {
  ...backUp,
  purpose: 'spillway',
  levels: { floorM: 107.95, bankCrestM: 109.05 },
  dimensions: { ...backUp.dimensions, floorWidthM: 1.6 },
  joins: { store: 'pond', end: 'start' },
  fuse: { fromM: 22, toM: 30, crestM: 108.95 },
};
const far: LevelSill = { ...farSill, name: 'Far sill', levels: { sillM: 108.45 }, dimensions: { lengthM: 12, crestWidthM: 1.2 } };
const ford: Crossing = {
  id: 'ford',
  kind: 'crossing',
  name: 'Valley track',
  status: 'planned',
  form: 'dip',
  line: [here(306, 110), here(345, 111), here(388, 110)],
  inlet: 'concrete-groove-headwall',
  levels: { roadM: 103.5, inletM: 102.25, outletM: 102.1, dipM: 103.2 },
  dimensions: { roadWidthM: 4, sideSlopeHV: 2, barrels: 2, diameterM: 0.45, overhangM: 0.5, dipLengthM: 14 },
  roughness: 0.013,
  blockedPercent: 0,
};

/** The barn's roof, caught along both eaves, and a cistern in its lee whose overflow was set a good way too low. */
const barnRing = box(232, 112, { w: 24, h: 12, turn: -0.15 });
const barnRoof: Roof = {
  ...newRoof('barn-roof', 'Barn roof', { ring: barnRing }),
  fallPercent: 0.3,
  screen: 'mesh',
  dimensions: { ...newRoof('r', 'R', { ring: barnRing }).dimensions, eavesM: 3.4, riseM: 1.8, gutterM: 0.2, downpipes: 4, downpipeM: 0.1 },
};
const firstCistern = newTank('cistern', 'Barn cistern', { how: 'cistern', at: here(252, 123.5) });
const cistern: Tank = {
  ...firstCistern,
  status: 'existing',
  count: 2,
  frost: 'none',
  dimensions: { ...firstCistern.dimensions, standM: 0.4, overflowM: 1.7 },
};
/** What is drawn through the year: animals from the pond, the house and its garden from the roof. */
const supply: Supply = {
  needs: [
    { id: 'house', name: 'House, four people', store: 'cistern', kind: 'daily', count: 4, each: 60 },
    { id: 'garden', name: 'Kitchen garden', store: 'cistern', kind: 'garden', count: 40, each: 4, months: [4, 5, 6, 7, 8, 9] },
    { id: 'herd', name: 'Cattle', store: 'pond', kind: 'daily', count: 18, each: 50 },
  ],
  price: { fixed: 300, perM3: 110 },
  boughtPer1000L: 4.2,
};

/** A double ring read every quarter of an hour, filled up again each time. */
const ring: FieldTest = {
  id: 'ring-1',
  kind: 'double-ring',
  name: 'Ring by the orchard',
  zone: null,
  at: here(300, 268),
  sizes: {},
  safety: 2,
  readings: [0, 17, 11.5, 8.5, 7, 6.5, 6.5, 6.5].map((fell, k) => ({ min: 15 * k, mm: 100 - fell, ...(k > 0 ? { refilledMm: 100 } : {}) })),
};

/** Trodden by stock and wheels, and no grass on it. */
const yard: Zone = {
  id: 'yard',
  name: 'Yard',
  ring: [here(176, 104), here(262, 92), here(274, 128), here(244, 166), here(186, 160)],
  soilGroup: 'C',
  cover: 'farmyard',
  curveNumber: null,
  runoffC: null,
  infiltrationMmPerHour: 3,
  soilDepthM: 1.6,
  compaction: 'severe',
};

/** Old trees along the gully and about the house, a small wood on the ridge: none in a row. */
const TREES: readonly (readonly [number, number])[] = [
  [497, 219], [509, 232], [523, 226], [478, 168], [469, 151], [487, 139], [459, 118], [452, 96],
  [188, 121], [181, 138], [216, 150], [258, 99], [241, 92], [204, 212], [160, 243], [133, 300], [127, 342], [155, 401],
  [447, 402], [463, 389], [291, 78], [377, 73],
]; // prettier-ignore
const WOOD = [
  here(396, 466),
  here(421, 447),
  here(463, 452),
  here(492, 439),
  here(511, 458),
  here(494, 489),
  here(452, 497),
  here(415, 489),
];
const trees: readonly Command[] = [
  { type: 'feature.add', payload: { feature: { id: 'wood', kind: 'wood', name: 'Ridge wood', ring: WOOD } } },
  ...TREES.map(([x, y], k): Command => ({
    type: 'feature.add',
    payload: { feature: { id: `tree-${k + 1}`, kind: 'tree', name: 'Tree', at: here(x, y) } },
  })),
];

const weather = gaugeCsv();
const gauge = await importFile({ name: 'sample-gauge.csv', bytes: new TextEncoder().encode(weather) });
if (gauge.kind !== 'gauge') throw new Error('the demo gauge is not read as one');
const record = recordToBytes(gauge.record);
const bytes = gridToBytes(grid);
const sha256 = assetName(bytes);
const commands: Command[] = [
  { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256, source: 'demo/sallow-rise.tif' }, crs: `EPSG:${CRS}` } },
  { type: 'site.set', payload: { outline } },
  {
    type: 'feature.add',
    payload: { feature: { id: 'house', kind: 'building', name: 'Farmhouse', ring: box(196, 128, { w: 17, h: 10, turn: 0.3 }) } },
  },
  {
    type: 'feature.add',
    payload: { feature: { id: 'barn', kind: 'building', name: 'Barn', ring: box(232, 112, { w: 24, h: 12, turn: -0.15 }) } },
  },
  {
    type: 'feature.add',
    payload: {
      feature: {
        id: 'track',
        kind: 'track',
        name: 'Track',
        line: [
          here(330, 44),
          here(300, 92),
          here(262, 138),
          here(205, 158),
          here(168, 205),
          here(150, 280),
          here(142, 380),
          here(170, 470),
        ],
      },
    },
  },
  ...trees,
  { type: 'rain.set', payload: { rain: { table: rain, storm: { returnYears: 20 }, source: 'invented for the demo', basis: 'table' } } },
  { type: 'gauge.set', payload: { gauge: { sha256: assetName(record), source: 'demo/sample-gauge.csv' } } },
  {
    type: 'ground.set',
    payload: {
      ground: {
        soilGroup: 'C',
        cover: 'pasture-fair',
        curveNumber: null,
        runoffC: null,
        infiltrationMmPerHour: 13,
        soilDepthM: 1.6,
        compaction: 'some',
        healing: { treatment: 'rest', cover: 'pasture-good' },
        healedYears: 5,
        rateFrom: 'ring-1',
        tests: [ring],
        zones: [yard],
        erosion: { annualMm: 826 },
      },
    },
  },
  { type: 'pin.add', payload: { pin: { id: 'pin-1', name: 'Valley gate', at: here(352, 176) } } },
  { type: 'works.add', payload: { works: [ridgeSwale, ridgeSill] } },
  { type: 'works.add', payload: { works: [orchardSwale, orchardSill] } },
  sized(ridgeSwale, ridgeSill, 12),
  sized(orchardSwale, orchardSill, 16),
  { type: 'works.add', payload: { works: [pond, oldPipe, emergency] } },
  { type: 'works.add', payload: { works: [joined, far] } },
  { type: 'works.add', payload: { works: [ford] } },
  { type: 'works.add', payload: { works: [barnRoof, cistern] } },
  { type: 'link.set', payload: { outlet: 'barn-roof#down', to: 'cistern' } },
  {
    type: 'climate.set',
    payload: { climate: { evaporationMm: [32, 44, 76, 104, 138, 160, 172, 152, 108, 68, 40, 30], source: 'invented for the demo' } },
  },
  { type: 'supply.set', payload: { supply } },
  { type: 'works.change', payload: { changes: [{ id: 'orchard-sill', set: { status: 'existing' } }] } },
  // Dug two winters ago; the bank has settled where a cart went over it.
  {
    type: 'works.change',
    payload: {
      changes: [
        {
          id: 'orchard',
          set: { status: 'existing', lowPlaces: [{ atM: 84, lengthM: 6, levelM: Math.round(1000 * (orchard.levelM - 0.045)) / 1000 }] },
        },
      ],
    },
  },
];

const started = commands.reduce((h, c) => execute(h, c, { registry }), startHistory(emptyProject('sallow-rise', 'Sallow Rise')));
const project = usualCases(started.project, { registry }).reduce(
  (h, one) => execute(h, { type: 'case.add', payload: { case: one } }, { registry }),
  started,
).project;

/** Survey points over part of the holding, as a level and a notebook would give them. */
function surveyCsv(): string {
  const rows = ['x,y,z'];
  for (let i = 0; i < 17; i++) {
    for (let j = 0; j < 13; j++) {
      const [x, y] = [200 + 12 * i + 5 * Math.sin(3 * i + j), 150 + 12 * j + 5 * Math.cos(2 * j + i)];
      rows.push(`${x.toFixed(2)},${y.toFixed(2)},${groundLevel(x, y).toFixed(3)}`);
    }
  }
  return `${rows.join('\n')}\n`;
}

out('sallow-rise.tif', writeGeoTiff(grid, CRS));
out(
  'demo.outlet',
  writeProjectFile(
    project satisfies Project,
    new Map([
      [sha256, bytes],
      [assetName(record), record],
    ]),
  ),
);
out('sample-survey.csv', surveyCsv());
out('sample-rain.csv', writeRainTable(rain));
out('sample-gauge.csv', weather);
console.log(
  JSON.stringify({
    cells: grid.z.length,
    low: Math.min(...levels),
    high: Math.max(...levels),
    ridge: ridge.levelM,
    orchard: orchard.levelM,
    gate: levelAt(grid, here(352, 176)),
  }),
);
