// Shapes a project file must have. They guard the edge only: what passes goes on as the plain data it was.
import {
  Allow,
  ArrayMaxSize,
  ArrayNotEmpty,
  Equals,
  IsArray,
  IsIn,
  IsNotEmpty,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  Min,
  ValidateBy,
  ValidateIf,
} from 'class-validator';
import { WORK_STATUSES } from '../contract/index.ts';
import { COMPACTIONS, COVERS, GRITS, RIBBONS, SOIL_GROUPS, TEXTURE_IDS, TREATMENTS } from '../ground/index.ts';
import { ABSTRACTIONS, LEAST_PEAK_FACTOR, LOSS_METHODS, MOST_PEAK_FACTOR, WETNESSES } from '../runoff/index.ts';
import { NEED_KINDS, USE_ORDERS } from '../season/index.ts';
import { BOOK_TOOLS, FARTHEST_READ_M, MOST_BOOK_LINES, PLACINGS } from '../survey/index.ts';
import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M } from '../terrain/index.ts';
import { GROUND_AS, HOLLOW_WAYS, PEAK_METHODS, PROJECT_FORMAT, PROJECT_VERSION, TIME_METHODS } from './model.ts';
import { IfThere, IsId, IsPoint, IsRing, IsStretches, isFiniteNumber, isPoint } from './members.ts';
import { MOST_PICTURES } from './picture.ts';
import { Nested } from './shape.ts';

export class SiteShape {
  @ValidateIf((o: SiteShape) => o.crs !== null) @IsString() crs!: string | null;
  @IsRing(0) outline!: unknown;
  @IsNumber(isFiniteNumber) zeroLevelM!: number;
}

export class PinShape {
  @IsId() id!: string;
  @IsPoint() at!: unknown;
}

export class FeatureShape {
  @IsId() id!: string;
  @IsString() @IsNotEmpty() kind!: string;
  @IsOptional() @IsRing(3) ring?: unknown;
  @IsOptional() @IsRing(2) line?: unknown;
  @IsOptional() @IsPoint() at?: unknown;
  @IsOptional() @IsNumber(isFiniteNumber) heightM?: number;
  @IsOptional() @IsNumber(isFiniteNumber) depthM?: number;
  @IsOptional() @IsNumber(isFiniteNumber) flowM3s?: number;
  @IsOptional() @ArrayMaxSize(200) @IsStretches() open?: unknown;
  @IsOptional() @IsIn(['start', 'end']) wetEnd?: string;
}

export class LandShape {
  @IsIn(HOLLOW_WAYS) hollows!: string;
}

export class RainTableShape {
  @IsArray() @ArrayNotEmpty() @IsNumber(isFiniteNumber, { each: true }) durationsMin!: number[];
  @IsArray() @ArrayNotEmpty() @IsNumber(isFiniteNumber, { each: true }) returnYears!: number[];
  @IsArray() @IsArray({ each: true }) depthMm!: number[][];
}

/** The rest of a storm is judged by core/rain, for files and commands alike. */
export class StormShape {
  @IsNumber(isFiniteNumber) @Min(0.01) returnYears!: number;
  @IfThere() @IsNumber(isFiniteNumber) @Min(1) @Max(10080) durationMin?: number;
}

export class RainShape {
  @Nested(() => RainTableShape) @IsObject() table!: RainTableShape;
  @Nested(() => StormShape) @IsObject() storm!: StormShape;
}

const COVER_IDS = COVERS.map((c) => c.id);

/** Two rising numbers between bounds. */
function IsLimits(least: number, most: number): PropertyDecorator {
  const isLimits = (v: unknown): boolean =>
    isPoint(v) && (v as number[])[0] <= (v as number[])[1] && (v as number[])[0] >= least && (v as number[])[1] <= most;
  return ValidateBy({
    name: 'isLimits',
    validator: { validate: isLimits, defaultMessage: () => `$property must be [low, high] between ${least} and ${most}` },
  });
}

function IsWithin(least: number, most: number): PropertyDecorator {
  return (target, key) => {
    IfThere()(target, key);
    IsNumber(isFiniteNumber)(target, key);
    Min(least)(target, key);
    Max(most)(target, key);
  };
}

const IsSize = (most: number): PropertyDecorator => IsWithin(0, most);

export class SharesShape {
  @IsNumber(isFiniteNumber) @Min(0) @Max(100) sand!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(100) silt!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(100) clay!: number;
}

export class FeelShape {
  @IsIn(RIBBONS) ribbon!: string;
  @IsIn(GRITS) grit!: string;
}

export class JarShape {
  @IsNumber(isFiniteNumber) @Min(0) @Max(1000) sandMm!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(1000) siltMm!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(1000) clayMm!: number;
}

export class TextureShape {
  @IsIn(TEXTURE_IDS) id!: string;
  @IsIn(['class', 'shares', 'feel', 'jar']) by!: string;
  @IfThere() @Nested(() => SharesShape) @IsObject() shares?: SharesShape;
  @IfThere() @Nested(() => FeelShape) @IsObject() feel?: FeelShape;
  @IfThere() @Nested(() => JarShape) @IsObject() jar?: JarShape;
}

export class SeenGroundShape {
  @IsSize(100) barePercent?: number;
  @IsSize(5000) grassMm?: number;
  @IsSize(1000) thatchMm?: number;
  @IsSize(500) crackWidthMm?: number;
  @IsSize(5000) crackDepthMm?: number;
  @IsSize(10_000) crackSpacingMm?: number;
}

export class HealingShape {
  @IsIn(TREATMENTS) treatment!: string;
  @IfThere() @IsIn(COVER_IDS) cover?: string;
  @IfThere() @IsNumber(isFiniteNumber) @Min(1) @Max(20) factor?: number;
}

export class SoilShape {
  @IsIn(SOIL_GROUPS) soilGroup!: string;
  @IsIn(COVER_IDS) cover!: string;
  @ValidateIf((o: SoilShape) => o.curveNumber !== null && o.curveNumber !== undefined)
  @IsNumber(isFiniteNumber)
  @Min(1)
  @Max(100)
  curveNumber!: number | null;
  @ValidateIf((o: SoilShape) => o.runoffC !== null && o.runoffC !== undefined) @IsNumber(isFiniteNumber) @Min(0) @Max(1) runoffC!:
    | number
    | null;
  @IsNumber(isFiniteNumber) @Min(0) @Max(5000) infiltrationMmPerHour!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(100) soilDepthM!: number;
  @IsSize(100) waterDepthM?: number;
  @IfThere() @Nested(() => TextureShape) @IsObject() texture?: TextureShape;
  @IfThere() @Nested(() => SeenGroundShape) @IsObject() seen?: SeenGroundShape;
  @IfThere() @IsIn(COMPACTIONS) compaction?: string;
  @IfThere() @Nested(() => HealingShape) @IsObject() healing?: HealingShape;
  @IfThere() @IsLimits(0, 5000) infiltrationRange?: unknown;
  @IfThere() @IsLimits(1, 100) curveNumberRange?: unknown;
  @IfThere() @IsString() rateFrom?: string;
}

export class ZoneShape extends SoilShape {
  @IsId() id!: string;
  @IsString() name!: string;
  @IsRing(3) ring!: unknown;
}

export class FieldTestShape {
  @IsId() id!: string;
  @IsString() @IsNotEmpty() kind!: string;
  @IsString() name!: string;
  @ValidateIf((o: FieldTestShape) => o.zone !== null) @IsString() zone!: string | null;
  @IfThere() @IsPoint() at?: unknown;
  @IsObject() sizes!: object;
  @IsArray() readings!: unknown[];
}

export class ErosionShape {
  @IsNumber(isFiniteNumber) @Min(0) @Max(15_000) annualMm!: number;
  @IsSize(100_000) erosivity?: number;
  @IfThere() @IsIn([true, false]) onContour?: boolean;
}

/** Zones are told apart by a byte a cell. */
export const MOST_ZONES = 200;

export class GroundShape extends SoilShape {
  @IfThere() @IsArray() @ArrayMaxSize(MOST_ZONES) @Nested(() => ZoneShape, { each: true }) zones?: ZoneShape[];
  @IfThere() @IsArray() @ArrayMaxSize(200) @Nested(() => FieldTestShape, { each: true }) tests?: FieldTestShape[];
  @IfThere() @IsIn(GROUND_AS) as?: string;
  @IsSize(100) healedYears?: number;
  @IfThere() @Nested(() => ErosionShape) @IsObject() erosion?: ErosionShape;
  @IfThere() @IsIn([true]) isExample?: boolean;
}

export class MethodsShape {
  @IfThere() @IsIn(TIME_METHODS) time?: string;
  @IfThere() @IsIn(PEAK_METHODS) peak?: string;
}

export class RunoffShape extends MethodsShape {
  @IfThere() @IsIn(LOSS_METHODS) loss?: string;
  @IfThere() @IsNumber(isFiniteNumber) @Min(LEAST_PEAK_FACTOR) @Max(MOST_PEAK_FACTOR) peakFactor?: number;
  @IfThere() @IsIn(WETNESSES) wetness?: string;
  @IfThere() @IsIn(ABSTRACTIONS) abstraction?: string;
  @IfThere() @IsNumber(isFiniteNumber) @Min(1) @Max(50) hortonTimes?: number;
  @IfThere() @IsNumber(isFiniteNumber) @Min(0.1) @Max(60) hortonDecay?: number;
  @IfThere() @IsObject() of?: object;
}

export class SurveyShape {
  @ValidateIf((o: SurveyShape) => o.heightOfCollimationM !== null) @IsNumber(isFiniteNumber) heightOfCollimationM!: number | null;
  @IsNumber(isFiniteNumber) @Min(0.5) @Max(1000) pegIntervalM!: number;
}

/** A line of a level book: staves are read within a hundred metres, levels are of this earth. */
export class BookLineShape {
  @IsString() name!: string;
  @IfThere() @IsString() from?: string;
  @IfThere() @IsString() note?: string;
  @IsWithin(-1e8, 1e8) p?: number;
  @IsWithin(-1e8, 1e8) q?: number;
  @IsWithin(-FARTHEST_READ_M, FARTHEST_READ_M) backM?: number;
  @IsWithin(-FARTHEST_READ_M, FARTHEST_READ_M) interM?: number;
  @IsWithin(-FARTHEST_READ_M, FARTHEST_READ_M) foreM?: number;
  @IsWithin(-FARTHEST_READ_M, FARTHEST_READ_M) riseM?: number;
  @IsWithin(1, 10_000) steps?: number;
  @IsWithin(LEVEL_LOWEST_M, LEVEL_HIGHEST_M) knownM?: number;
}

/** Two marks, each by its place. */
function IsBase(): PropertyDecorator {
  return ValidateBy({
    name: 'isBase',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && v.length === 2 && v.every(isPoint),
      defaultMessage: () => '$property must be two marks, each [x, y] in metres',
    },
  });
}

const MOST_BOOKS = 50;

export class LevelBookShape {
  @IsId() id!: string;
  @IsString() name!: string;
  @IsIn(BOOK_TOOLS) tool!: string;
  @IsIn(PLACINGS) placing!: string;
  @IsIn(['left', 'right']) side!: string;
  @IfThere() @IsBase() baseM?: unknown;
  @IsArray() @ArrayMaxSize(MOST_BOOK_LINES) @Nested(() => BookLineShape, { each: true }) lines!: BookLineShape[];
}

/** Twelve numbers within bounds, January first. */
function IsMonthly(most: number): PropertyDecorator {
  const isSound = (v: unknown): boolean => typeof v === 'number' && v >= 0 && v <= most;
  return ValidateBy({
    name: 'isMonthly',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && v.length === 12 && v.every(isSound),
      defaultMessage: () => `$property must be twelve numbers from 0 to ${most}, January first`,
    },
  });
}

/** Months by their numbers, each once. */
function IsMonths(): PropertyDecorator {
  const isMonth = (v: unknown): boolean => Number.isInteger(v) && (v as number) >= 1 && (v as number) <= 12;
  return ValidateBy({
    name: 'isMonths',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && v.every(isMonth) && new Set(v).size === v.length,
      defaultMessage: () => '$property must be months from 1 to 12, each once',
    },
  });
}

export class ClimateShape {
  @IfThere() @IsMonthly(1000) evaporationMm?: number[];
  @IfThere() @IsMonthly(5000) rainMm?: number[];
  @IfThere() @IsMonthly(31) wetDays?: number[];
  @IfThere() @IsNumber(isFiniteNumber) @Min(0.2) @Max(3) rainTimes?: number;
  @IfThere() @IsString() source?: string;
}

export class NeedShape {
  @IsId() id!: string;
  @IsString() @IsNotEmpty() name!: string;
  @IsString() @IsNotEmpty() store!: string;
  @IsIn(NEED_KINDS) kind!: string;
  @IsNumber(isFiniteNumber) @Min(0) @Max(1_000_000) count!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(100_000) each!: number;
  @IfThere() @IsMonths() months?: number[];
}

export class TopUpShape {
  @IsString() @IsNotEmpty() store!: string;
  @IsNumber(isFiniteNumber) @Min(0) @Max(10_000_000) toM3!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(1_000_000) mostM3PerDay!: number;
}

export class PriceShape {
  @IsNumber(isFiniteNumber) @Min(0) @Max(1e9) fixed!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(1e9) perM3!: number;
}

export class SupplyShape {
  @IfThere() @IsIn(USE_ORDERS) order?: string;
  @IsArray() @ArrayMaxSize(200) @Nested(() => NeedShape, { each: true }) needs!: NeedShape[];
  @IfThere() @IsArray() @ArrayMaxSize(200) @Nested(() => TopUpShape, { each: true }) topUps?: TopUpShape[];
  @IfThere() @IsObject() @Nested(() => PriceShape) price?: PriceShape;
  @IfThere() @IsNumber(isFiniteNumber) @Min(0) @Max(1e6) boughtPer1000L?: number;
}

const MOST_WORKS = 5_000;
const MOST_PINS = 2_000;
const MOST_FEATURES = 5_000;
const MOST_OPTIONS = 100;

/** What all works share; the rest is judged by the work's own technique. */
export class WorkShape {
  @IsId() id!: string;
  @IsString() @IsNotEmpty() kind!: string;
  @IsString() name!: string;
  @IsIn(WORK_STATUSES) status!: string;
}

export class OptionShape {
  @IsId() id!: string;
  @IsString() name!: string;
  /** Each is judged by itself, so that an edit of one costs one. */
  @IsArray() @ArrayMaxSize(MOST_WORKS) works!: unknown[];
}

/** The document without its terrain, ground and lists, which are judged part by part. */
export class ProjectShape {
  @Equals(PROJECT_FORMAT) format!: string;
  @Equals(PROJECT_VERSION) version!: number;
  @IsId() id!: string;
  @IsString() name!: string;
  @Nested(() => SiteShape) @IsObject() site!: SiteShape;
  @IsArray() @ArrayMaxSize(MOST_PINS) pins!: unknown[];
  @Allow() terrain!: unknown;
  @IsArray() @ArrayMaxSize(MOST_FEATURES) features!: unknown[];
  @IfThere() @IsObject() @Nested(() => LandShape) land?: LandShape;
  @IsOptional() @Nested(() => RainShape) rain!: RainShape | null;
  @IfThere() @IsObject() @Nested(() => SurveyShape) survey?: SurveyShape;
  /** Each is judged by itself. */
  @IfThere() @IsArray() @ArrayMaxSize(MOST_BOOKS) books?: unknown[];
  @IfThere() @IsArray() @ArrayMaxSize(MOST_PICTURES) pictures?: unknown[];
  @IfThere() @IsObject() @Nested(() => ClimateShape) climate?: ClimateShape;
  @IfThere() @IsObject() @Nested(() => SupplyShape) supply?: SupplyShape;
  @IsString() activeOption!: string;
  @IsArray() @ArrayNotEmpty() @ArrayMaxSize(MOST_OPTIONS) @Nested(() => OptionShape, { each: true }) options!: OptionShape[];
}
