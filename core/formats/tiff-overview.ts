// A GeoTIFF looked over before it is brought in: small enough to be shown, so that a band and a part of it can be chosen.
import { UserError } from '../project/index.ts';
import { type Cells, type Part, extentOfCells } from '../terrain/index.ts';
import { type Point, distance } from '../geometry/index.ts';
import { fromLonLat, requireCrs, utmCodeFor } from './crs.ts';
import { bandOf, blocksOf, factorIn, feetOf, openTiff, truncated } from './geotiff.ts';
import { hasSoundJpegs } from './jpeg-guard.ts';
import { gridIn, isTiff } from './import-file.ts';
import { type InputFile, refuseFile } from './imported.ts';
import { isNoDataMark } from './levels.ts';
import { DEGREES, type Foreign } from './systems.ts';
import { smallerOf } from './tiff-copies.ts';
import { type Image, cellsOf, isInDegrees } from './tiff-place.ts';

/** Most columns and rows it is shown in. */
const MOST_SIDE = 360;

export interface Overview {
  readonly ncols: number;
  readonly nrows: number;
  /** Levels as the file tells them, from the north; NaN where there are none. */
  readonly levels: Float32Array;
  /** What each band is called; empty where it is not named. */
  readonly bands: readonly string[];
  /** The band shown, from 1. */
  readonly band: number;
  /** All cells of the file, in its own coordinates. */
  readonly cells: Cells;
  readonly isDegrees: boolean;
  /** How many metres on the ground one of its own units is, east and north at its middle. */
  readonly metresPer: readonly [east: number, north: number];
}

/** A GeoTIFF, alone or in a zip. @throws UserError where it is none, or cannot be read. */
export async function overviewOf(...on: Parameters<typeof lookedOver>): Promise<Overview> {
  try {
    return await lookedOver(...on);
  } catch (error) {
    if (error instanceof UserError) throw error;
    return refuseFile(on[0].name, 'geotiff.unreadable', {
      what: 'its keys or its picture cannot be read',
      do: 'Download or export it again.',
    });
  }
}

/** What a band of levels is likely called. */
const LEVELS_NAMED = /elev|height|level|altitude|\b(dem|dtm)\b/i;

/** What is looked over: a band, or where none is said the one whose name speaks of levels, else the first. */
interface LookHow {
  readonly band?: number | undefined;
  readonly report?: (share: number) => void;
}

async function lookedOver(file: InputFile, { band, report = () => undefined }: LookHow = {}): Promise<Overview> {
  const inner = isTiff(file.bytes) || !/\.zip$/i.test(file.name) ? file : (await gridIn(file))?.inner;
  if (!inner || !isTiff(inner.bytes)) return refuseFile(file.name, 'geotiff.none', { what: 'it is no GeoTIFF', do: 'Choose a GeoTIFF.' });
  const { tiff, image } = await openTiff(inner);
  const cells = await cellsOf(image, inner.name);
  blocksOf(image, inner.name);
  const count = image.getSamplesPerPixel();
  const bands: string[] = [];
  // One after the other: asked for at once, all but the first come without.
  for (let k = 0; k < count; k++) bands.push(await nameOf(image, k));
  const likely = Math.max(
    0,
    bands.findIndex((name) => LEVELS_NAMED.test(name)),
  );
  const k = band === undefined ? likely : bandOf(image, band, inner.name);
  const isDegrees = isInDegrees(image);
  const foreign = isDegrees ? DEGREES : await feetOf(image, inner.name);
  const shown = await smallerOf(tiff, image, MOST_SIDE);
  if (!(await hasSoundJpegs(shown, inner.bytes))) truncated(inner.name);
  return {
    ...(await thinned(shown, { of: image, band: k, name: inner.name, report })),
    bands,
    band: k + 1,
    cells,
    isDegrees,
    metresPer: foreign ? await metresIn(foreign, extentOfCells(cells)) : [1, 1],
  };
}

/** How many metres one unit of a system is, east and north at the middle of a part. */
async function metresIn({ toLonLat }: Foreign, { west, south, east, north }: Part): Promise<Overview['metresPer']> {
  const [x, y] = [(west + east) / 2, (south + north) / 2];
  const crs = await requireCrs(utmCodeFor(toLonLat([x, y])), 'the picture');
  const [wide, high] = [(east - west) / 100, (north - south) / 100];
  const lies = (place: Point): Point => fromLonLat(crs, toLonLat(place));
  return [distance(lies([x - wide, y]), lies([x + wide, y])) / (2 * wide), distance(lies([x, y - high]), lies([x, y + high])) / (2 * high)];
}

async function nameOf(image: Image, band: number): Promise<string> {
  const told = await image.getGDALMetadata(band);
  return typeof told?.DESCRIPTION === 'string' ? told.DESCRIPTION.slice(0, 60) : '';
}

/** Every so-manieth level of a picture, unpacked block by block: never more than one is held. */
async function thinned(
  image: Image,
  {
    of,
    band,
    name,
    report,
  }: { readonly of: Image; readonly band: number; readonly name: string; readonly report: (share: number) => void },
): Promise<Pick<Overview, 'ncols' | 'nrows' | 'levels'>> {
  const [wide, high] = [image.getWidth(), image.getHeight()];
  const step = Math.max(1, Math.ceil(Math.max(wide, high) / MOST_SIDE));
  const [ncols, nrows] = [Math.ceil(wide / step), Math.ceil(high / step)];
  const levels = new Float32Array(ncols * nrows).fill(NaN);
  // A smaller copy says nothing of its own on how its numbers are turned into levels.
  const told = (await of.getGDALMetadata(band)) ?? {};
  const [mark, scale, offset] = [of.getGDALNoData(), factorIn(told.SCALE, 1), factorIn(told.OFFSET, 0)];
  // The middle one of each so many.
  const half = Math.floor(step / 2);
  const shown = (count: number, whole: number): number[] => Array.from({ length: count }, (_, k) => Math.min(whole - 1, k * step + half));
  const [allRows, allCols] = [shown(nrows, high), shown(ncols, wide)];
  const within = (places: readonly number[], from: number, long: number): number[] => places.filter((at) => at >= from && at < from + long);
  const [blockW, blockH] = [Math.min(wide, image.getTileWidth()), Math.min(high, image.getTileHeight())];
  try {
    for (let row = 0; row < high; row += blockH) {
      report(row / high);
      const rows = within(allRows, row, blockH);
      for (let col = 0; rows.length > 0 && col < wide; col += blockW) {
        const cols = within(allCols, col, blockW);
        if (cols.length === 0) continue;
        // Of a strip that is one block only the rows that are shown are asked for.
        const window = [cols[0], rows[0], cols[cols.length - 1] + 1, rows[rows.length - 1] + 1];
        const [read] = (await image.readRasters({ samples: [band], window })) as unknown as ArrayLike<number>[];
        const across = window[2] - window[0];
        for (const r of rows)
          for (const c of cols) {
            const value = read[(r - window[1]) * across + (c - window[0])];
            levels[Math.floor(r / step) * ncols + Math.floor(c / step)] = isNoDataMark(value, mark) ? NaN : value * scale + offset;
          }
      }
    }
  } catch {
    return truncated(name);
  }
  return { ncols, nrows, levels };
}
