import { defineFormula } from '../formula/index.ts';
import type { StepLaw } from './step-law.ts';

/** Initial abstraction as a share of potential retention: the classic 0.2 that the tables of curve numbers go with. */
export const INITIAL_ABSTRACTION = 0.2; // TR-55 eq. 2-2

export const CURVE_NUMBER_RUNOFF = defineFormula(
  {
    id: 'runoff.curve-number',
    title: 'Curve-number runoff',
    statement: 'Q = (P − 0.2·S)² / (P + 0.8·S) when P > 0.2·S, else 0;  S = 25400/CN − 254',
    symbols: {
      P: { means: 'rain depth', unit: 'mm', domain: 'nonNegative' },
      CN: { means: 'curve number', unit: '', domain: 'positive', range: [30, 98] },
    },
    result: { symbol: 'Q', means: 'runoff depth', unit: 'mm' },
    source: { key: 'tr55', locator: 'eqs 2-1 to 2-4', fromMemory: true },
    limits: 'Poor for runoff under about 13 mm and for forests; no snow.',
  },
  ({ P, CN }) => runoffDepth(P, CN),
);

/** Potential retention of a curve number [mm]. */
export const retentionOf = (curveNumber: number): number => 25400 / Math.min(100, curveNumber) - 254;

/** Runoff depth [mm] of rain [mm] on a curve number: the bare law, for loops. */
export function runoffDepth(rainMm: number, curveNumber: number, abstraction = INITIAL_ABSTRACTION): number {
  const retention = retentionOf(curveNumber);
  const excess = rainMm - abstraction * retention;
  return excess > 0 ? (excess * excess) / (excess + retention) : 0;
}

/** The curve-number law on the rain so far, differenced step after step. */
export function curveNumberLaw(curveNumber: number, abstraction = INITIAL_ABSTRACTION): StepLaw {
  const retention = retentionOf(curveNumber);
  const first = abstraction * retention;
  let rain = 0;
  let before = 0;
  return (step) => {
    rain += step;
    const excess = rain - first;
    if (excess <= 0) return 0;
    const now = (excess * excess) / (excess + retention);
    const runs = now - before;
    before = now;
    return runs;
  };
}

export const SMALL_ABSTRACTION = 0.05;

export const CURVE_NUMBER_RUNOFF_005 = defineFormula(
  {
    id: 'runoff.curve-number-depth-005',
    title: 'Curve-number runoff with a first loss of 0.05 S',
    statement: 'Q = (P − 0.05·S)² / (P + 0.95·S) when P > 0.05·S, else 0;  S = 25400/CN_05 − 254',
    symbols: {
      P: { means: 'rain depth', unit: 'mm', domain: 'nonNegative' },
      CN_05: { means: 'curve number converted for 0.05 S', unit: '', domain: 'positive', range: [10, 98] },
    },
    result: { symbol: 'Q', means: 'runoff depth', unit: 'mm' },
    source: { key: 'hawkins-2002', locator: 'runoff with an initial abstraction of 0.05 S', fromMemory: true },
  },
  ({ P, CN_05 }) => runoffDepth(P, CN_05, SMALL_ABSTRACTION),
);
