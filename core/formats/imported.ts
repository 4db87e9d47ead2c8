import { type PictureKind, type UserProblem, UserError } from '../project/index.ts';
import type { Laying, Line } from '../geometry/index.ts';
import type { RainRecord, RainTable, TableLimits } from '../rain/index.ts';
import type { Grid, SurveyKnown } from '../terrain/index.ts';

export interface ImportedTerrain {
  readonly kind: 'terrain';
  readonly grid: Grid;
  readonly crs: string | null;
  readonly source: string;
  /** What was assumed or changed on the way in, in words. */
  readonly notes: readonly string[];
  /** Where it was read, and what that tells of the ground between; left out where every cell is a reading. */
  readonly known?: SurveyKnown;
}

export interface ImportedRain {
  readonly kind: 'rain';
  readonly table: RainTable;
  /** Confidence limits of the same shape, where the file has them. */
  readonly limits: TableLimits | null;
  readonly source: string;
  readonly notes: readonly string[];
}

/** What was found in a gauge file besides the rain. */
export interface GaugeReport {
  /** Lines with a value, lines or whole steps without one, traces counted as no rain, and sums over several steps spread evenly. */
  readonly read: number;
  readonly missing: number;
  readonly traces: number;
  readonly accumulated: number;
  /** Lines that stood out of order in the file. */
  readonly outOfOrder: number;
}

export interface ImportedGauge {
  readonly kind: 'gauge';
  readonly record: RainRecord;
  readonly report: GaugeReport;
  readonly source: string;
  readonly notes: readonly string[];
}

/** Something drawn on a map or walked with a phone. */
export interface DrawnShape {
  /** What it is called, and what it was filed under; '' where it is not told. */
  readonly name: string;
  readonly group: string;
  readonly form: 'point' | 'line' | 'ring';
  readonly points: Line;
  /** A level at each of its points [m]; null where it bears none. */
  readonly levelsM: readonly number[] | null;
}

export interface ImportedShapes {
  readonly kind: 'shapes';
  readonly shapes: readonly DrawnShape[];
  readonly crs: string | null;
  readonly source: string;
  readonly notes: readonly string[];
}

/** A picture to lie under the plan. */
export interface ImportedPicture {
  readonly kind: 'picture';
  readonly picture: { readonly kind: PictureKind; readonly widthPx: number; readonly heightPx: number; readonly bytes: Uint8Array };
  /** Where it lies; null where it does not say. */
  readonly laying: Laying | null;
  readonly crs: string | null;
  readonly source: string;
  readonly notes: readonly string[];
}

export type Imported = ImportedTerrain | ImportedRain | ImportedGauge | ImportedShapes | ImportedPicture;

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
