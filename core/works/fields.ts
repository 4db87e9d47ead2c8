import type { ChoiceSpec, FieldSpec, ListSpec, Problem, ShownWhen } from '../contract/index.ts';
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

/** Problems with what a work must be one of: a choice that may be left out says what it usually is. */
export function checkChoices(work: { readonly name: string }, choices: readonly ChoiceSpec[]): Problem[] {
  return choices.flatMap(({ path, label, options, usual }): Problem[] => {
    const value = valueAt(work, path);
    if (options.some((o) => o.id === value) || (value === undefined && usual !== undefined)) return [];
    return [
      {
        code: 'work.choice',
        what: `"${label}" of "${work.name}" is ${told(value)}`,
        field: path,
        do: `Choose one of ${options.map((o) => o.id).join(', ')}.`,
      },
    ];
  });
}

/** Problems with the lines of a work that has several: none or too many of them, or something wrong with one. */
export function checkLines(
  work: { readonly id: string; readonly name: string },
  { path, each, most }: { readonly path: string; readonly each: string; readonly most: number },
): Problem[] {
  const lines = valueAt(work, path);
  if (!Array.isArray(lines) || lines.length === 0 || lines.length > most) {
    const is = Array.isArray(lines) ? `${lines.length}` : told(lines);
    const what = `"${path}" of "${work.name}" is ${is}, not a list of lines`;
    const few = `"${work.name}" has ${is} ${each}s`;
    return [{ code: 'work.lines', what: Array.isArray(lines) ? few : what, field: path, do: `Give one to ${most}.` }];
  }
  return lines.flatMap((line: unknown, k) =>
    checkLine({ ...work, name: `${work.name}, ${each} ${k + 1}` }, line).map((p) => ({ ...p, field: `${path}.${k}` })),
  );
}

/** Problems with a list of things noted along a work, each with the same numbers: told by whose and which, at their place in it. */
export function checkEntries(
  work: { readonly name: string },
  { path, fields, each }: Pick<ListSpec, 'path' | 'fields'> & { readonly each: string },
): Problem[] {
  const list = valueAt(work, path);
  if (list === undefined) return [];
  if (!Array.isArray(list)) {
    const what = `"${path}" of "${work.name}" is ${told(list)}`;
    return [{ code: 'work.list', what, field: path, do: 'Give a list, or leave it out.' }];
  }
  return list.flatMap((entry: unknown, k) => {
    const on = typeof entry === 'object' && entry !== null ? entry : {};
    const named = { ...on, id: '', name: `${work.name}, ${each} ${k + 1}` };
    return checkFields(named, fields).map((p) => ({ ...p, field: `${path}.${k}.${p.field ?? ''}` }));
  });
}

/** Problems with the numeric fields of a work: missing, not a number, out of range, parts of what is counted whole. */
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
    if (field.kind === 'count' && !Number.isInteger(value))
      return [
        {
          code: 'work.field-whole',
          what: `${field.label} of "${work.name}" is ${told(value)}, not a whole number`,
          field: field.path,
          do: 'Give a whole number.',
        },
      ];
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

/** One of the things a choice can be, and a choice among some. */
export const option = (id: string, name: string): ChoiceSpec['options'][number] => ({ id, name });
export const choice = (path: string, label: string, options: ChoiceSpec['options']): ChoiceSpec => ({ path, label, options });
