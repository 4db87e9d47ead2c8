// Stone lines to begin with, and how they are drawn: without what works them out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { StoneLines } from './model.ts';

export const newLines = (id: string, name: string, lines: readonly Line[]): StoneLines => ({
  id,
  kind: 'stone-lines',
  name,
  status: 'planned',
  lines,
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
  labour: { m3PerDay: 1.5, carryM: 50, plantsPerDay: 400 },
});

export const LINES_SAMPLE = newLines('lines', 'Stone lines', [
  [
    [0, 0],
    [40, 0],
  ],
]);

export const LINES_DRAWS: readonly DrawSpec[] = [
  {
    id: 'stone-lines',
    name: 'Stone lines over a field',
    what: 'ring',
    least: 3,
    hint: 'Click round the field, double-click to close: lines are laid along its contours, as far apart as its slope asks.',
  },
  {
    id: 'stone-line',
    name: 'One stone line on the contour',
    what: 'line',
    least: 2,
    hint: 'Click along the slope, double-click to end. It settles on the contour through the first point.',
  },
  {
    id: 'stone-row',
    name: 'One stone line as drawn',
    what: 'line',
    least: 2,
    hint: 'Click along a fence or a row of trees that lies nearly on the contour; double-click to end.',
  },
];
