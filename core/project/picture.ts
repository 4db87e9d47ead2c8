// Pictures that lie under the plan: photographs, scans and sketches. Nothing is worked out from them.
import { type Laying, type Pinned, layingBy } from '../geometry/index.ts';

export const PICTURE_KINDS = ['image/png', 'image/jpeg'] as const;
export type PictureKind = (typeof PICTURE_KINDS)[number];

/** Endings of files of pictures, and of those beside them that say where they lie. */
export const PICTURE_ENDINGS = ['png', 'jpg', 'jpeg'] as const;
export const WORLD_ENDINGS = ['pgw', 'pngw', 'jgw', 'jpgw', 'jpegw', 'tfw', 'tifw', 'tiffw', 'wld'] as const;

export const MOST_PICTURES = 20;
export const MOST_PICTURE_PINS = 4;
/** Sides of a picture [px], and all of it: more is too much for a page to hold. */
export const [MOST_SIDE_PX, MOST_PX] = [20_000, 60e6];

export interface Picture {
  readonly id: string;
  readonly name: string;
  /** Its file, as an asset. */
  readonly sha256: string;
  readonly kind: PictureKind;
  readonly widthPx: number;
  readonly heightPx: number;
  /** The file it came in, for people. */
  readonly source: string;
  /** Where it lies by its file's word; null where that says nothing. */
  readonly laying: Laying | null;
  /** Places of it the user found on the ground: two or more say where it lies, whatever its file says. */
  readonly pins?: readonly Pinned[];
  readonly opacityPercent: number;
  readonly isHidden?: true;
}

/** Where a picture lies: by its pins, else by its file; null while nobody knows. */
export const layingOf = ({ laying, pins = [] }: Picture): Laying | null => (pins.length >= 2 ? layingBy(pins) : laying);
