// What grids of any format may not be, and in which unit their levels are.
import { MAX_CELLS } from '../terrain/index.ts';
import { refuseFile } from './imported.ts';

export function tooBig(file: string, cells: number, todo = 'Cut out your land and what drains to it, or use larger cells.'): never {
  return refuseFile(file, 'terrain.too-big', {
    what: `it has ${cells.toLocaleString('en')} cells; the limit is ${MAX_CELLS.toLocaleString('en')}`,
    do: todo,
  });
}

/** Whether coordinates can only be degrees: a cell far too small for metres, inside the range of degrees. */
export const looksLikeDegrees = ({
  cell,
  west,
  south,
}: {
  readonly cell: number;
  readonly west: number;
  readonly south: number;
}): boolean => cell < 0.02 && Math.abs(west) <= 360 && Math.abs(south) <= 90;

export const LEVEL_UNITS = ['m', 'ft'] as const;
export type LevelUnit = (typeof LEVEL_UNITS)[number];

const FOOT_M = 0.3048;

/**
 * Levels of a grid that does not name their unit: metres, unless the user says feet. Where its plan is in feet nobody knows.
 * @throws UserError that asks.
 */
export function asSaid(
  levels: Float64Array,
  on: { readonly said: LevelUnit | undefined; readonly isPlanInFeet: boolean; readonly file: string; readonly notes: string[] },
): void {
  const { said, isPlanInFeet, file, notes } = on;
  if (said === undefined && isPlanInFeet)
    refuseFile(file, 'levels.doubtful', {
      what: 'its plan is in feet, and it does not say whether its levels are',
      do: 'Say whether its levels are metres or feet.',
    });
  if (said !== 'ft') return;
  for (let i = 0; i < levels.length; i++) levels[i] *= FOOT_M;
  notes.push('Its levels were taken as feet, as you said, and turned into metres.');
}
