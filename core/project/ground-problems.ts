import { validateSync } from 'class-validator';
import { type Soil, sharesProblem, testProblems } from '../ground/index.ts';
import { told } from '../units/index.ts';
import { twiceProblems } from './ids.ts';
import { GroundShape, MethodsShape, RunoffShape } from './classes.ts';
import type { Ground, Project } from './model.ts';
import type { UserProblem } from './problem.ts';
import { shaped } from './shape.ts';
import { problemsOf } from './shape-problems.ts';

const again = 'Correct this value.';

/** A member that is there but no object: where all its own members may be left out, the shapes take anything for one. */
function notAnObject(value: unknown, field: string): UserProblem[] {
  if (value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value))) return [];
  return [{ code: 'project.isObject', what: `${field} is ${told(value)}, not an object`, where: { field }, do: again }];
}

function soilProblems({ texture, seen, infiltrationRange, infiltrationMmPerHour }: Soil, field: string): UserProblem[] {
  const shares = texture?.shares ? sharesProblem(texture.shares) : null;
  const found = notAnObject(seen, `${field}.seen`);
  if (shares !== null)
    found.push({
      code: 'ground.shares',
      what: shares,
      where: { field: `${field}.texture.shares` },
      do: 'Give three shares that add up to 100 %.',
    });
  if (infiltrationRange && !(infiltrationRange[0] <= infiltrationMmPerHour && infiltrationMmPerHour <= infiltrationRange[1])) {
    found.push({
      code: 'ground.range',
      what: `the rate of ${infiltrationMmPerHour} mm/h lies outside its own limits, ${infiltrationRange.join(' to ')}`,
      where: { field: `${field}.infiltrationRange` },
      do: 'Widen the limits, or correct the rate.',
    });
  }
  return found;
}

/** What the shapes alone cannot tell of a project's ground. */
function innerProblems(ground: Ground): UserProblem[] {
  const { zones = [], tests = [] } = ground;
  const found = soilProblems(ground, 'ground');
  zones.forEach((zone, k) => found.push(...soilProblems(zone, `ground.zones.${k}`)));
  found.push(
    ...twiceProblems(zones, { of: 'zones', code: 'ground.twice', field: 'ground.zones' }),
    ...twiceProblems(tests, { of: 'field tests', code: 'ground.twice', field: 'ground.tests' }),
  );
  for (const [field, { rateFrom }] of [['ground', ground] as const, ...zones.map((z, k) => [`ground.zones.${k}`, z] as const)]) {
    if (rateFrom === undefined || tests.some((t) => t.id === rateFrom)) continue;
    found.push({
      code: 'ground.rate-from',
      what: `a rate is said to come from the test ${told(rateFrom)}, which is not there`,
      where: { field: `${field}.rateFrom` },
      do: 'Leave it out, or keep the test.',
    });
  }
  tests.forEach((test, k) => {
    const field = `ground.tests.${k}`;
    found.push(...testProblems(test, field).map((p) => ({ code: p.code, what: p.what, where: { field: p.field }, do: p.do })));
    if (test.zone !== null && !zones.some((z) => z.id === test.zone)) {
      found.push({
        code: 'test.zone',
        what: `a test speaks for the zone ${told(test.zone)}, which is not there`,
        where: { field: `${field}.zone` },
        do: 'Draw the zone first, or let it speak for the whole property.',
      });
    }
  });
  return found;
}

/** Everything wrong with the ground and the runoff settings of a project, for files and commands alike. */
export function groundProblems({ ground, runoff }: Pick<Project, 'ground' | 'runoff'>): UserProblem[] {
  const found: UserProblem[] = [];
  if (ground) {
    const shape = problemsOf(validateSync(shaped(GroundShape, ground)), undefined, 'ground');
    found.push(...(shape.length > 0 ? shape : innerProblems(ground)));
  }
  const odd = notAnObject(runoff, 'runoff');
  if (odd.length > 0) return [...found, ...odd];
  if (runoff) {
    found.push(...problemsOf(validateSync(shaped(RunoffShape, runoff)), undefined, 'runoff'));
    for (const [id, methods] of Object.entries(runoff.of ?? {})) {
      const problems = notAnObject(methods, `runoff.of.${id}`);
      if (problems.length > 0) found.push(...problems);
      else found.push(...problemsOf(validateSync(shaped(MethodsShape, methods)), undefined, `runoff.of.${id}`));
    }
  }
  return found;
}
