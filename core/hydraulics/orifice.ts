import { defineFormula } from '../formula/index.ts';

/** Gravity [m/s2], as the handbook takes it. */
export const GRAVITY = 9.81;
/** Discharge coefficient of a sharp hole in a wall: common value between 0.60 and 0.62. */
export const ORIFICE_C = 0.6;
/** Crest of a standing pipe: between the frictionless broad crest and a thin one (handbook 4.3). */
export const RISER_C = 1.7;

export const ORIFICE = defineFormula(
  {
    id: 'hydraulics.orifice',
    title: 'Flow through a drowned hole',
    statement: 'Q = Cd · A · (2·g·h)^0.5',
    symbols: {
      Cd: { means: 'discharge coefficient', unit: '', domain: 'positive', range: [0.5, 1] },
      A: { means: 'area of the hole', unit: 'm²', domain: 'positive' },
      h: { means: 'water above its centre', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'Torricelli; 0.60 to 0.62 sharp, 0.82 short tube', fromMemory: true },
    limits: 'Water at least one and a half diameters above the centre; less runs as over a crest.',
  },
  ({ Cd, A, h }) => Cd * A * Math.sqrt(2 * GRAVITY * h),
);

export const ORIFICE_EMPTYING = defineFormula(
  {
    id: 'hydraulics.orifice-emptying',
    title: 'Time to empty through a hole, upright sides',
    statement: 't = 2·As·(h1^0.5 − h2^0.5) / (Cd · A · (2·g)^0.5)',
    symbols: {
      As: { means: 'water surface', unit: 'm²', domain: 'positive' },
      h1: { means: 'water above the hole at first', unit: 'm', domain: 'nonNegative' },
      h2: { means: 'water above the hole at last', unit: 'm', domain: 'nonNegative' },
      Cd: { means: 'discharge coefficient', unit: '', domain: 'positive', range: [0.5, 1] },
      A: { means: 'area of the hole', unit: 'm²', domain: 'positive' },
    },
    result: { symbol: 't', means: 'time', unit: 's' },
    source: { key: 'geometry', locator: 'integral of As·dh/Q' },
  },
  ({ As, h1, h2, Cd, A }) => (2 * As * (Math.sqrt(h1) - Math.sqrt(h2))) / (Cd * A * Math.sqrt(2 * GRAVITY)),
);
