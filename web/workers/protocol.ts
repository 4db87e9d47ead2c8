// The one table of what the page asks of its workers.
import type { Derived, QuestionName } from '#core/derive';
import type {
  DecimalMark,
  ImportHow,
  Overview,
  PointTable,
  ImportedGauge,
  ImportedPicture,
  ImportedRain,
  ImportedShapes,
  ImportedTerrain,
  PegFormat,
  DrawingFormat,
  FoundSystem,
  GroundFormat,
} from '#core/formats';
import type { Project, UserProblem } from '#core/project';
import type { Peg } from '#core/survey';
import type { ContourLines, Differs, MarksShift, PatchHow, Smoothed, Smoothing, SurveyKnown } from '#core/terrain';
import type { Sending } from './document.ts';
import type { Parcel } from './parts.ts';

/** One copy of the ground for the pointer and the drawing; flat arrays are transferred. */
export interface TerrainView {
  /** Names the ground with what was seen on it. */
  readonly key: string;
  /** Names the ground alone. */
  readonly terrain: string;
  readonly frame: {
    readonly ncols: number;
    readonly nrows: number;
    readonly cellM: number;
    readonly west: number;
    readonly south: number;
    readonly baseM: number;
  };
  /** How far it lies from its lowest to its highest place [m]. */
  readonly reliefM: number;
  readonly z: Float32Array;
  /** Area draining through each cell [m2]. */
  readonly areaM2: Float32Array;
}

/** A result, or the problems a user can mend; errors of other kinds reject. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problems: readonly UserProblem[]; readonly isDropped?: true };

/** How a document is to be computed. */
export interface DeriveAsked {
  readonly ticket: number;
  /** By the storms that decided last alone, where there are such: the whole set is asked for after it. */
  readonly isQuick: boolean;
  /** The storm to be shown, by its length; null for the one that governs. */
  readonly shownMin: number | null;
}

export interface Compute {
  /** Hands over an asset, a terrain or a gauge's record; they stay in the worker. */
  readonly keep: (sha256: string, blob: Blob) => Promise<Answer<void>>;
  /** What is computed of a document, as the parts that differ from the answer before; given up when its ticket is dropped. */
  readonly derive: (document: Sending, on: DeriveAsked) => Promise<Answer<Parcel>>;
  readonly terrainView: (project: Project) => Promise<Answer<TerrainView | null>>;
  /** Any question there is, by name; a long one is given up when its ticket is dropped. */
  readonly ask: (name: QuestionName, project: Project, on: { readonly args: unknown; readonly ticket: number }) => Promise<Answer<unknown>>;
  /** Nobody waits for the answer of a ticket any more. */
  readonly drop: (ticket: number) => Promise<void>;
  readonly onProgress: (report: (part: string, share: number) => void) => Promise<void>;
}

/** An asset packed for keeping, with its name. */
export interface Packed {
  readonly sha256: string;
  readonly blob: Blob;
}

/** Where a survey was read and what that tells, its distances packed as an asset. */
export type KnownPacked = Omit<SurveyKnown, 'away'> & { readonly away: Packed | null };

/** What a file held, its terrain or record packed as an asset. */
export type TakenIn =
  | ImportedRain
  /** What is drawn in it, and whether it bears levels that could be ground. */
  | (ImportedShapes & { readonly canBeGround: boolean })
  | (Omit<ImportedTerrain, 'grid' | 'known'> & { readonly asset: Packed; readonly known?: KnownPacked })
  | (ImportedGauge & { readonly asset: Packed })
  | (Omit<ImportedPicture, 'picture'> & { readonly picture: Omit<ImportedPicture['picture'], 'bytes'>; readonly asset: Packed });

/** How pegs are written: the coordinate system of the project by its name, null where it has none; names of works by id. */
export interface PegsOn {
  readonly format: PegFormat;
  readonly crs: Project['site']['crs'];
  readonly names: readonly (readonly [id: string, name: string])[];
}

/** What a drawing is made of beside the project, and how it is written. */
export interface DrawingOn {
  readonly derived: Derived;
  readonly contours: ContourLines | null;
  readonly format: DrawingFormat;
}

/** How the ground is written: its format, and what is told of it. */
export interface GroundOut {
  readonly format: GroundFormat;
  readonly name: string;
  readonly crs: Project['site']['crs'];
}

/** Two grounds that meet. */
export interface Met {
  readonly differs: Differs;
  readonly featherM: number;
}

/** A picture of levels looked over: shaded, with what its numbers run between. */
export interface Looked extends Omit<Overview, 'levels'> {
  readonly shade: Uint8ClampedArray;
  /** Null where it has no numbers at all. */
  readonly between: readonly [least: number, most: number] | null;
}

/** What a worker does with one file. */
export interface FileWork {
  /** A project file unpacked: its JSON, not judged yet, and its assets. */
  readonly open: (file: File) => Promise<Answer<{ readonly json: unknown; readonly assets: ReadonlyMap<string, Blob> }>>;
  readonly import: (file: File, how: ImportHow) => Promise<Answer<TakenIn>>;
  /** A table of points looked over before it is brought in. */
  readonly points: (file: File, decimal?: DecimalMark) => Promise<Answer<PointTable>>;
  /** A picture of levels looked over before it is brought in: one of its bands, or the one that likely holds them. */
  readonly look: (file: File, band?: number) => Promise<Answer<Looked>>;
  /** Pegs in an open format; only here is the table of coordinate systems read. */
  readonly pegs: (pegs: readonly Peg[], on: PegsOn) => Promise<Answer<Blob>>;
  /** The whole plan as a drawing for other programs. */
  readonly drawing: (project: Project, on: DrawingOn) => Promise<Answer<Blob>>;
  /** How a survey lies against the ground there is, and over how far one would pass into the other; null where they do not meet. */
  readonly compare: (ground: Blob, survey: Blob) => Promise<Answer<Met | null>>;
  /** The shift that brings the survey to the ground at marks, as they were typed. */
  readonly marks: (ground: Blob, survey: Blob, text: string) => Promise<Answer<MarksShift>>;
  /** The survey laid into the ground, and where it reaches: nothing away from a reading there. */
  readonly patch: (ground: Blob, survey: Blob, how: PatchHow) => Promise<Answer<{ readonly ground: Packed; readonly reach: Packed }>>;
  /** Systems that fit words; only here is the table of coordinate systems read. */
  readonly systems: (words: string) => Promise<Answer<readonly FoundSystem[]>>;
  /** What was computed as tables for a spreadsheet. */
  readonly tables: (project: Project, derived: Derived) => Promise<Answer<Blob>>;
  /** The ground with its noise taken out; null where too little is known to tell it. */
  readonly smooth: (ground: Blob, how: Smoothing) => Promise<Answer<(Omit<Smoothed, 'grid'> & { readonly asset: Packed }) | null>>;
  /** The ground for other programs and machines, and how its file ends. */
  readonly ground: (
    ground: Pick<TerrainView, 'frame' | 'z'>,
    on: GroundOut,
  ) => Promise<Answer<{ readonly blob: Blob; readonly ending: string }>>;
  readonly pack: (project: Project, assets: ReadonlyMap<string, Blob>) => Promise<Answer<Blob>>;
  readonly onProgress: (report: (part: string, share: number) => void) => Promise<void>;
}
