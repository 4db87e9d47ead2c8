import { defineFormula } from '../formula/index.ts';

/** Manning roughness of bare, cultivated soil under a thin sheet [s/m^(1/3)] (TR-55 Table 3-1: fallow 0.05). */
export const BARE_SHEET_N = 0.05;

const FT2 = 0.3048 ** 2;

export const GRASS_ROUGHNESS = defineFormula(
  {
    id: 'hydraulics.grass-roughness',
    title: 'Roughness of grass under flow',
    statement: 'n = exp(CI · (0.0133·x² − 0.0954·x + 0.297) − 4.16);  x = ln(10.764·VR)',
    symbols: {
      CI: { means: 'retardance curve index', unit: '', domain: 'positive', range: [2.88, 10] },
      VR: { means: 'velocity times hydraulic radius', unit: 'm²/s', domain: 'positive' },
    },
    result: { symbol: 'n', means: 'Manning roughness', unit: 's/m^(1/3)' },
    source: { key: 'ah667', locator: 'Temple et al. 1987, eq. 1.4', fromMemory: true },
    limits: 'VR from 0.0025·CI^2.5 to 36 ft²/s; thinner sheets keep the roughness of the lower limit.',
  },
  ({ CI, VR }) => {
    const lowest = 0.0025 * CI ** 2.5;
    const x = Math.log(Math.min(36, Math.max(lowest, VR / FT2)));
    return Math.exp(CI * (0.0133 * x * x - 0.0954 * x + 0.297) - 4.16);
  },
);

export const SHEET_VELOCITY = defineFormula(
  {
    id: 'hydraulics.sheet-velocity',
    title: 'Velocity of a sheet of water down a slope',
    statement: 'V = (q^(2/3) · S^(1/2) / n)^(3/5)',
    symbols: {
      q: { means: 'flow per metre of width', unit: 'm²/s', domain: 'nonNegative' },
      S: { means: 'ground slope', unit: 'm/m', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive' },
    },
    result: { symbol: 'V', means: 'mean velocity', unit: 'm/s' },
    source: { key: 'chow1959', locator: 'eq. 5-6 with R = depth, wide sheet', fromMemory: true },
    limits: 'The sheet stays as wide as the sill: true only while the ground below neither gathers it nor has tracks.',
  },
  ({ q, S, n }) => (Math.cbrt(q) ** 2 * (Math.sqrt(S) / n)) ** 0.6,
);

/** For a wide sheet velocity times radius is the flow per metre, so the roughness needs no iteration. */
export function sheetRoughness(curveIndex: number | null, flowPerMetre: number): number {
  if (curveIndex === null) return BARE_SHEET_N;
  return GRASS_ROUGHNESS.evaluate({ CI: curveIndex, VR: Math.max(flowPerMetre, 1e-6) });
}

/** Greatest flow per metre [m2/s] at which a sheet on a slope keeps within a velocity; found by halving (velocity rises with q). */
export function flowPerMetreWithin(velocity: number, slope: number, curveIndex: number | null): number {
  let lo = 1e-6;
  let hi = 1;
  for (let k = 0; k < 50; k++) {
    const q = Math.sqrt(lo * hi);
    const v = SHEET_VELOCITY.evaluate({ q, S: slope, n: sheetRoughness(curveIndex, q) });
    if (v <= velocity) lo = q;
    else hi = q;
  }
  return lo;
}
