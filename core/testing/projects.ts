// A small sound project on a plane that falls 10 % to the south, and ways to vary it.
import type { WorkBase } from '../contract/index.ts';
import type { Grid } from '../terrain/index.ts';
import { type DeriveResult, derive } from '../derive/index.ts';
import { type Project, emptyProject } from '../project/index.ts';
import type { LevelSill, Swale } from '../works/index.ts';
import { registry } from '../works/index.ts';

export const LIP_M = 110.1;

export const SWALE: Swale = {
  id: 'w1',
  kind: 'swale',
  name: 'Upper',
  status: 'planned',
  purpose: 'soak',
  line: [
    [32, 101],
    [172, 101],
  ],
  levels: { floorM: LIP_M - 0.35, bankCrestM: LIP_M + 0.35 },
  dimensions: { floorWidthM: 0.9, sideSlopeHV: 1.5, bankTopM: 0.5, bankSlopeHV: 2 },
};

export const SILL: LevelSill = {
  id: 's1',
  kind: 'level-sill',
  name: 'East',
  status: 'planned',
  host: 'w1',
  atM: 120,
  levels: { sillM: LIP_M },
  dimensions: { lengthM: 6, crestWidthM: 1 },
};

export function planeLevels(slope = 0.1): number[] {
  return Array.from({ length: 101 * 101 }, (_, i) => 100 + slope * (101 - Math.floor(i / 101) - 0.5) * 2);
}

export function planeProject(change: Partial<Project> = {}, works: readonly WorkBase[] = [SWALE, SILL]): Project {
  return {
    ...emptyProject('p', 'Plane'),
    site: {
      crs: null,
      outline: [
        [10, 10],
        [192, 10],
        [192, 192],
        [10, 192],
      ],
      zeroLevelM: 0,
    },
    terrain: { kind: 'grid', ncols: 101, nrows: 101, west: 0, south: 0, cellM: 2, rows: 'north-first', z: planeLevels() },
    rain: {
      table: {
        durationsMin: [10, 60, 120],
        returnYears: [2, 20],
        depthMm: [
          [8, 18, 24],
          [16, 40, 58],
        ],
      },
      storm: { returnYears: 20, durationMin: 120 },
    },
    ground: { soilGroup: 'B', cover: 'pasture-fair', curveNumber: null, runoffC: null, infiltrationMmPerHour: 20, soilDepthM: 3 },
    options: [{ id: 'o1', name: 'A', works }],
    ...change,
  };
}

/** Ground with something in every member it may have, and ways of runoff with it. */
export const FULL_GROUND: Pick<Project, 'ground' | 'runoff'> = {
  ground: {
    soilGroup: 'C',
    cover: 'pasture-poor',
    curveNumber: 82,
    runoffC: 0.4,
    infiltrationMmPerHour: 9,
    soilDepthM: 1.4,
    waterDepthM: 0.9,
    texture: {
      id: 'loam',
      by: 'shares',
      shares: { sand: 40, silt: 40, clay: 20 },
      feel: { ribbon: 'short', grit: 'neither' },
      jar: { sandMm: 40, siltMm: 40, clayMm: 20 },
    },
    seen: { barePercent: 40, grassMm: 120, thatchMm: 15, crackWidthMm: 8, crackDepthMm: 200, crackSpacingMm: 300 },
    compaction: 'some',
    healing: { treatment: 'rip-and-rest', cover: 'pasture-good', factor: 3 },
    infiltrationRange: [5, 15],
    curveNumberRange: [78, 88],
    rateFrom: 't1',
    as: 'healed',
    healedYears: 6,
    erosion: { annualMm: 700, erosivity: 2200, onContour: true },
    zones: [
      {
        id: 'z1',
        name: 'Bare',
        ring: [
          [20, 120],
          [120, 120],
          [120, 180],
          [20, 180],
        ],
        soilGroup: 'D',
        cover: 'bare',
        curveNumber: null,
        runoffC: null,
        infiltrationMmPerHour: 3,
        soilDepthM: 0.7,
      },
    ],
    tests: [
      {
        id: 't1',
        kind: 'single-ring',
        name: 'Ring',
        zone: 'z1',
        at: [60, 150],
        sizes: { radiusM: 0.15, drivenM: 0.05, suction: 0.12 },
        safety: 2,
        readings: [
          { min: 0, mm: 100 },
          { min: 10, mm: 90, refilledMm: 100 },
          { min: 20, mm: 92 },
        ],
      },
    ],
  },
  runoff: {
    loss: 'green-ampt',
    wetness: 'wet',
    abstraction: '0.05',
    hortonTimes: 5,
    hortonDecay: 3,
    time: 'path',
    peak: 'rational',
    of: { w1: { time: 'lag', peak: 'hydrograph' } },
  },
};

export const noGrid = (): Grid => {
  throw new Error('the test project has inline terrain');
};

export function derived(project: Project): DeriveResult {
  return derive(project, { registry, grids: noGrid });
}
