// Formulas of roofs: what falls on one in wind, and what an outlet in its gutter lets down.
import { defineFormula } from '../../formula/index.ts';

export const ROOF_IN_WIND = defineFormula(
  {
    id: 'roof.in-wind',
    title: 'Roof as driven rain meets it',
    statement: 'A = P + H·W / 2',
    symbols: {
      P: { means: 'roof, from above', unit: 'm²', domain: 'nonNegative' },
      H: { means: 'ridge over the eaves', unit: 'm', domain: 'nonNegative' },
      W: { means: 'length of the eaves', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'A', means: 'area that counts', unit: 'm²' },
    source: { key: 'en12056-3', locator: 'effective roof area with wind', fromMemory: true },
  },
  ({ P, H, W }) => P + (H * W) / 2,
);

export const ROOF_FLOW = defineFormula(
  {
    id: 'roof.flow',
    title: 'Flow a roof sends in a burst',
    statement: 'Q = i·A·k / 3600',
    symbols: {
      i: { means: 'rain of five minutes', unit: 'mm/h', domain: 'nonNegative' },
      A: { means: 'roof that counts', unit: 'm²', domain: 'nonNegative' },
      k: { means: 'how much surer it must be', unit: '', domain: 'positive', range: [1, 3] },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'L/s' },
    source: { key: 'en12056-3', locator: 'Q = r A C with its risk factor', fromMemory: true },
  },
  ({ i, A, k }) => (i * A * k) / 3600,
);

/** The bare law, for loops: by the outlet and the water over it [mm], in L/s. */
export const gutterOutlet = (D: number, h: number): number => (h <= D / 2 ? (D * h ** 1.5) / 7500 : (D * D * Math.sqrt(h)) / 15000);

export const GUTTER_OUTLET = defineFormula(
  {
    id: 'roof.gutter-outlet',
    title: 'Flow of an outlet in the sole of a gutter',
    statement: 'Q = D·h^1.5 / 7500 up to h = D/2, else Q = D²·h^0.5 / 15000',
    symbols: {
      D: { means: 'outlet, across', unit: 'mm', domain: 'positive' },
      h: { means: 'water over it', unit: 'mm', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'L/s' },
    source: { key: 'en12056-3', locator: 'Table 7: sharp-edged outlets as weirs and as openings', fromMemory: true },
    limits: 'Of an outlet without a strainer; one with a strainer lets down half.',
  },
  ({ D, h }) => gutterOutlet(D, h),
);

export const BOX_GUTTER = defineFormula(
  {
    id: 'roof.box-gutter',
    title: 'Flow of a short, level, square-cornered eaves gutter',
    statement: 'Q = 0.9 · 3.48e-5 · A^1.25 · Fd · Fs',
    symbols: {
      A: { means: 'area of its section', unit: 'mm²', domain: 'positive' },
      Fd: { means: 'factor of its depth', unit: '', domain: 'positive' },
      Fs: { means: 'factor of its shape', unit: '', domain: 'positive' },
    },
    result: { symbol: 'Q', means: 'design flow', unit: 'L/s' },
    source: { key: 'en12056-3', locator: 'eq. of rectangular eaves gutters', fromMemory: true },
    limits: 'No longer than fifty times its depth. As deep as wide, both factors are about 1.',
  },
  ({ A, Fd, Fs }) => 0.9 * 3.48e-5 * A ** 1.25 * Fd * Fs,
);
