// What a member of a shape may be, said in the words of its judge.
import { ValidateBy, ValidateIf, type ValidationOptions } from 'class-validator';
import { idFault } from './ids.ts';

export const isPoint = (v: unknown): boolean =>
  Array.isArray(v) && v.length === 2 && v.every((n) => typeof n === 'number' && Number.isFinite(n));

export function IsPoint(unit = 'metres'): PropertyDecorator {
  return ValidateBy({
    name: 'isPoint',
    validator: { validate: isPoint, defaultMessage: () => `$property must be [x, y], two numbers in ${unit}` },
  });
}

export function IsRing(least: number, options?: ValidationOptions): PropertyDecorator {
  return ValidateBy(
    {
      name: 'isRing',
      validator: {
        validate: (v: unknown) => Array.isArray(v) && (v.length === 0 ? least === 0 : v.length >= Math.max(2, least)) && v.every(isPoint),
        defaultMessage: () => `$property must be a list of ${least > 0 ? `at least ${least} ` : ''}[x, y] points in metres`,
      },
    },
    options,
  );
}

export function IsStretches(): PropertyDecorator {
  return ValidateBy({
    name: 'isStretches',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && v.every(isPoint),
      defaultMessage: () => '$property must be a list of [from, to] distances in metres',
    },
  });
}

/** A name that works, outlets and zones can be known by. */
export function IsId(): PropertyDecorator {
  return ValidateBy({
    name: 'isId',
    validator: {
      validate: (v: unknown) => idFault(v) === null,
      defaultMessage: (args) => `$property ${idFault(args?.value) ?? 'is no id'}`,
    },
  });
}

export const isFiniteNumber = { allowNaN: false, allowInfinity: false };

/** A member that may be left out, but not be null: code takes a default for what is missing only. */
export const IfThere = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);
