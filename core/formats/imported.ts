import { type UserProblem, UserError } from '../project/index.ts';
import type { RainTable } from '../rain/index.ts';
import type { Grid } from '../terrain/index.ts';

export interface ImportedTerrain {
  readonly kind: 'terrain';
  readonly grid: Grid;
  readonly crs: string | null;
  readonly source: string;
  /** What was assumed or changed on the way in, in words. */
  readonly notes: readonly string[];
}

export interface ImportedRain {
  readonly kind: 'rain';
  readonly table: RainTable;
  readonly source: string;
  readonly notes: readonly string[];
}

export type Imported = ImportedTerrain | ImportedRain;

export interface InputFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Refuses a file with one problem. */
export function refuseFile(
  file: string,
  code: string,
  more: { readonly what: string; readonly do: string; readonly line?: number; readonly field?: string },
): never {
  const { what, line, field } = more;
  throw new UserError([
    { code, what, where: { file, ...(line === undefined ? {} : { line }), ...(field === undefined ? {} : { field }) }, do: more.do },
  ]);
}

/** Refuses a file with the problems of several lines; the first ten are enough to act on. */
export function refuseLines(problems: readonly UserProblem[]): never {
  throw new UserError(problems.slice(0, 10));
}
