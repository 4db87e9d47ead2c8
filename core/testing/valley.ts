// A V-shaped valley that falls 5 % to the south, with a pond whose water backs up into a swale, and ways to vary it.
import type { WorkBase } from '../contract/index.ts';
import type { Point } from '../geometry/index.ts';
import type { Project } from '../project/index.ts';
import type {
  CheckDams,
  CutSpillway,
  Crossing,
  Diversion,
  HalfMoons,
  Headcut,
  LevelSill,
  PipeOutlet,
  Pond,
  PumpBack,
  RainGarden,
  StoneLines,
  StoneTrench,
  Swale,
  Weir,
} from '../works/index.ts';
import { newPond } from '../works/index.ts';
import { planeProject } from './projects.ts';
import { BENCHES, CREEK, PATCH, PIT, RIPS, ROOF, SET, SOAK, TANK, TO_TAP, WET_SLOPE, YARD_DRAIN } from './valley-fields.ts';

/** Ground of the valley: its floor along x = 101, sides of 20 %. */
export const valleyAt = (x: number, y: number): number => 100 + 0.05 * y + 0.2 * Math.abs(x - 101);

const valleyLevels = (): number[] =>
  Array.from({ length: 101 * 101 }, (_, i) => valleyAt(((i % 101) + 0.5) * 2, (101 - Math.floor(i / 101) - 0.5) * 2));

export const WALL: readonly Point[] = [
  [81, 81],
  [121, 81],
];

/** Lowest ground under the wall 104.05; water to 105.9, crest 106.5. */
export const POND: Pond = { ...newPond('pond', 'Pond', { wall: WALL, crestM: 106.5, floorM: 104 }), borrow: 'elsewhere', clayPercent: 24 };

export const POND_SILL: LevelSill = {
  id: 'ps',
  kind: 'level-sill',
  name: 'Pond sill',
  status: 'planned',
  host: 'pond',
  atM: 34,
  levels: { sillM: 105.9 },
  dimensions: { lengthM: 6, crestWidthM: 1.2 },
};

export const CUT: CutSpillway = {
  id: 'cut',
  kind: 'cut-spillway',
  name: 'Emergency',
  status: 'planned',
  host: 'pond',
  atM: 6,
  levels: { sillM: 106.1 },
  dimensions: { bottomWidthM: 5, sideSlopeHV: 3, inletLengthM: 6, controlLengthM: 6, stoneM: 0 },
};

export const PIPE: PipeOutlet = {
  id: 'pipe',
  kind: 'pipe-outlet',
  name: 'Old pipe',
  status: 'existing',
  host: 'pond',
  atM: 20,
  form: 'through',
  inlet: 'corrugated-projecting',
  seal: 'none',
  levels: { sillM: 105.5, outletM: 105.2 },
  dimensions: { diameterM: 0.2, mouthM: 0.4, lengthM: 12 },
  roughness: 0.024,
  blockedPercent: 0,
};

export const TRENCH: StoneTrench = {
  id: 'trench',
  kind: 'stone-trench',
  name: 'Stone trench',
  status: 'planned',
  host: 'pond',
  atM: 34,
  levels: { floorM: 105.6, sillM: 105.8, rockTopM: 106.1 },
  dimensions: { widthM: 2, lengthM: 8, stoneM: 0.15 },
};

/** Along the contour 106.1 from the pond's side down the valley. */
export const BACKUP: Swale = {
  id: 'backup',
  kind: 'swale',
  name: 'Back-up',
  status: 'planned',
  purpose: 'spillway',
  line: [85, 70, 55, 40, 25].map((y): Point => [101 + (6.1 - 0.05 * y) / 0.2, y]),
  levels: { floorM: 105.3, bankCrestM: 106.45 },
  dimensions: { floorWidthM: 1.5, sideSlopeHV: 1.5, bankTopM: 0.6, bankSlopeHV: 2 },
  joins: { store: 'pond', end: 'start' },
  fuse: { fromM: 30, toM: 38, crestM: 106.35 },
};

export const BACKUP_SILL: LevelSill = {
  id: 'bs',
  kind: 'level-sill',
  name: 'Far sill',
  status: 'planned',
  host: 'backup',
  atM: 55,
  levels: { sillM: 105.9 },
  dimensions: { lengthM: 8, crestWidthM: 1.2 },
};

/** A road across the valley above the pond, on a pipe. */
export const ROAD: Crossing = {
  id: 'road',
  kind: 'crossing',
  name: 'Road',
  status: 'planned',
  form: 'culvert',
  line: [
    [88, 141],
    [114, 141],
  ],
  inlet: 'concrete-square-headwall',
  levels: { roadM: 108.6, inletM: 107.15, outletM: 106.95, dipM: 108.3 },
  dimensions: { roadWidthM: 4, sideSlopeHV: 2, barrels: 1, diameterM: 0.6, overhangM: 0.5, dipLengthM: 0 },
  roughness: 0.013,
  blockedPercent: 0,
};

/** Along the western side, falling half a percent towards the north end of the pond's catchment. */
export const DRAIN: Diversion = {
  id: 'drain',
  kind: 'diversion',
  name: 'Drain',
  status: 'planned',
  lining: 'grass',
  line: [120, 110, 100, 90].map((y): Point => [101 - (12 - 0.05 * y - (120 - y) * 0.005) / 0.2, y]),
  levels: { startM: 111.6, endM: 111.45 },
  dimensions: { floorWidthM: 1, sideSlopeHV: 3, depthM: 0.5, stoneM: 0.1 },
};

export const PUMP: PumpBack = {
  id: 'pump',
  kind: 'pump-back',
  name: 'Pump',
  status: 'planned',
  host: 'pond',
  to: 'road',
  drive: 'mains',
  levels: { stopM: 104.8, deliveryM: 108.8 },
  flowM3s: 0.002,
  pipe: { lengthM: 80, diameterM: 0.05, wall: 'plastic' },
  efficiency: 0.45,
  sunHours: 5,
  panelShare: 0.75,
};

/** A work of every kind, all in one valley. */
/** Two dams of logs in the bed of the valley, above all else. */
export const DAMS: CheckDams = {
  id: 'dams',
  kind: 'check-dams',
  name: 'Dams',
  status: 'planned',
  line: [
    [101, 196],
    [101, 166],
  ],
  form: 'log',
  dams: [
    { atM: 18, heightM: 0.6, bedWidthM: 1.2, bankWidthM: 13.2, depthM: 1.2, isMeasured: true },
    { atM: 30, heightM: 0.6, bedWidthM: 1.2, bankWidthM: 13.2, depthM: 1.2, isMeasured: true },
  ],
  dimensions: {
    notchDepthM: 0.3,
    notchWidthM: 1.2,
    crestWidthM: 0.3,
    upSlopeHV: 0,
    downSlopeHV: 0,
    pieceM: 0.25,
    sideKeyM: 0.6,
    bedKeyM: 0.3,
    apronM: 1,
  },
  labour: { m3PerDay: 1.5, carryM: 40 },
};

/** The same as four in a row, farther down. */
export const FOUR_DAMS: CheckDams = {
  ...DAMS,
  line: [DAMS.line[0], [101, 136]],
  dams: [12, 24, 36, 48].map((atM) => ({ ...DAMS.dams[0], atM })),
};

/** A weir of baskets across the valley below all else: its bed 101.2, its notch a metre higher. */
export const WEIR: Weir = {
  id: 'weir',
  kind: 'weir',
  name: 'Weir',
  status: 'planned',
  line: [
    [90, 24],
    [112, 24],
  ],
  form: 'gabion',
  ground: 'gravel',
  base: 'drained',
  face: 'sealed',
  steps: 'below',
  found: 'sound',
  levels: { notchM: 102.3, crestM: 102.7 },
  notchAtM: 11,
  dimensions: {
    notchWidthM: 1.5,
    bedWidthM: 1.5,
    topWidthM: 1,
    baseWidthM: 2.5,
    courseM: 0.5,
    foundationM: 0.6,
    keyM: 1,
    apronM: 6,
    apronDropM: 0.3,
    cutoffM: 0.6,
    pieceM: 0.15,
    rampUpHV: 3,
    rampDownHV: 0,
  },
  labour: { m3PerDay: 1, carryM: 40 },
};

/** A step in the valley's side taken for the head of a gully, a chute of stone laid into it. */
export const HEAD: Headcut = {
  id: 'head',
  kind: 'headcut',
  name: 'Head',
  status: 'planned',
  line: [
    [140, 150],
    [140, 156],
  ],
  form: 'rock',
  above: 'resting',
  soil: 'firm',
  plug: 'bale',
  levels: { lipM: 115.3, footM: 113.8 },
  dimensions: { chuteWidthM: 3, sideM: 0.4, slopeHV: 4, stoneM: 0.25, apronM: 4, plugM: 0.4, plugKgM3: 120, heldKgM: 0 },
  readings: [
    { toLipM: 10, rainMm: 0 },
    { toLipM: 9.4, rainMm: 180 },
  ],
  threatM: 30,
  yearRainMm: 500,
  labour: { m3PerDay: 2, carryM: 40 },
};

/** Two lines of stone along the contours 116 and 115 of the western side. */
export const LINES: StoneLines = {
  id: 'lines',
  kind: 'stone-lines',
  name: 'Lines',
  status: 'planned',
  lines: [16, 15].map((over) => [20, 40, 60].map((y): Point => [101 - (over - 0.05 * y) / 0.2, y])),
  grass: 'behind',
  dimensions: {
    heightM: 0.25,
    baseWidthM: 0.4,
    topWidthM: 0.2,
    trenchM: 0.08,
    pieceM: 0.15,
    endsUpM: 0.3,
    plantSpacingM: 0.15,
    grassRows: 1,
    litresAPlant: 5,
  },
  labour: { m3PerDay: 1.5, carryM: 40, plantsPerDay: 400 },
};

/** Two rows of half-moons along the contours 116 and 115 of the eastern side. */
export const MOONS: HalfMoons = {
  id: 'moons',
  kind: 'half-moons',
  name: 'Moons',
  status: 'planned',
  form: 'half-moon',
  rows: [16, 15].map((over) => [30, 60, 90].map((y): Point => [101 + (over - 0.05 * y) / 0.2, y])),
  crust: 'broken',
  tips: 'stone',
  dimensions: { radiusM: 1.5, gapM: 1, dugM: 0.2, overTipsM: 0.15, bundTopM: 0.15, bundSlopeHV: 1 },
  crop: { needMm: 475, rainMm: 250, runoffShare: 0.25, usedShare: 0.5 },
  inputs: { manureKg: 15, fertiliserG: 50, restYears: 2 },
  labour: { m3PerDay: 1.5 },
};

/** Two basins high on the western side, the lower one letting go down the slope. */
export const GARDEN: RainGarden = {
  id: 'garden',
  kind: 'rain-garden',
  name: 'Garden',
  status: 'planned',
  line: [
    [60, 160],
    [67, 160],
    [75, 160],
  ],
  basins: [
    { areaM2: 6, overflowM: 116.1 },
    { areaM2: 6, overflowM: 114.7 },
  ],
  turf: 'smothered',
  plants: 'zoned',
  lastOver: 'ground',
  dimensions: { pondM: 0.15, bermM: 0.15, sideHV: 3, mediaM: 0.3, voids: 0.25, mulchM: 0.06, rockWidthM: 0.8, stoneM: 0.1 },
  labour: { m3PerDay: 2 },
};

export { BENCHES, RIPS, SET, SOAK };

export const EVERY_KIND: readonly WorkBase[] = [
  POND,
  POND_SILL,
  CUT,
  PIPE,
  TRENCH,
  BACKUP,
  BACKUP_SILL,
  ROAD,
  DRAIN,
  PUMP,
  DAMS,
  WEIR,
  HEAD,
  LINES,
  MOONS,
  GARDEN,
  SOAK,
  BENCHES,
  RIPS,
  SET,
  ROOF,
  TANK,
  TO_TAP,
  YARD_DRAIN,
  WET_SLOPE,
  CREEK,
  PATCH,
  PIT,
];

export function valleyProject(works: readonly WorkBase[] = [POND, POND_SILL, CUT], change: Partial<Project> = {}): Project {
  return planeProject(
    { terrain: { kind: 'grid', ncols: 101, nrows: 101, west: 0, south: 0, cellM: 2, rows: 'north-first', z: valleyLevels() }, ...change },
    works,
  );
}
