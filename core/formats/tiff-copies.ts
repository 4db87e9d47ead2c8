// The smaller copies of a picture that a TIFF may hold.
import { type Tiff, hasSmallBlocks } from './geotiff.ts';
import type { Image } from './tiff-place.ts';

/** Pictures looked at in one file: the smaller copies it may be kept in. */
const MOST_PICTURES = 12;
/** Mask of the new subfile type: a picture of what is seen, not of levels or colours (TIFF 6.0 section 8, NewSubfileType). */
const IS_MASK = 4;

/** The smallest copy of a picture in its file whose longer side is still so long; itself where there is none. */
export async function smallerOf(tiff: Tiff, image: Image, leastSide: number): Promise<Image> {
  const shape = image.getWidth() / image.getHeight();
  let best = image;
  const count = Math.min(MOST_PICTURES, await tiff.getImageCount().catch(() => 1));
  for (let k = 1; k < count; k++) {
    const one = await tiff.getImage(k).catch(() => null);
    if (!one) break;
    const [wide, high] = [one.getWidth(), one.getHeight()];
    const type: unknown = one.fileDirectory.getValue('NewSubfileType');
    const isCopy = Math.abs(wide / high / shape - 1) < 0.05 && one.getSamplesPerPixel() === image.getSamplesPerPixel();
    const isMask = typeof type === 'number' && (type & IS_MASK) !== 0;
    if (isCopy && !isMask && hasSmallBlocks(one) && Math.max(wide, high) >= leastSide && wide < best.getWidth()) best = one;
  }
  return best;
}
