import { defineFormula } from '../formula/index.ts';

/** NRCS standard dimensionless unit hydrograph, peak rate factor 484 (NEH-630 ch. 16, Table 16-1; from memory). */
const T_RATIO = [
  0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.2, 2.4, 2.6, 2.8, 3, 3.2, 3.4, 3.6,
  3.8, 4, 4.5, 5,
];
const Q_RATIO = [
  0, 0.03, 0.1, 0.19, 0.31, 0.47, 0.66, 0.82, 0.93, 0.99, 1, 0.99, 0.93, 0.86, 0.78, 0.68, 0.56, 0.46, 0.39, 0.33, 0.28, 0.207, 0.147,
  0.107, 0.077, 0.055, 0.04, 0.029, 0.021, 0.015, 0.011, 0.005, 0,
];

/** Flow ratio q/qp of the dimensionless unit hydrograph at t/Tp, straight between its published points. */
export function dimensionlessFlow(ratio: number): number {
  if (ratio <= 0 || ratio >= 5) return 0;
  let k = 1;
  while (T_RATIO[k] < ratio) k++;
  const share = (ratio - T_RATIO[k - 1]) / (T_RATIO[k] - T_RATIO[k - 1]);
  return Q_RATIO[k - 1] + share * (Q_RATIO[k] - Q_RATIO[k - 1]);
}

export const UNIT_TIME_TO_PEAK = defineFormula(
  {
    id: 'runoff.unit-time-to-peak',
    title: 'Time to peak of the unit hydrograph',
    statement: 'Tp = D/2 + 0.6·tc',
    symbols: {
      D: { means: 'unit duration', unit: 'h', domain: 'positive' },
      tc: { means: 'time of concentration', unit: 'h', domain: 'positive' },
    },
    result: { symbol: 'Tp', means: 'time to peak', unit: 'h' },
    source: { key: 'neh630-16', locator: 'eq. 16-9', fromMemory: true },
  },
  ({ D, tc }) => D / 2 + 0.6 * tc,
);

export const UNIT_PEAK = defineFormula(
  {
    id: 'runoff.unit-peak',
    title: 'Peak of the unit hydrograph',
    statement: 'qp = 0.208 · A · Q / Tp',
    symbols: {
      A: { means: 'catchment area', unit: 'km²', domain: 'nonNegative' },
      Q: { means: 'runoff depth', unit: 'mm', domain: 'nonNegative' },
      Tp: { means: 'time to peak', unit: 'h', domain: 'positive' },
    },
    result: { symbol: 'qp', means: 'peak flow', unit: 'm³/s' },
    source: { key: 'neh630-16', locator: 'eq. 16-6 in SI', fromMemory: true },
    limits: 'Peak rate factor 484; flat or very steep land differs (100 to 600).',
  },
  ({ A, Q, Tp }) => (0.208 * A * Q) / Tp,
);

export interface HydrographInput {
  readonly areaM2: number;
  readonly concentrationMin: number;
  /** Runoff in each step [mm]. */
  readonly runoffMm: Float64Array;
  readonly stepS: number;
}

/**
 * Share of a step's runoff that has left by each later step: the dimensionless unit hydrograph, its ordinates scaled so that
 * they add up to one. The step should be at most 0.133 tc (NEH-630 ch. 16).
 */
export function unitShares(concentrationMin: number, stepS: number): Float64Array {
  const peakS = stepS / 2 + 0.6 * concentrationMin * 60;
  const span = Math.max(1, Math.ceil((5 * peakS) / stepS));
  const unit = new Float64Array(span);
  let sum = 0;
  for (let k = 0; k < span; k++) {
    unit[k] = dimensionlessFlow(((k + 1) * stepS) / peakS);
    sum += unit[k];
  }
  if (sum === 0) {
    unit[0] = 1; // a catchment quicker than the step: it leaves as it falls
    sum = 1;
  }
  for (let k = 0; k < span; k++) unit[k] /= sum;
  return unit;
}

/** Each value spread over the later ones by the shares of a unit: the sum of all. */
export function convolve(values: Float64Array, unit: Float64Array): Float64Array {
  const out = new Float64Array(values.length + unit.length - 1);
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    if (v === 0) continue;
    for (let k = 0; k < unit.length; k++) out[i + k] += v * unit[k];
  }
  return out;
}

/** Flow at the end of each step [m3/s]: runoff through the unit hydrograph. Its discrete volume is exactly area x runoff. */
export function hydrograph({ areaM2, concentrationMin, runoffMm, stepS }: HydrographInput): Float64Array {
  const toFlow = areaM2 / 1000 / stepS;
  const flow = convolve(runoffMm, unitShares(concentrationMin, stepS));
  for (let i = 0; i < flow.length; i++) flow[i] *= toFlow;
  return flow;
}
