// A rain garden to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { GardenBasin, RainGarden } from './model.ts';

export const FIRST_AREA_M2 = 8;

export const newGarden = (id: string, name: string, on: { readonly line: Line; readonly basins: readonly GardenBasin[] }): RainGarden => ({
  id,
  kind: 'rain-garden',
  name,
  status: 'planned',
  line: on.line,
  basins: on.basins,
  turf: 'smothered',
  plants: 'zoned',
  lastOver: 'ground',
  dimensions: { pondM: 0.15, bermM: 0.15, sideHV: 3, mediaM: 0.3, voids: 0.25, mulchM: 0.06, rockWidthM: 0.8, stoneM: 0.1 },
  labour: { m3PerDay: 2 },
});

export const GARDEN_SAMPLE = newGarden('garden', 'Rain garden', {
  line: [
    [0, 0],
    [6, 0],
    [12, 0],
  ],
  basins: [
    { areaM2: FIRST_AREA_M2, overflowM: 100 },
    { areaM2: FIRST_AREA_M2, overflowM: 99.9 },
  ],
});

export const GARDEN_DRAWS: readonly DrawSpec[] = [
  {
    id: 'rain-garden',
    name: 'Rain gardens in a chain',
    what: 'line',
    least: 2,
    hint: 'Click the middle of each basin from the highest down, then where the last is to let go; double-click to end.',
  },
];
