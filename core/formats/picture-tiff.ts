// Photographs and scans kept as GeoTIFF: colours, not levels. They are kept on as PNG, which every browser shows.
import { encode } from 'fast-png';
import { type Laying, fromCorner, pixelAreaM2, withFewer } from '../geometry/index.ts';
import { type OpenTiff, degreesNotes, feetOf, hasSmallBlocks, metresOf } from './geotiff.ts';
import { hasSoundJpegs } from './jpeg-guard.ts';
import { type ImportedPicture, type InputFile, refuseFile } from './imported.ts';
import { lyingIn } from './picture.ts';
import { UserError } from '../project/index.ts';
import { DEGREES } from './systems.ts';
import { smallerOf } from './tiff-copies.ts';
import { type Image, isInDegrees, keysOf } from './tiff-place.ts';

// TIFF 6.0, section 8, PhotometricInterpretation: 2 red, green and blue; 3 a palette; 6 luminance and colour.
const COLOURS: ReadonlySet<unknown> = new Set([2, 3, 6]);
/** The longest side a picture is kept with [px]: on a screen more is not seen, and PNG packs photographs poorly. */
const LONGEST_PX = 4000;
/** As many pixels as are unpacked at once to be made fewer. */
const MOST_UNPACKED_PX = 100e6;

/** Whether a TIFF shows colours of a byte each: a ground of levels is never kept so. */
export function isColourTiff({ image }: OpenTiff): boolean {
  try {
    return COLOURS.has(image.fileDirectory.getValue('PhotometricInterpretation')) && image.getBitsPerSample() === 8;
  } catch {
    // What it is made of cannot be read: told by who reads its levels.
    return false;
  }
}

const unreadable = (file: string): never =>
  refuseFile(file, 'picture.unreadable', {
    what: 'its keys or its colours are cut short, or packed in a way that is not read',
    do: 'Export it again, uncompressed or with deflate or JPEG.',
  });

// GeoTIFF 1.1 (OGC 19-008r4): raster type 2 pixel-is-point.
const PIXEL_IS_POINT = 2;

/** Six numbers as the file says them: of a turned picture by its matrix (row by row, of four), else by its corner and its pixels. */
async function toldBy(image: Image): Promise<Laying> {
  const directory = image.fileDirectory;
  if (directory.hasTag('ModelTransformation')) {
    const m = Array.from((await directory.loadValue('ModelTransformation')) as ArrayLike<number>, Number);
    return [m[0], m[1], m[3], m[4], m[5], m[7]];
  }
  const [x, y] = image.getOrigin();
  const [dx, dy] = image.getResolution();
  return [Math.abs(dx), 0, x, 0, -Math.abs(dy), y];
}

/** How a picture lies by its own word, from the corner of its first pixel. */
async function layingIn(image: Image, file: string): Promise<Laying> {
  try {
    const told = await toldBy(image);
    if (!told.every(Number.isFinite) || pixelAreaM2(told) === 0) throw new RangeError('no place');
    return keysOf(image).GTRasterTypeGeoKey === PIXEL_IS_POINT ? fromCorner(told) : told;
  } catch {
    return refuseFile(file, 'picture.no-position', {
      what: 'it does not say where it lies',
      do: 'Save it as PNG or JPEG, and pin it by places you know.',
    });
  }
}

/** A coloured GeoTIFF as a picture. @throws UserError where it cannot be read, or does not say where it lies: its keys may hold anything. */
export async function readColourTiff(file: InputFile, wanted: string | null, opened: OpenTiff): Promise<ImportedPicture> {
  try {
    return await readColours(file, wanted, opened);
  } catch (error) {
    if (error instanceof UserError) throw error;
    return unreadable(file.name);
  }
}

async function readColours(file: InputFile, wanted: string | null, opened: OpenTiff): Promise<ImportedPicture> {
  const { name } = file;
  const { image } = opened;
  const own = await layingIn(image, name);
  const { system, notes } = await systemIn(image, name, wanted);
  const picture = await pixelsOf(opened, file);
  const { widthPx, heightPx } = picture;
  const [wide, high] = [image.getWidth(), image.getHeight()];
  const lies = await lyingIn(withFewer(own, [wide / widthPx, high / heightPx]), picture, { system, wanted, file: name });
  const fewer = wide > widthPx ? [`It is kept with ${widthPx} by ${heightPx} of its ${wide} by ${high} pixels.`] : [];
  return { kind: 'picture', picture, source: name, ...lies, notes: [...fewer, ...notes, ...lies.notes] };
}

/** The system a file says it lies in, with what is told of it; null where it says none. */
async function systemIn(
  image: Image,
  name: string,
  wanted: string | null,
): Promise<{ readonly system: Parameters<typeof lyingIn>[2]['system']; readonly notes: readonly string[] }> {
  if (isInDegrees(image)) return { system: { from: DEGREES }, notes: degreesNotes(image, name) };
  const from = await feetOf(image, name);
  if (from) return { system: { from }, notes: [] };
  const crs = await metresOf(image, name, wanted);
  return { system: crs && { crs }, notes: [] };
}

/** The colours of a picture, or of the smallest copy in its file that is still fine enough, as PNG. */
async function pixelsOf({ tiff, image }: OpenTiff, file: InputFile): Promise<ImportedPicture['picture']> {
  const [wide, high] = [image.getWidth(), image.getHeight()];
  const shrink = Math.min(1, LONGEST_PX / Math.max(wide, high));
  const [widthPx, heightPx] = [wide, high].map((side) => Math.max(1, Math.round(side * shrink)));
  const from = await smallerOf(tiff, image, Math.max(widthPx, heightPx));
  if (from.getWidth() * from.getHeight() > MOST_UNPACKED_PX)
    refuseFile(file.name, 'picture.too-big', {
      what: `it has ${wide} by ${high} pixels and no smaller copy of itself`,
      do: 'Save it with smaller copies (overviews), or only the part over your land.',
    });
  if (!hasSmallBlocks(from) || !(await hasSoundJpegs(from, file.bytes))) return unreadable(file.name);
  const read = await from.readRGB({ width: widthPx, height: heightPx, interleave: true, enableAlpha: from.getSamplesPerPixel() === 4 });
  const data = Uint8Array.from(read as ArrayLike<number>);
  // What is clear in it lets the ground through.
  const channels = data.length === 4 * widthPx * heightPx ? 4 : 3;
  return { kind: 'image/png', widthPx, heightPx, bytes: encode({ width: widthPx, height: heightPx, data, channels, depth: 8 }) };
}
