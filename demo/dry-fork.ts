// Generates the second demo: a dry, gullied hillside with check dams in every state. Run with `npm run demo:data`.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Command, execute, startHistory } from '#core/commands';
import { writeProjectFile } from '#core/formats';
import { type Project, assetName, emptyProject, gridToBytes } from '#core/project';
import type { Line, Point } from '#core/geometry';
import { gridFromLevels } from '#core/terrain';
import { type CheckDams, type Dam, registry } from '#core/works';
import { LONG_M, WIDE_M, bedOf, dryForkLevel } from './dry-fork-ground.ts';

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

/** The series a drawing down a bed begins with. */
function drawn(
  bed: readonly (readonly [number, number])[],
  as: { readonly id: string; readonly name: string; readonly how: string },
): CheckDams {
  const land = { grid, stores: [], nameFor: () => as.name, idFor: () => as.id };
  const begun = registry.begin('check-dams', { how: as.how, points: bed.map(here), host: null }, land);
  if (!begun.ok) throw new Error(`the demo series ${as.id} cannot begin: ${JSON.stringify(begun.problem)}`);
  return begun.works[0] as CheckDams;
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
const works: readonly CheckDams[] = [
  { ...upper, status: 'existing', dams: found(upper.dams), labour: { ...upper.labour, carryM: 35, fillsAYear: 5, siltM3AYear: 9 } },
  { ...fork, form: 'brush', labour: { m3PerDay: 2, carryM: 80 } },
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
  { type: 'works.add', payload: { works } },
];

const { project } = commands.reduce((h, c) => execute(h, c, { registry }), startHistory(emptyProject('dry-fork', 'Dry Fork')));
writeFileSync(join(import.meta.dirname, 'dry-fork.outlet'), writeProjectFile(project satisfies Project, new Map([[sha256, bytes]])));
console.log(JSON.stringify({ cells: grid.z.length, upper: upper.dams.length, fork: fork.dams.length }));
