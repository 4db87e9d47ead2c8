// Terraces to begin with, and how they are drawn: without what works them out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { Terraces } from './model.ts';

export const FIRST_BENCH_M = 3;
export const FIRST_RISER_HV = 0.15;

export const newTerraces = (id: string, name: string, lines: readonly Line[]): Terraces => ({
  id,
  kind: 'terraces',
  name,
  status: 'planned',
  lines,
  riser: 'stone',
  lie: 'level',
  ground: 'unknown',
  earth: 'unknown',
  topsoil: 'kept',
  riserGrows: 'grass',
  grows: 'nothing',
  workedBy: 'hand',
  dimensions: {
    benchM: FIRST_BENCH_M,
    riserHV: FIRST_RISER_HV,
    fall: 0.03,
    lipM: 0.2,
    holdM: 0.05,
    inletM: 1,
    inlets: 1,
    stoneM: 0.15,
    baseM: 0.6,
    topM: 0.35,
    foundationM: 0.2,
    drainM: 0.3,
    topsoilM: 0.15,
  },
  labour: { earthM3PerDay: 3, wallM3PerDay: 1, carryM: 40 },
});

export const TERRACES_SAMPLE = newTerraces('terraces', 'Terraces', [[[0, 0], [30, 0]]]); // prettier-ignore

export const TERRACES_DRAWS: readonly DrawSpec[] = [
  {
    id: 'terraces',
    name: 'Terraces over a slope',
    what: 'ring',
    least: 3,
    hint: 'Click round the slope, double-click to close: benches are laid along its contours, as far apart as its slope asks.',
  },
  {
    id: 'terrace',
    name: 'One terrace on the contour',
    what: 'line',
    least: 2,
    hint: 'Click along the slope, double-click to end. Its middle settles on the contour through the first point.',
  },
];
