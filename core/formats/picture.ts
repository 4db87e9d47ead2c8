// Pictures that lie under the plan: PNG and JPEG with a world file beside them, or with nothing: then somebody must pin them.
import { imageSize } from 'image-size';
import { type Laying, type Pinned, type Point, laidAt, layingThrough } from '../geometry/index.ts';
import { MOST_PX, MOST_SIDE_PX, type PictureKind } from '../project/index.ts';
import { type Crs, fromLonLat, requireCrs, toLonLat, utmCodeFor } from './crs.ts';
import { looksLikeDegrees } from './grid-limits.ts';
import { type ImportedPicture, type InputFile, refuseFile } from './imported.ts';
import { DEGREES, type Foreign, systemOfPrj } from './systems.ts';
import { textOf } from './text.ts';

const KINDS: Readonly<Record<string, PictureKind>> = { png: 'image/png', jpg: 'image/jpeg' };

/** Endings of pictures, and of the files beside them that say where they lie. */
export const PICTURE_ENDING = /\.(png|jpe?g)$/i;
export const WORLD_ENDING = /\.(pgw|pngw|jgw|jpgw|jpegw|wld)$/i;

/** A turn a camera wrote down would be made by some viewers and not by others. */
const UPRIGHT = 1;

export interface Size {
  readonly kind: PictureKind;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** @throws UserError where it is no picture that is read, or too large a one. */
function sizeOf({ name, bytes }: InputFile): Size {
  const broken = { what: 'it is no PNG or JPEG picture, or it is cut short', do: 'Export it again as PNG or JPEG.' };
  const read = ((): ReturnType<typeof imageSize> | null => {
    try {
      return imageSize(bytes);
    } catch {
      return null;
    }
  })();
  const kind = read && KINDS[read.type ?? ''];
  if (!read || !kind || !(read.width > 0 && read.height > 0)) return refuseFile(name, 'picture.unreadable', broken);
  const { width: widthPx, height: heightPx, orientation = UPRIGHT } = read;
  if (Math.max(widthPx, heightPx) > MOST_SIDE_PX || widthPx * heightPx > MOST_PX)
    refuseFile(name, 'picture.too-big', {
      what: `it has ${widthPx} by ${heightPx} pixels; the limit is ${MOST_PX / 1e6} million`,
      do: 'Save it smaller, or only the part over your land.',
    });
  if (orientation !== UPRIGHT)
    refuseFile(name, 'picture.turned', {
      what: 'it is kept on its side, with a note to turn it',
      do: 'Turn it in a picture editor and save it, so that all programs show it alike.',
    });
  return { kind, widthPx, heightPx };
}

/** The six numbers of a world file, told of the corner of the first pixel rather than of its middle. @throws UserError where they are none. */
function worldIn(text: string, file: string): Laying {
  const numbers = text
    .trim()
    .split(/\s+/)
    .map((word) => Number(word.replace(',', '.')));
  if (numbers.length !== 6 || !numbers.every(Number.isFinite))
    refuseFile(file, 'world.numbers', {
      what: `it holds ${numbers.length} words, not six numbers: across, two turns, down, and the place of the first pixel`,
      do: 'Export the picture again with its world file.',
    });
  const [a, d, b, e, x, y] = numbers;
  if (a * e - b * d === 0)
    refuseFile(file, 'world.flat', { what: 'its pixels cover no ground', do: 'Export the picture again with its world file.' });
  return [a, b, x - (a + b) / 2, d, e, y - (d + e) / 2];
}

/** The corners of a picture, one after the other. */
const cornersOf = ({ widthPx, heightPx }: Size): readonly [Point, Point, Point, Point] => [
  [0, 0],
  [widthPx, 0],
  [0, heightPx],
  [widthPx, heightPx],
];

/** How far a picture in another system may come to lie off, for being laid flat as a whole [m], before it is told, and before it is refused. */
const [TOLD_OFF_M, MOST_OFF_M] = [0.05, 2];

/** Lays a picture that lies in another system flat by three of its corners, and says how far the fourth and its middle are off. */
async function laidFlatBy(
  own: Laying,
  size: Size,
  on: { readonly from: Foreign; readonly wanted: string | null; readonly file: string },
): Promise<{ readonly laying: Laying; readonly crs: string; readonly notes: readonly string[] }> {
  const { from, wanted, file } = on;
  const lost = (): never =>
    refuseFile(file, 'picture.nowhere', { what: `its corners lie nowhere in ${from.said}`, do: 'Check its world file and its system, or pin it by points.' });
  const lonLats = cornersOf(size).map((px) => from.toLonLat(laidAt(own, px)));
  if (!lonLats.every(([lon, lat]) => Math.abs(lon) <= 180 && Math.abs(lat) <= 84)) lost();
  const centre: Point = [size.widthPx / 2, size.heightPx / 2];
  const middle = from.toLonLat(laidAt(own, centre));
  const crs = await requireCrs(wanted ?? utmCodeFor(middle), file);
  const pins = cornersOf(size).map((px, k): Pinned => ({ px, at: fromLonLat(crs, lonLats[k] as [number, number]) }));
  const laying = layingThrough([pins[0], pins[1], pins[2]]) ?? lost();
  const offBy = (px: Point, [x, y]: Point): number => Math.hypot(laidAt(laying, px)[0] - x, laidAt(laying, px)[1] - y);
  const offM = Math.max(offBy(pins[3].px, pins[3].at), offBy(centre, fromLonLat(crs, middle)));
  if (!(offM <= MOST_OFF_M))
    refuseFile(file, 'picture.wide', {
      what: `laid flat in ${crs.code} as a whole it would lie ${Math.round(offM)} m off in places`,
      do: 'Save only the part over your land, or warp it to the system of your ground.',
    });
  const note = `Its ${from.said} were laid flat in ${crs.code} (${crs.name})${offM > TOLD_OFF_M ? `, up to ${offM.toFixed(1)} m off` : ''}.`;
  return { laying, crs: crs.code, notes: [note] };
} // prettier-ignore

interface Parts {
  readonly world: InputFile | null;
  readonly prj: Uint8Array | null;
}

/** A known system as one that others are turned into. */
const asForeign = (crs: Crs): Foreign => ({
  said: `places in ${crs.code}`,
  isDegrees: false,
  toLonLat: (place) => toLonLat(crs, place),
  fromLonLat: ([lon, lat]) => fromLonLat(crs, [lon, lat]),
});

/** Where a picture lies by the files beside it. */
async function placed(
  { world, prj }: Parts,
  size: Size,
  wanted: string | null,
): Promise<Pick<ImportedPicture, 'laying' | 'crs' | 'notes'>> {
  if (!world) return { laying: null, crs: null, notes: ['It does not say where it lies: pin it by places you know.'] };
  const own = worldIn(textOf(world.bytes), world.name);
  const [a, b, west, , , north] = own;
  // Small numbers are degrees where the land lies in a system whose numbers are large.
  const isDegrees = !prj && wanted !== null && looksLikeDegrees({ cell: Math.max(Math.abs(a), Math.abs(b)), west, south: north });
  const said = prj ? await systemOfPrj(textOf(prj), world.name) : isDegrees ? { from: DEGREES } : null;
  if (!said) {
    const taken = wanted === null ? 'as local metres' : `in ${wanted}`;
    return { laying: own, crs: wanted, notes: [`Its world file names no system: its numbers are taken as metres, ${taken}.`] };
  }
  return lyingIn(own, size, { system: said, wanted, file: world.name });
}

/** What lies in a system, in the one wanted. */
export async function lyingIn(
  own: Laying,
  size: Size,
  on: { readonly system: { readonly crs: Crs } | { readonly from: Foreign }; readonly wanted: string | null; readonly file: string },
): Promise<Pick<ImportedPicture, 'laying' | 'crs' | 'notes'>> {
  const { system, wanted, file } = on;
  if ('crs' in system && (wanted === null || wanted === system.crs.code)) return { laying: own, crs: system.crs.code, notes: [] };
  const from = 'crs' in system ? asForeign(system.crs) : system.from;
  return laidFlatBy(own, size, { from, wanted, file });
}

/** A picture with what lies beside it. @throws UserError saying what is wrong with which of them. */
export async function readPicture(file: InputFile, parts: Parts, wanted: string | null): Promise<ImportedPicture> {
  const size = sizeOf(file);
  return { kind: 'picture', picture: { ...size, bytes: file.bytes }, source: file.name, ...(await placed(parts, size, wanted)) };
}
