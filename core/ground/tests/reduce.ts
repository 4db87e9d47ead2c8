import { Worksheet } from '../../formula/index.ts';
import { type GroupFound, groupByRate } from '../groups.ts';
import type { Soil } from '../soil.ts';
import { DESIGN_RATE } from './formulas.ts';
import { REDUCES } from './rates.ts';
import type { FieldTest, Reduction } from './types.ts';

/** What its readings come to, with the working. @throws RangeError for a kind that is not known: files are checked before. */
export function reduceTest(test: FieldTest): Reduction {
  const reduce = REDUCES.get(test.kind);
  if (!reduce) throw new RangeError(`unknown field test "${test.kind}"`);
  const sheet = new Worksheet(test.id);
  return { ...reduce(test, sheet), lines: sheet.lines };
}

export interface DesignRate {
  readonly testedMmPerHour: number;
  readonly safety: number;
  readonly rateMmPerHour: number;
}

/** Least safety factor where nothing more is asked (US manuals; handbook 3.3). */
export const LEAST_SAFETY = 2;

/** Rate to design with by a test; null until it gives one. */
export function designRateOf(test: FieldTest): DesignRate | null {
  const { rateMmPerHour: K } = reduceTest(test);
  if (K === null) return null;
  const safety = test.safety ?? LEAST_SAFETY;
  return { testedMmPerHour: K, safety, rateMmPerHour: DESIGN_RATE.evaluate({ K, SF: safety }) };
}

export const HARMS = ['none', 'nuisance', 'damage'] as const;
export type Harm = (typeof HARMS)[number];

/** Safety factors by the area drained to it and what happens when it fails (CIRIA 156 and 753; handbook 3.3, from memory). */
const SAFETY: readonly (readonly [toM2: number, byHarm: Readonly<Record<Harm, number>>])[] = [
  [100, { none: 1.5, nuisance: 2, damage: 10 }],
  [1000, { none: 1.5, nuisance: 3, damage: 10 }],
  [Infinity, { none: 1.5, nuisance: 5, damage: 10 }],
];

export function safetyFor(areaM2: number, harm: Harm): number {
  return (SAFETY.find(([to]) => areaM2 <= to) ?? SAFETY[2])[1][harm];
}

/** Rates known by a test are off by no more than half as much again, nine times in ten: common practice. */
export const TESTED_SPREAD = 1.5;

/** The soil group that the best known rate and the depths of a soil say: by its test before any safety factor, else by the rate it is designed with. */
export function soilGroupBy(soil: Soil, tests: readonly FieldTest[]): GroupFound & { readonly isTested: boolean } {
  const test = tests.find((t) => t.id === soil.rateFrom);
  const tested = test ? designRateOf(test)?.testedMmPerHour : undefined;
  const at = { rateMmPerHour: tested ?? soil.infiltrationMmPerHour, depthM: soil.soilDepthM, waterM: soil.waterDepthM };
  return { ...groupByRate(at), isTested: tested !== undefined };
}

/** What of a soil a test settles. */
export type Settled = Required<Pick<Soil, 'infiltrationMmPerHour' | 'infiltrationRange' | 'rateFrom' | 'soilGroup'>>;

/** The soil of a test's ground as the test has it; null until the test gives a rate. */
export function settledBy(test: FieldTest, soil: Soil): Settled | null {
  const design = designRateOf(test);
  if (!design) return null;
  const { rateMmPerHour } = design;
  const infiltrationRange = [rateMmPerHour / TESTED_SPREAD, rateMmPerHour * TESTED_SPREAD] as const;
  const { group } = soilGroupBy({ ...soil, rateFrom: test.id }, [test]);
  return { infiltrationMmPerHour: rateMmPerHour, infiltrationRange, rateFrom: test.id, soilGroup: group };
}

/** Whether a soil's rate is still what its test gives. */
export function isSettledBy(test: FieldTest, soil: Soil): boolean {
  const settled = settledBy(test, soil);
  return soil.rateFrom === test.id && settled !== null && Math.abs(soil.infiltrationMmPerHour - settled.infiltrationMmPerHour) < 1e-9;
}
