// Pictures that lie under the plan: PNG and JPEG with a world file beside them, or with nothing: then somebody must pin them.
import { imageSize } from 'image-size';
import { type Laying, type Pinned, type Point, cornersOf, laidAt, layingThrough, offsOf } from '../geometry/index.ts';
import { MOST_PX, MOST_SIDE_PX, type PictureKind } from '../project/index.ts';
import { type Crs, fromLonLat, requireCrs, toLonLat, utmCodeFor } from './crs.ts';
import { looksLikeDegrees } from './grid-limits.ts';
import { type ImportedPicture, type InputFile, refuseFile } from './imported.ts';
import { DEGREES, type Foreign, systemOfPrj } from './systems.ts';
import { textOf } from './text.ts';
import { worldIn } from './world-file.ts';

const KINDS: Readonly<Record<string, PictureKind>> = { png: 'image/png', jpg: 'image/jpeg' };

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

/** How far a picture in another system may come to lie off, for being laid flat as a whole [m], before it is told, and before it is refused. */
const [TOLD_OFF_M, MOST_OFF_M] = [0.05, 2];

/** Where a picture lies, and in which system. */
type Lies = Pick<ImportedPicture, 'laying' | 'crs' | 'notes'>;

/** Lays a picture that lies in another system flat by three of its corners, and says how far the fourth and its middle are off. */
async function laidFlatBy(own: Laying, size: Size, on: { readonly from: Foreign; readonly wanted: string | null; readonly file: string }): Promise<Lies> {
  const { from, wanted, file } = on;
  const lost = (): never =>
    refuseFile(file, 'picture.nowhere', { what: `its corners lie nowhere in ${from.said}`, do: 'Check its world file and its system, or pin it by points.' });
  const centre: Point = [size.widthPx / 2, size.heightPx / 2];
  const places = [...cornersOf(size), centre];
  const lonLats = places.map((px) => from.toLonLat(laidAt(own, px)));
  if (!lonLats.every(([lon, lat]) => Math.abs(lon) <= 180 && Math.abs(lat) <= 84)) lost();
  const crs = await requireCrs(wanted ?? utmCodeFor(lonLats[4]), file);
  const pins = places.map((px, k): Pinned => ({ px, at: fromLonLat(crs, lonLats[k]) }));
  const laying = layingThrough([pins[0], pins[1], pins[2]]) ?? lost();
  const offM = Math.max(...offsOf(laying, pins));
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

/**
 * What lies by six numbers in a system, in the one wanted. Where no system is said small numbers are degrees, if the land lies in a
 * system whose numbers are large; else they are metres, and it is told.
 */
export async function lyingIn(
  own: Laying,
  size: Size,
  on: { readonly system: { readonly crs: Crs } | { readonly from: Foreign } | null; readonly wanted: string | null; readonly file: string },
): Promise<Lies> {
  const { wanted, file } = on;
  const [a, b, west, , , north] = own;
  const isDegrees = wanted !== null && looksLikeDegrees({ cell: Math.max(Math.abs(a), Math.abs(b)), west, south: north });
  const system = on.system ?? (isDegrees ? { from: DEGREES } : null);
  if (!system) {
    const taken = wanted === null ? 'as local metres' : `in ${wanted}`;
    return { laying: own, crs: wanted, notes: [`It names no system: its numbers are taken as metres, ${taken}.`] };
  }
  if ('crs' in system && (wanted === null || wanted === system.crs.code)) return { laying: own, crs: system.crs.code, notes: [] };
  const from = 'crs' in system ? asForeign(system.crs) : system.from;
  return laidFlatBy(own, size, { from, wanted, file });
}

/** Where a picture lies by the files beside it. */
async function placed({ world, prj }: Parts, size: Size, wanted: string | null): Promise<Lies> {
  if (!world) return { laying: null, crs: null, notes: ['It does not say where it lies: pin it by places you know.'] };
  const system = prj ? await systemOfPrj(textOf(prj), world.name) : null;
  return lyingIn(worldIn(textOf(world.bytes), world.name), size, { system, wanted, file: world.name });
}

/** A picture with what lies beside it. @throws UserError saying what is wrong with which of them. */
export async function readPicture(file: InputFile, parts: Parts, wanted: string | null): Promise<ImportedPicture> {
  const size = sizeOf(file);
  return { kind: 'picture', picture: { ...size, bytes: file.bytes }, source: file.name, ...(await placed(parts, size, wanted)) };
}
