import type { ValidationError } from 'class-validator';
import type { UserProblem } from './problem.ts';

const isShort = (value: unknown): boolean => (JSON.stringify(value) ?? '').length < 40;

/** Class-validator's findings as problems, each with the path of its field. */
export function problemsOf(errors: readonly ValidationError[], file: string | undefined, path = ''): UserProblem[] {
  return errors.flatMap((error) => {
    const field = path === '' ? error.property : `${path}.${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([rule, message]): UserProblem => ({
      code: `project.${rule}`,
      what: `${field}: ${message}${isShort(error.value) ? `, but it is ${JSON.stringify(error.value) ?? 'missing'}` : ''}`,
      where: { ...(file === undefined ? {} : { file }), field },
      do: 'Correct this value, or open an earlier copy of the project.',
    }));
    return [...own, ...problemsOf(error.children ?? [], file, field)];
  });
}
