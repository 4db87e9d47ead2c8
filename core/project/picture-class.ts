import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsNumber,
  IsString,
  Matches,
  Max,
  Min,
  ValidateBy,
  ValidateIf,
} from 'class-validator';
import { type Laying, pixelAreaM2 } from '../geometry/index.ts';
import { IfThere, IsId, IsPoint, isFiniteNumber } from './members.ts';
import { MOST_PICTURE_PINS, MOST_SIDE_PX, PICTURE_KINDS } from './picture.ts';
import { Nested } from './shape.ts';

/** Ground a pixel may cover [m2]: from a millimetre's square to a square kilometre. */
const [LEAST_PIXEL_M2, MOST_PIXEL_M2] = [1e-6, 1e6];

/** Whether six numbers say how a picture lies, neither turned over nor drawn out to a line. */
function isLaying(v: unknown): boolean {
  if (!Array.isArray(v) || v.length !== 6 || !v.every((n) => typeof n === 'number' && Number.isFinite(n))) return false;
  const area = pixelAreaM2(v as unknown as Laying);
  return area >= LEAST_PIXEL_M2 && area <= MOST_PIXEL_M2;
}

function IsLaying(): PropertyDecorator {
  return ValidateBy({
    name: 'isLaying',
    validator: {
      validate: isLaying,
      defaultMessage: () => '$property must be six numbers by which each pixel covers some ground, or null',
    },
  });
}

class PinnedShape {
  @IsPoint('pixels') px!: unknown;
  @IsPoint() at!: unknown;
}

export class PictureShape {
  @IsId() id!: string;
  @IsString() @IsNotEmpty() name!: string;
  @Matches(/^[0-9a-f]{64}$/, { message: '$property is no sha256 of a picture' }) sha256!: string;
  @IsIn(PICTURE_KINDS) kind!: string;
  @IsInt() @Min(1) @Max(MOST_SIDE_PX) widthPx!: number;
  @IsInt() @Min(1) @Max(MOST_SIDE_PX) heightPx!: number;
  @IsString() source!: string;
  @ValidateIf((o: PictureShape) => o.laying !== null) @IsLaying() laying!: unknown;
  @IfThere() @IsArray() @ArrayMaxSize(MOST_PICTURE_PINS) @Nested(() => PinnedShape, { each: true }) pins?: PinnedShape[];
  @IsNumber(isFiniteNumber) @Min(0) @Max(100) opacityPercent!: number;
  @IfThere() @IsBoolean() isHidden?: boolean;
}
