// A set of swales to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { SwaleSet } from './model.ts';

export const newSet = (id: string, name: string, on: { readonly lines: readonly Line[]; readonly by: SwaleSet['by'] }): SwaleSet => ({
  id,
  kind: 'swale-set',
  name,
  status: 'planned',
  lines: on.lines,
  by: on.by,
  spills: 'in-turn',
  fill: 'none',
  held: 'loose',
  bank: 'seeded',
  grazed: 'no',
  fence: 'none',
  dimensions: {
    depthM: 0.3,
    bankM: 0.3,
    spillM: 0,
    spillLengthM: 4,
    floorWidthM: 0.6,
    sideSlopeHV: 1.5,
    bankTopM: 0.4,
    bankSlopeHV: 2,
    fillM: 0.3,
    fillVoids: 0.5,
  },
  planting: { treesApartM: 4, bushesApartM: 1.5, nursePercent: 60, nurseYears: 7, treeHeightM: 8 },
  labour: { m3PerDay: 3, plantsPerDay: 100 },
});

export const SET_SAMPLE = newSet('set', 'Swales', { lines: [[[0, 0], [40, 0]]], by: 'interval' }); // prettier-ignore

const ROUND = { what: 'ring', least: 3 } as const;
export const SET_DRAWS: readonly DrawSpec[] = [
  {
    id: 'swales-interval',
    name: 'Swales over a field, by the fall between them',
    ...ROUND,
    hint: 'Click round the field, double-click to close: steeper ground has them closer, by the rule for terraces.',
  },
  {
    id: 'swales-even',
    name: 'Swales over a field, even ground above each',
    ...ROUND,
    hint: 'Click round the field, double-click to close: each has as much ground above it as the next.',
  },
  {
    id: 'swales-storage',
    name: 'Swales over a field, by what runs off',
    ...ROUND,
    hint: 'Click round the field, double-click to close: each holds what runs off the ground above it in the longest storm.',
  },
];
