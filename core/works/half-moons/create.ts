// Half-moons and pits to begin with, and how they are drawn: without what works them out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { HalfMoons } from './model.ts';

type First = Pick<HalfMoons, 'form' | 'dimensions' | 'inputs'>;
const MOON: First = {
  form: 'half-moon',
  dimensions: { radiusM: 2, gapM: 1, dugM: 0.2, overTipsM: 0.15, bundTopM: 0.15, bundSlopeHV: 1 },
  inputs: { manureKg: 30, fertiliserG: 0, restYears: 2 },
};
const PIT: First = {
  form: 'pit',
  dimensions: { radiusM: 0.15, gapM: 0.7, dugM: 0.18, overTipsM: 0, bundTopM: 0.1, bundSlopeHV: 1 },
  inputs: { manureKg: 0.5, fertiliserG: 0, restYears: 1 },
};
export const FIRST: Readonly<Record<string, First>> = { 'half-moons': MOON, pits: PIT };

export const newMoons = (id: string, name: string, on: First & { readonly rows: readonly Line[] }): HalfMoons => ({
  id,
  kind: 'half-moons',
  name,
  status: 'planned',
  form: on.form,
  rows: on.rows,
  crust: 'broken',
  tips: 'stone',
  dimensions: on.dimensions,
  crop: { usedShare: 0.5 },
  inputs: on.inputs,
  labour: { m3PerDay: 1.5 },
});

export const MOONS_SAMPLE = newMoons('moons', 'Half-moons', {
  ...MOON,
  rows: [
    [
      [0, 0],
      [40, 0],
    ],
  ],
});

export const MOONS_DRAWS: readonly DrawSpec[] = [
  {
    id: 'half-moons',
    name: 'Half-moons over a field',
    what: 'ring',
    least: 3,
    hint: 'Click round the field, double-click to close: rows are laid on its contours, each standing below the gaps of the one above.',
  },
  {
    id: 'pits',
    name: 'Planting pits over a field',
    what: 'ring',
    least: 3,
    hint: 'Click round the field, double-click to close: rows of pits are laid on its contours.',
  },
];
