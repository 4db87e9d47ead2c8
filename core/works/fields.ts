import type { FieldSpec, Problem, ShownWhen } from '../contract/index.ts';
import { lineLength } from '../geometry/index.ts';
import { amount, say, told } from '../units/index.ts';

/** The value at a dotted path, undefined when the path breaks off. */
export function valueAt(object: unknown, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>((at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined), object);
}

/** Whether a field, choice or reference is shown for a work as it is. */
export function isShown({ shownWhen }: { readonly shownWhen?: ShownWhen }, work: unknown): boolean {
  if (!shownWhen) return true;
  const value = valueAt(work, shownWhen.path);
  const { is, isNot } = shownWhen;
  return (is === undefined || is.includes(value)) && (isNot === undefined || !isNot.includes(value));
}

/** Problems with the numeric fields of a work: missing, not a number, out of range. */
export function checkFields(work: { readonly id: string; readonly name: string }, fields: readonly FieldSpec[]): Problem[] {
  return fields.flatMap((field): Problem[] => {
    const value = valueAt(work, field.path);
    if (field.optional && value === undefined) return [];
    const range = say`Give a number from ${amount(field.min, field.kind)} to ${amount(field.max, field.kind)}.`;
    if (typeof value !== 'number' || !Number.isFinite(value)) {
      return [
        {
          code: 'work.field-missing',
          what: `${field.label} of "${work.name}" is ${told(value)}, not a number`,
          field: field.path,
          do: range,
        },
      ];
    }
    if (value < field.min || value > field.max) {
      return [
        {
          code: 'work.field-range',
          what: say`${field.label} of "${work.name}" is ${amount(value, field.kind)}, outside ${amount(field.min, field.kind)} to ${amount(field.max, field.kind)}`,
          field: field.path,
          do: range,
        },
      ];
    }
    return [];
  });
}

/** Longer than any work on one property [m]: such a line has a slip in its coordinates. */
const LONGEST_M = 20_000;

/** Problems with a line: two or more points of finite numbers, not all in one place. */
export function checkLine(work: { readonly name: string }, line: unknown): Problem[] {
  const isPoint = (p: unknown): p is [number, number] =>
    Array.isArray(p) && p.length === 2 && p.every((v) => typeof v === 'number' && Number.isFinite(v));
  if (!Array.isArray(line) || line.length < 2 || !line.every(isPoint)) {
    return [
      {
        code: 'work.line',
        what: `the line of "${work.name}" is not a list of at least two [x, y] points`,
        field: 'line',
        do: 'Draw it again, or give at least two points in metres.',
      },
    ];
  }
  const length = lineLength(line);
  if (length > LONGEST_M) {
    return [
      {
        code: 'work.line-length',
        what: say`the line of "${work.name}" is ${amount(length, 'distance')} long; the limit is ${amount(LONGEST_M, 'distance')}`,
        field: 'line',
        do: 'Check its coordinates: a corner lies far off. Draw it again on the plan.',
      },
    ];
  }
  const isOnePlace = line.every((p) => p[0] === line[0][0] && p[1] === line[0][1]);
  return isOnePlace
    ? [
        {
          code: 'work.line-length',
          what: `the line of "${work.name}" has no length`,
          field: 'line',
          do: 'Draw it between two different points.',
        },
      ]
    : [];
}
