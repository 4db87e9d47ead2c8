import type { Case } from './cases.ts';
import type { Feature, Hazard, WorkBase } from '../contract/index.ts';
import type { Line, Point } from '../geometry/index.ts';
import type { FieldTest, Soil } from '../ground/index.ts';
import type { DesignStorm, OneStorm, RainTable, TableLimits } from '../rain/index.ts';
import type { Abstraction, LossMethod, Wetness } from '../runoff/index.ts';
import type { Climate, Need, Price, UseOrder } from '../season/index.ts';
import type { LevelBook } from '../survey/index.ts';
import type { Picture } from './picture.ts';

export const PROJECT_FORMAT = 'outlet-project';
export const PROJECT_VERSION = 1;

export interface TerrainInline {
  readonly kind: 'grid';
  readonly ncols: number;
  readonly nrows: number;
  readonly west: number;
  readonly south: number;
  readonly cellM: number;
  readonly rows: 'north-first';
  readonly z: readonly (number | null)[];
}

/** Terrain in a file beside the project (command line only). */
export interface TerrainFile {
  readonly kind: 'grid';
  readonly file: string;
}

/** Terrain kept as an immutable asset, named by the hash of its bytes. */
export interface TerrainAsset {
  readonly kind: 'asset';
  readonly sha256: string;
  /** What it was made from, for people. */
  readonly source: string;
}

/** A survey the ground is made of. Each has its say where it reaches, the last first. */
export interface SurveyPart {
  readonly name: string;
  /** How near its levels are known, two times in three [m]; left out while nobody has said. */
  readonly levelsM?: number;
  /** How much less near a place is known for each metre from its nearest reading [m/m]; left out where its readings do not tell. */
  readonly growsBy?: number;
  /** Asset of distances to the nearest reading, which says where it reaches, too; left out where every cell is a reading. */
  readonly away?: string;
  /** Over how far from its edge it passes into the ground it was laid into [m]; left out where it was laid into none. */
  readonly featherM?: number;
}

export type Terrain = (TerrainInline | TerrainFile | TerrainAsset) & {
  /** It was made up to try things on: nobody levelled it. */
  readonly isMadeUp?: true;
  /** What it was made of; left out where nobody kept count. */
  readonly surveys?: readonly SurveyPart[];
};

/** As much of a name as says which survey it is. */
export const surveyName = (source: string): string => source.slice(0, 200);

/** The surveys a ground is made of; one nobody kept count of is the one it was taken from. */
export function surveysOf(terrain: Terrain): readonly SurveyPart[] {
  const name = terrain.kind === 'asset' ? terrain.source : 'file' in terrain ? terrain.file : 'the ground';
  return terrain.surveys ?? [{ name: surveyName(name) }];
}

export interface Pin {
  readonly id: string;
  readonly name?: string;
  readonly at: Point;
}

export type { DesignStorm } from '../rain/index.ts';

/** Where a rain table came from: typed or a file, a gauge's record, memory, the simulated service, or an example to type over. */
export const RAIN_BASES = ['table', 'record', 'memory', 'simulated', 'example'] as const;

export interface Rain {
  readonly table: RainTable;
  readonly storm: DesignStorm;
  /** Where the table came from, in the user's words. */
  readonly source?: string;
  readonly basis?: (typeof RAIN_BASES)[number];
  /** Depths between which the truth lies nine times in ten, of the table's own shape. */
  readonly limits?: TableLimits;
}

/** Rain with the length of its storm settled. */
export type OneRain = Rain & { readonly storm: OneStorm };

/** A rain gauge's record, kept as an asset beside the document. */
export interface Gauge {
  readonly sha256: string;
  readonly source: string;
}

/** A part of the property with ground of its own; a later zone lies over an earlier one. */
export interface Zone extends Soil {
  readonly id: string;
  readonly name: string;
  readonly ring: Line;
}

export const GROUND_AS = ['now', 'healed'] as const;

/** The ground of the whole property, and of zones beside it. */
export interface Ground extends Soil {
  readonly zones?: readonly Zone[];
  readonly tests?: readonly FieldTest[];
  /** Whether everything is worked out for the ground as it is now or healed. */
  readonly as?: (typeof GROUND_AS)[number];
  /** Years of healing meant by "healed". */
  readonly healedYears?: number;
  readonly erosion?: Erosion;
  /** A start to correct: nobody has said yet that the ground is so. */
  readonly isExample?: true;
}

/** What soil loss needs beside the ground. */
export interface Erosion {
  /** Rain of a mean year [mm]. */
  readonly annualMm: number;
  /** Erosivity known locally [MJ mm/(ha h yr)]; left out, from the yearly rain. */
  readonly erosivity?: number;
  /** Whether the ground is worked along the contour. */
  readonly onContour?: boolean;
}

const DEFAULT_HEALED_YEARS = 5;

/** Years of healing a project means by "healed". */
export const healedYearsOf = ({ healedYears = DEFAULT_HEALED_YEARS }: Pick<Ground, 'healedYears'>): number => healedYears;

export const TIME_METHODS = ['lag', 'path', 'kirpich', 'kerby', 'airfield', 'bransby-williams'] as const;
export type TimeMethod = (typeof TIME_METHODS)[number];
export const PEAK_METHODS = ['larger', 'hydrograph', 'rational', 'rational-rare', 'graphical'] as const;
export type PeakMethod = (typeof PEAK_METHODS)[number];

/** How runoff is worked out: losses for the whole property, time and peak for each catchment. */
export interface RunoffSettings {
  readonly loss?: LossMethod;
  readonly wetness?: Wetness;
  readonly abstraction?: Abstraction;
  readonly hortonTimes?: number;
  readonly hortonDecay?: number;
  readonly time?: TimeMethod;
  readonly peak?: PeakMethod;
  /** Peak rate factor of the unit hydrograph; left out, the standard 484. */
  readonly peakFactor?: number;
  /** Catchments, by pin or work, with methods of their own. */
  readonly of?: Readonly<Record<string, { readonly time?: TimeMethod; readonly peak?: PeakMethod }>>;
}

export interface Survey {
  readonly heightOfCollimationM: number | null;
  readonly pegIntervalM: number;
}

/** What to do with hollows that water cannot leave: let them fill, or cut their rims as a culvert unseen by the survey would. */
export const HOLLOW_WAYS = ['fill', 'breach'] as const;

export interface Land {
  readonly hollows: (typeof HOLLOW_WAYS)[number];
}

export const DEFAULT_LAND: Land = { hollows: 'fill' };

/** Water brought into a store when it stands low: from mains, a well or a truck. */
export interface TopUp {
  readonly store: string;
  /** Filled up to so much [m3], so much a day at the most. */
  readonly toM3: number;
  readonly mostM3PerDay: number;
}

/** What is drawn from stores through the year, and what it is held against. */
export interface Supply {
  /** Whether what comes on a day is used before it spills, or only what stood there in the morning; after unless said otherwise. */
  readonly order?: UseOrder;
  /** The first of those that draw from one store comes first. */
  readonly needs: readonly Need[];
  readonly topUps?: readonly TopUp[];
  /** What a tank costs by its size, in the user's money. */
  readonly price?: Price;
  /** What 1000 L cost that are not caught: from the mains, or by truck. */
  readonly boughtPer1000L?: number;
}

export interface Option {
  readonly id: string;
  readonly name: string;
  readonly works: readonly WorkBase[];
  /** Where outlets lead by the user's word, by the outlet's id: another work's id, "property-edge", "terrain-edge" or "ground". */
  readonly links?: Readonly<Record<string, string>>;
  /** Levels stores are found at when a storm begins, by the user's word [m]. */
  readonly starts?: Readonly<Record<string, number>>;
  /** Who lies below stores, by the user's word. */
  readonly hazards?: Readonly<Record<string, Hazard>>;
}

export interface Project {
  readonly format: typeof PROJECT_FORMAT;
  readonly version: typeof PROJECT_VERSION;
  readonly id: string;
  readonly name: string;
  readonly site: { readonly crs: string | null; readonly outline: Line; readonly zeroLevelM: number };
  readonly pins: readonly Pin[];
  readonly terrain: Terrain | null;
  readonly features: readonly Feature[];
  readonly land?: Land;
  readonly rain: Rain | null;
  readonly gauge?: Gauge | null;
  readonly climate?: Climate;
  readonly supply?: Supply;
  readonly ground: Ground | null;
  readonly runoff?: RunoffSettings;
  readonly survey?: Survey;
  /** Level books, as they were booked. */
  readonly books?: readonly LevelBook[];
  /** Pictures under the plan, the lowest first. */
  readonly pictures?: readonly Picture[];
  readonly cases?: readonly Case[];
  readonly activeOption: string;
  readonly options: readonly Option[];
}

export const DEFAULT_SURVEY: Survey = { heightOfCollimationM: null, pegIntervalM: 10 };

/** A project with nothing decided yet. */
export function emptyProject(id: string, name: string): Project {
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    id,
    name,
    site: { crs: null, outline: [], zeroLevelM: 0 },
    pins: [],
    terrain: null,
    features: [],
    rain: null,
    ground: null,
    activeOption: 'o1',
    options: [{ id: 'o1', name: 'First option', works: [] }],
  };
}

/** The option worked on. @throws RangeError when the id names none. */
export function optionOf(project: Project, id = project.activeOption): Option {
  const option = project.options.find((o) => o.id === id);
  if (!option) throw new RangeError(`no option "${id}"`);
  return option;
}

/** Names of the assets results are worked out from. */
export function workedAssetsOf({ terrain, gauge }: Project): string[] {
  const away = (terrain?.surveys ?? []).flatMap((survey) => (survey.away === undefined ? [] : [survey.away]));
  return [...(terrain?.kind === 'asset' ? [terrain.sha256] : []), ...away, ...(gauge ? [gauge.sha256] : [])];
}

/** Names of all assets a project needs. */
export const assetsOf = (project: Project): string[] => [
  ...workedAssetsOf(project),
  ...(project.pictures ?? []).map((picture) => picture.sha256),
];
