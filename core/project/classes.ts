// Shapes a project file must have. They guard the edge only: what passes goes on as the plain data it was.
import 'reflect-metadata';
import { Type } from 'class-transformer';
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
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import { WORK_STATUSES } from '../contract/index.ts';
import { COVERS, SOIL_GROUPS } from '../ground/index.ts';
import { HOLLOW_WAYS, PROJECT_FORMAT, PROJECT_VERSION } from './model.ts';

const isPoint = (v: unknown): boolean => Array.isArray(v) && v.length === 2 && v.every((n) => typeof n === 'number' && Number.isFinite(n));

function IsPoint(): PropertyDecorator {
  return ValidateBy({
    name: 'isPoint',
    validator: { validate: isPoint, defaultMessage: () => '$property must be [x, y], two numbers in metres' },
  });
}

function IsRing(least: number, options?: ValidationOptions): PropertyDecorator {
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

function IsStretches(): PropertyDecorator {
  return ValidateBy({
    name: 'isStretches',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && v.every(isPoint),
      defaultMessage: () => '$property must be a list of [from, to] distances in metres',
    },
  });
}

const isFiniteNumber = { allowNaN: false, allowInfinity: false };

export class SiteShape {
  @ValidateIf((o: SiteShape) => o.crs !== null) @IsString() crs!: string | null;
  @IsRing(0) outline!: unknown;
  @IsNumber(isFiniteNumber) zeroLevelM!: number;
}

export class PinShape {
  @IsString() @IsNotEmpty() id!: string;
  @IsPoint() at!: unknown;
}

export class FeatureShape {
  @IsString() @IsNotEmpty() id!: string;
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
  @IsNumber(isFiniteNumber) @Min(1) @Max(10080) durationMin!: number;
}

export class RainShape {
  @ValidateNested() @Type(() => RainTableShape) @IsObject() table!: RainTableShape;
  @ValidateNested() @Type(() => StormShape) @IsObject() storm!: StormShape;
}

export class GroundShape {
  @IsIn(SOIL_GROUPS) soilGroup!: string;
  @IsIn(COVERS.map((c) => c.id)) cover!: string;
  @ValidateIf((o: GroundShape) => o.curveNumber !== null && o.curveNumber !== undefined)
  @IsNumber(isFiniteNumber)
  @Min(1)
  @Max(100)
  curveNumber!: number | null;
  @ValidateIf((o: GroundShape) => o.runoffC !== null && o.runoffC !== undefined) @IsNumber(isFiniteNumber) @Min(0) @Max(1) runoffC!:
    number | null;
  @IsNumber(isFiniteNumber) @Min(0) @Max(5000) infiltrationMmPerHour!: number;
  @IsNumber(isFiniteNumber) @Min(0) @Max(100) soilDepthM!: number;
}

export class SurveyShape {
  @ValidateIf((o: SurveyShape) => o.heightOfCollimationM !== null) @IsNumber(isFiniteNumber) heightOfCollimationM!: number | null;
  @IsNumber(isFiniteNumber) @Min(0.5) @Max(1000) pegIntervalM!: number;
}

/** What all works share; the rest is judged by the work's own technique. */
export class WorkShape {
  @IsString() @IsNotEmpty() id!: string;
  @IsString() @IsNotEmpty() kind!: string;
  @IsString() name!: string;
  @IsIn(WORK_STATUSES) status!: string;
}

export class OptionShape {
  @IsString() @IsNotEmpty() id!: string;
  @IsString() name!: string;
  @IsArray() @ValidateNested({ each: true }) @Type(() => WorkShape) works!: WorkShape[];
}

export class ProjectShape {
  @Equals(PROJECT_FORMAT) format!: string;
  @Equals(PROJECT_VERSION) version!: number;
  @IsString() @IsNotEmpty() id!: string;
  @IsString() name!: string;
  @ValidateNested() @Type(() => SiteShape) @IsObject() site!: SiteShape;
  @IsArray() @ValidateNested({ each: true }) @Type(() => PinShape) pins!: PinShape[];
  @Allow() terrain!: unknown;
  @IsArray() @ValidateNested({ each: true }) @Type(() => FeatureShape) features!: FeatureShape[];
  @IsOptional() @ValidateNested() @Type(() => LandShape) land?: LandShape;
  @IsOptional() @ValidateNested() @Type(() => RainShape) rain!: RainShape | null;
  @IsOptional() @ValidateNested() @Type(() => GroundShape) ground!: GroundShape | null;
  @IsOptional() @ValidateNested() @Type(() => SurveyShape) survey?: SurveyShape;
  @IsString() activeOption!: string;
  @IsArray() @ArrayNotEmpty() @ValidateNested({ each: true }) @Type(() => OptionShape) options!: OptionShape[];
}
