// The storm designed for: how deep, how long, how it falls, and what is added to be careful.
import { defineFormula } from '../formula/index.ts';
import { type Storm, alternatingBlockStorm } from './storm.ts';
import { depthFor } from './depth.ts';
import type { RainTable } from './table.ts';

/** Rain in equal steps, as the user typed it or the gauge had it. */
export interface StormSteps {
  readonly stepMin: number;
  readonly stepsMm: readonly number[];
  /** What it is, in the user's words: "cloudburst of 12 August". */
  readonly name: string;
}

/** How wet it has been before a storm: nothing of an earlier one left, one a day before, one six hours before. */
export const ANTECEDENTS = ['dry', 'usual', 'wet'] as const;
export type Antecedent = (typeof ANTECEDENTS)[number];

/** How the rain falls in time. */
export type StormShape =
  | { readonly kind: 'blocks' }
  | { readonly kind: 'uniform' }
  | { readonly kind: 'pattern'; readonly pattern: PatternName }
  | ({ readonly kind: 'own' } & StormSteps)
  | ({ readonly kind: 'event' } & StormSteps);

export interface DesignStorm {
  /** A row of the table. An own storm or a real event keeps it for what is worked out from the table alone. */
  readonly returnYears: number;
  /** One storm of this length alone; left out, the worst of a set is looked for. */
  readonly durationMin?: number;
  /** The lengths of the set; left out, all that matter on this land by the table (`setDurations`). */
  readonly durationsMin?: readonly number[];
  /** Count soakage during the storm as well; off unless the user asks. */
  readonly soakage?: boolean;
  /** How stores are found that do not keep their water; usual unless said otherwise. */
  readonly before?: Antecedent;
  /** Blocks with the wettest in the middle unless said otherwise. */
  readonly shape?: StormShape;
  /** Added to every depth [per cent], for a climate that grows wetter or an uncertain table. */
  readonly upliftPercent?: number;
  /** The same storm once more, this long after the end of the first [h]. */
  readonly againAfterH?: number;
}

/** A storm whose length is settled. */
export type OneStorm = DesignStorm & { readonly durationMin: number };

export const PATTERNS = ['I', 'IA', 'II', 'III'] as const;
export type PatternName = (typeof PATTERNS)[number];
export const PATTERN_MIN = 1440;

/** Hours of the rows below. */
const HOURS = [0, 2, 4, 6, 7, 8, 8.5, 9, 9.5, 9.75, 10, 10.5, 11, 11.5, 11.75, 12, 12.5, 13, 13.5, 14, 16, 20, 24];

/** Share of a day's rain that has fallen by each of HOURS (TR-55 1986, appendix B; as in Chow, Maidment & Mays 1988, chapter 14). */
const CUMULATIVE: Readonly<Record<PatternName, readonly number[]>> = {
  I: [
    0, 0.035, 0.076, 0.125, 0.156, 0.194, 0.219, 0.254, 0.303, 0.362, 0.515, 0.583, 0.624, 0.654, 0.669, 0.682, 0.706, 0.728, 0.748, 0.766,
    0.83, 0.926, 1,
  ],
  IA: [
    0, 0.05, 0.116, 0.206, 0.268, 0.425, 0.48, 0.52, 0.55, 0.564, 0.577, 0.601, 0.624, 0.645, 0.655, 0.664, 0.683, 0.701, 0.719, 0.736, 0.8,
    0.906, 1,
  ],
  II: [
    0, 0.022, 0.048, 0.08, 0.098, 0.12, 0.133, 0.147, 0.163, 0.172, 0.181, 0.204, 0.235, 0.283, 0.357, 0.663, 0.735, 0.772, 0.799, 0.82,
    0.88, 0.952, 1,
  ],
  III: [
    0, 0.02, 0.043, 0.072, 0.089, 0.115, 0.13, 0.148, 0.167, 0.178, 0.189, 0.216, 0.25, 0.298, 0.339, 0.5, 0.702, 0.751, 0.785, 0.811,
    0.886, 0.957, 1,
  ],
};

/** Share of the day's rain that has fallen by an hour of the day, straight between the table's rows. */
export function patternShare(pattern: PatternName, hour: number): number {
  return between(HOURS, CUMULATIVE[pattern], hour);
}

/** Value at x, straight between rising places; the ends beyond them. */
function between(places: readonly number[], values: ArrayLike<number>, x: number): number {
  if (x <= places[0]) return values[0];
  const last = places.length - 1;
  if (x >= places[last]) return values[last];
  let k = 1;
  while (places[k] < x) k++;
  return values[k - 1] + ((x - places[k - 1]) / (places[k] - places[k - 1])) * (values[k] - values[k - 1]);
}

export const UPLIFT = defineFormula(
  {
    id: 'rain.uplift',
    title: 'Rain with an addition to be careful',
    statement: "P' = P · (1 + u/100)",
    symbols: {
      P: { means: 'rain of the table or the storm', unit: 'mm', domain: 'nonNegative' },
      u: { means: 'addition', unit: '%', domain: 'finite', range: [0, 100] },
    },
    result: { symbol: "P'", means: 'rain designed for', unit: 'mm' },
    source: { key: 'common-practice', locator: 'allowance for a changing climate; the rate is set locally' },
  },
  ({ P, u }) => P * (1 + u / 100),
);

/** What a design storm brings in all, told without its steps. */
export interface StormTotals {
  readonly depthMm: number;
  /** Of one storm, without the one that may follow. */
  readonly durationMin: number;
  readonly extrapolated: boolean;
  /** True when the depth is the storm's own and not the table's. */
  readonly isOwn: boolean;
  /** How often it falls. */
  readonly times: 1 | 2;
}

/** By what every depth is multiplied to be careful. */
export const upliftOf = ({ upliftPercent = 0 }: DesignStorm): number => UPLIFT.evaluate({ P: 1, u: upliftPercent });

/** The steps of a storm that brings its own. */
export const stepsOfStorm = (storm: DesignStorm): StormSteps | null =>
  storm.shape?.kind === 'own' || storm.shape?.kind === 'event' ? storm.shape : null;

/** Depth and duration of one storm with its uplift; a storm that follows is not counted. */
export function totalsOf(table: RainTable, storm: OneStorm): StormTotals {
  const factor = upliftOf(storm);
  const times = storm.againAfterH === undefined ? 1 : 2;
  const own = stepsOfStorm(storm);
  if (own) {
    const depthMm = factor * own.stepsMm.reduce((a, v) => a + v, 0);
    return { depthMm, durationMin: own.stepMin * own.stepsMm.length, extrapolated: false, isOwn: true, times };
  }
  const { depthMm, extrapolated } = depthFor(table, storm.returnYears, storm.durationMin);
  return { depthMm: factor * depthMm, durationMin: storm.durationMin, extrapolated, isOwn: false, times };
}

/** Steps of a storm by its cumulative share of depth, a function of the share of its duration. */
function byShare(totals: StormTotals, wantedStepMin: number, shareAt: (part: number) => number): Storm {
  const count = Math.max(1, Math.ceil(totals.durationMin / wantedStepMin - 1e-9));
  const stepsMm = Float64Array.from({ length: count }, (_, k) => totals.depthMm * (shareAt((k + 1) / count) - shareAt(k / count)));
  const { depthMm, durationMin, extrapolated } = totals;
  return { depthMm, durationMin, extrapolated, stepMin: durationMin / count, stepsMm };
}

function once(table: RainTable, storm: OneStorm, wantedStepMin: number): Storm {
  const totals = totalsOf(table, storm);
  const shape = storm.shape ?? { kind: 'blocks' };
  switch (shape.kind) {
    case 'uniform':
      return byShare(totals, wantedStepMin, (part) => part);
    case 'pattern':
      return byShare(totals, wantedStepMin, (part) => patternShare(shape.pattern, 24 * part));
    case 'own':
    case 'event': {
      const cumulative = [0];
      for (const mm of shape.stepsMm) cumulative.push(cumulative[cumulative.length - 1] + mm);
      const whole = cumulative[cumulative.length - 1];
      const places = cumulative.map((_, i) => i / shape.stepsMm.length);
      return byShare(totals, wantedStepMin, (part) => (whole > 0 ? between(places, cumulative, part) / whole : part));
    }
    default: {
      const plain = alternatingBlockStorm(table, storm, wantedStepMin);
      const factor = upliftOf(storm);
      return { ...plain, depthMm: factor * plain.depthMm, stepsMm: plain.stepsMm.map((v) => factor * v) };
    }
  }
}

/**
 * The design storm in steps of at most `wantedStepMin`, with its uplift and the storm that follows it. Depth is conserved:
 * the steps sum to the depth, twice over where it falls twice.
 */
export function designStorm(table: RainTable, storm: OneStorm, wantedStepMin: number): Storm {
  const first = once(table, storm, wantedStepMin);
  if (storm.againAfterH === undefined) return first;
  const gap = Math.round((storm.againAfterH * 60) / first.stepMin);
  const stepsMm = new Float64Array(2 * first.stepsMm.length + gap);
  stepsMm.set(first.stepsMm);
  stepsMm.set(first.stepsMm, first.stepsMm.length + gap);
  return { ...first, depthMm: 2 * first.depthMm, durationMin: stepsMm.length * first.stepMin, stepsMm };
}

/** Greatest depth of a storm in any run of `minutes` [mm], straight within steps. */
export function wettestRun({ stepMin, stepsMm }: Pick<Storm, 'stepMin' | 'stepsMm'>, minutes: number): number {
  const cumulative = new Float64Array(stepsMm.length + 1);
  for (let i = 0; i < stepsMm.length; i++) cumulative[i + 1] = cumulative[i] + stepsMm[i];
  const span = minutes / stepMin;
  const at = (x: number): number => {
    if (x >= stepsMm.length) return cumulative[stepsMm.length];
    const i = Math.floor(x);
    return cumulative[i] + (x - i) * stepsMm[i];
  };
  // The wettest run begins or ends at a step's edge.
  let most = 0;
  for (let i = 0; i <= stepsMm.length; i++) most = Math.max(most, at(i + span) - at(i), at(i) - at(Math.max(0, i - span)));
  return most;
}

/** The wettest run of a duration, as the mean intensity over it [mm/h]. */
export const peakIntensity = (storm: Pick<Storm, 'stepMin' | 'stepsMm'>, minutes: number): number =>
  (60 * wettestRun(storm, minutes)) / minutes;
