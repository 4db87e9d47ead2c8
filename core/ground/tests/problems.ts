// What is wrong with a test from a file or a command.
import { told } from '../../units/index.ts';
import { TEST_KINDS, testKind } from './kinds.ts';
import type { FieldTest } from './types.ts';

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
