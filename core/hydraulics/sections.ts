// Round and parabolic sections by formula.
import { defineFormula } from '../formula/index.ts';
import { circle, criticalDepth } from './channel.ts';

export const CRITICAL_DEPTH_ROUND = defineFormula(
  {
    id: 'hydraulics.critical-depth-round',
    title: 'Critical depth in a round pipe',
    statement: 'Q² · T / (g · A³) = 1, solved for the depth y of a circle',
    symbols: { Q: { means: 'flow', unit: 'm³/s', domain: 'nonNegative' }, D: { means: 'inner diameter', unit: 'm', domain: 'positive' } },
    result: { symbol: 'y', means: 'depth, at most the diameter', unit: 'm' },
    source: { key: 'chow1959', locator: 'section 4-3 for a round section', fromMemory: true },
  },
  ({ Q, D }) => Math.min(D, criticalDepth(circle(D), Q)),
);

const parabola = {
  T: { means: 'width at the water', unit: 'm', domain: 'positive' },
  d: { means: 'depth in the middle', unit: 'm', domain: 'positive' },
} as const;
const source = { key: 'chow1959', locator: 'Table 2-1, parabola', fromMemory: true } as const;

export const PARABOLA_AREA = defineFormula(
  {
    id: 'hydraulics.parabola-area',
    title: 'Area of a parabolic waterway',
    statement: 'A = 2·T·d/3',
    symbols: parabola,
    result: { symbol: 'A', means: 'area of the flow', unit: 'm²' },
    source,
  },
  ({ T, d }) => (2 * T * d) / 3,
);

export const PARABOLA_PERIMETER = defineFormula(
  {
    id: 'hydraulics.parabola-perimeter',
    title: 'Wetted perimeter of a parabolic waterway',
    statement: 'P = (T/2) · ((1 + x²)^0.5 + ln(x + (1 + x²)^0.5)/x),  x = 4·d/T',
    symbols: parabola,
    result: { symbol: 'P', means: 'wetted perimeter', unit: 'm' },
    source,
    limits: 'Exact; T + 8·d²/(3·T) is near where it is four times as wide as deep.',
  },
  ({ T, d }) => perimeter(T, d),
);

function perimeter(T: number, d: number): number {
  const x = (4 * d) / T;
  return (T / 2) * (Math.hypot(1, x) + Math.asinh(x) / x);
}

export const PARABOLA_RADIUS = defineFormula(
  {
    id: 'hydraulics.parabola-radius',
    title: 'Hydraulic radius of a parabolic waterway',
    statement: 'R = A/P',
    symbols: parabola,
    result: { symbol: 'R', means: 'hydraulic radius', unit: 'm' },
    source,
  },
  ({ T, d }) => (2 * T * d) / 3 / perimeter(T, d),
);
