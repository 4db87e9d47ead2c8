import { Worksheet } from '../../formula/index.ts';
import { told } from '../../units/index.ts';
import { type GroupFound, groupByRate } from '../groups.ts';
import type { Soil } from '../soil.ts';
import { DESIGN_RATE } from './formulas.ts';
import { TEST_KINDS, testKind } from './kinds.ts';
import type { FieldTest, Reduction } from './types.ts';

/** What its readings come to, with the working. @throws RangeError for a kind that is not known: files are checked before. */
export function reduceTest(test: FieldTest): Reduction {
  const kind = testKind(test.kind);
  if (!kind) throw new RangeError(`unknown field test "${test.kind}"`);
  const sheet = new Worksheet(test.id);
  return { ...kind.reduce(test, sheet), lines: sheet.lines };
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

/** Something wrong in a test as it was written down. */
export interface TestProblem {
  readonly code: string;
  readonly what: string;
  readonly field: string;
  readonly do: string;
}

const MOST_READINGS = 500;
const [LONGEST_MIN, DEEPEST_MM] = [20160, 5000];

/** Everything wrong with a test from a file or a command; the first problem in each list of readings is told. */
export function testProblems(test: FieldTest, at = 'test'): TestProblem[] {
  const problem = (code: string, what: string, more: { field: string; do: string }): TestProblem[] => [
    { code: `test.${code}`, what, field: `${at}.${more.field}`, do: more.do },
  ];
  const kind = testKind(test.kind);
  if (!kind) {
    return problem('kind', `there is no field test ${told(test.kind)}`, {
      field: 'kind',
      do: `Use one of ${TEST_KINDS.map((k) => k.kind).join(', ')}.`,
    });
  }
  const sizes = (test.sizes ?? {}) as Readonly<Record<string, unknown>>;
  const wrong = kind.sizes.find(({ id, min, max }) => typeof sizes[id] !== 'number' || sizes[id] < min || sizes[id] > max);
  if (wrong) {
    const { id, label, min, max } = wrong;
    return problem('size', `“${label}” is ${told(sizes[id])}, not ${min} to ${max}`, {
      field: `sizes.${id}`,
      do: 'Measure it again, in metres.',
    });
  }
  if (test.safety !== undefined && !(typeof test.safety === 'number' && test.safety >= 1 && test.safety <= 20)) {
    return problem('safety', `a safety factor of ${told(test.safety)} is not between 1 and 20`, { field: 'safety', do: 'Take 2 or more.' });
  }
  if (!Array.isArray(test.readings) || test.readings.length > MOST_READINGS) {
    return problem('readings', `readings are no list of at most ${MOST_READINGS}`, {
      field: 'readings',
      do: 'Give a list of times and depths.',
    });
  }
  return readingProblem(test, problem);
}

type Problem = (code: string, what: string, more: { field: string; do: string }) => TestProblem[];

function readingProblem({ readings }: FieldTest, problem: Problem): TestProblem[] {
  const isDepth = (v: unknown): v is number => typeof v === 'number' && v >= 0 && v <= DEEPEST_MM;
  for (const [k, r] of readings.entries()) {
    const field = `readings.${k}`;
    const line = `reading ${k + 1}`;
    const before = readings[k - 1];
    if (typeof r?.min !== 'number' || !(r.min >= 0 && r.min <= LONGEST_MIN)) {
      return problem('time', `${line}: its time is ${told(r?.min)}, not 0 to ${LONGEST_MIN} min`, {
        field,
        do: 'Give minutes since the start.',
      });
    }
    if (before && r.min <= before.min) {
      return problem('order', `${line}: ${r.min} min is not after ${before.min} min`, {
        field,
        do: 'Put readings in order of time, each time once.',
      });
    }
    if (!isDepth(r.mm)) {
      return problem('depth', `${line}: its depth is ${told(r.mm)}, not 0 to ${DEEPEST_MM} mm`, {
        field,
        do: 'Give the depth of water in mm.',
      });
    }
    if (before && r.mm > (before.refilledMm ?? before.mm)) {
      return problem('rise', `${line}: the water stands at ${r.mm} mm, higher than the ${before.refilledMm ?? before.mm} mm before it`, {
        field,
        do: 'Say what it was filled up to at the reading before, or correct the depth.',
      });
    }
    if (r.refilledMm !== undefined && !(isDepth(r.refilledMm) && r.refilledMm >= r.mm)) {
      return problem('refill', `${line}: refilled to ${told(r.refilledMm)}, which is not above the ${r.mm} mm read`, {
        field,
        do: 'Give the depth it was filled up to, or leave it out.',
      });
    }
  }
  return [];
}
