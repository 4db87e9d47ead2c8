// What lies beside a TIFF and says where it is: a world file and a .prj, written into it as the tags it would have of its own.
import { type InputFile, refuseFile } from './imported.ts';
import { systemOfPrj } from './systems.ts';
import { textOf } from './text.ts';
import { tiffFault } from './tiff-guard.ts';
import { worldIn } from './world-file.ts';

export interface Beside {
  readonly world: InputFile | null;
  readonly prj: Uint8Array | null;
}

/** A tag of doubles or of shorts (TIFF 6.0, section 2: types 12 and 3). */
interface Tag {
  readonly id: number;
  readonly type: 3 | 12;
  readonly values: readonly number[];
}

// GeoTIFF 1.1 (OGC 19-008r4, section 7): scale, tie point, matrix, keys; among these raster type 2 pixel-is-point.
const [SCALE, TIE, MATRIX, KEYS] = [33550, 33922, 34264, 34735];
const [RASTER_TYPE, PIXEL_IS_POINT] = [1025, 2];
const WGS84 = 4326;
const [HEAD, STEP] = [2, 12];

/** Tags by their numbers, as twelve bytes each, and where they stand. */
function tagsOf(bytes: Uint8Array): {
  readonly isLittle: boolean;
  readonly entries: ReadonlyMap<number, Uint8Array>;
  readonly next: number;
} {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const isLittle = bytes[0] === 0x49;
  const start = view.getUint32(4, isLittle);
  const count = view.getUint16(start, isLittle);
  const entries = new Map<number, Uint8Array>();
  for (let i = 0; i < count; i++) {
    const at = start + HEAD + i * STEP;
    entries.set(view.getUint16(at, isLittle), bytes.slice(at, at + STEP));
  }
  const after = start + HEAD + count * STEP;
  return { isLittle, entries, next: after + 4 <= bytes.length ? view.getUint32(after, isLittle) : 0 };
}

/** The file with more tags in its first directory, which then stands at its end. */
function withTags(bytes: Uint8Array, more: readonly Tag[]): Uint8Array {
  const { isLittle, entries, next } = tagsOf(bytes);
  const ids = [...new Set([...entries.keys(), ...more.map((t) => t.id)])].sort((a, b) => a - b);
  const start = bytes.length + (bytes.length % 2);
  let free = start + HEAD + ids.length * STEP + 4;
  const out = new Uint8Array(free + more.reduce((sum, t) => sum + t.values.length * 8, 0));
  out.set(bytes);
  const view = new DataView(out.buffer);
  view.setUint32(4, start, isLittle);
  view.setUint16(start, ids.length, isLittle);
  ids.forEach((id, i) => {
    const at = start + HEAD + i * STEP;
    const tag = more.find((t) => t.id === id);
    const own = entries.get(id);
    if (!tag) {
      if (own) out.set(own, at);
      return;
    }
    view.setUint16(at, id, isLittle);
    view.setUint16(at + 2, tag.type, isLittle);
    view.setUint32(at + 4, tag.values.length, isLittle);
    view.setUint32(at + 8, free, isLittle);
    for (const value of tag.values) {
      if (tag.type === 3) view.setUint16(free, value, isLittle);
      else view.setFloat64(free, value, isLittle);
      free += tag.type === 3 ? 2 : 8;
    }
  });
  view.setUint32(start + HEAD + ids.length * STEP, next, isLittle);
  return out;
}

/** Whether its keys say that places are the middles of its cells. */
function isPoint(bytes: Uint8Array, { isLittle, entries }: ReturnType<typeof tagsOf>): boolean {
  const own = entries.get(KEYS);
  if (!own) return false;
  const entry = new DataView(own.buffer, own.byteOffset);
  const [count, at] = [entry.getUint32(4, isLittle), entry.getUint32(8, isLittle)];
  // Two shorts and fewer stand in the tag itself, and are no keys.
  if (count < 4) return false;
  const keys = new DataView(bytes.buffer, bytes.byteOffset + at, 2 * count);
  for (let k = 4; k + 3 < count; k += 4)
    if (keys.getUint16(2 * k, isLittle) === RASTER_TYPE) return keys.getUint16(2 * (k + 3), isLittle) === PIXEL_IS_POINT;
  return false;
}

/** Where a world file lays it, as tags: a scale and a tie point where it stands north up, else a matrix. */
function placeTags({ name, bytes }: InputFile, isOfMiddles: boolean): Tag[] {
  const [a, b, cornerX, d, e, cornerY] = worldIn(textOf(bytes), name);
  const half = isOfMiddles ? 0.5 : 0;
  const [x, y] = [cornerX + half * (a + b), cornerY + half * (d + e)];
  if (b === 0 && d === 0 && a > 0 && e < 0)
    return [
      { id: SCALE, type: 12, values: [a, -e, 0] },
      { id: TIE, type: 12, values: [0, 0, 0, x, y, 0] },
    ];
  return [{ id: MATRIX, type: 12, values: [a, b, 0, x, d, e, 0, y, 0, 0, 0, 0, 0, 0, 0, 1] }];
}

/** The system a .prj names, as keys. @throws UserError where it is none that can be written so. */
async function keyTags(prj: Uint8Array, name: string): Promise<Tag[]> {
  const system = await systemOfPrj(textOf(prj), name);
  if ('crs' in system) {
    const code = Number(/\d+$/.exec(system.crs.code)?.[0]);
    return [{ id: KEYS, type: 3, values: [1, 1, 0, 3, 1024, 0, 1, 1, 1025, 0, 1, 1, 3072, 0, 1, code] }];
  }
  if (system.from.isDegrees) return [{ id: KEYS, type: 3, values: [1, 1, 0, 3, 1024, 0, 1, 2, 1025, 0, 1, 1, 2048, 0, 1, WGS84] }];
  return refuseFile(name, 'prj.tiff', {
    what: `its .prj says ${system.from.said}, and the TIFF names no system of its own`,
    do: 'Export it as a GeoTIFF that names its system, or convert it to metres.',
  });
}

/**
 * A TIFF with what lies beside it written into it; what it says itself goes before. Its numbers stay as they are.
 * @throws UserError where what lies beside it cannot be used.
 */
export async function withBeside(file: InputFile, { world, prj }: Beside): Promise<InputFile> {
  // What is no TIFF that holds together is told by who reads it.
  if ((!world && !prj) || tiffFault(file.bytes) !== null) return file;
  if (file.bytes[file.bytes[0] === 0x49 ? 2 : 3] === 43) {
    return refuseFile(file.name, 'geotiff.large', {
      what: 'it is of the form for files over 4 GB, to which nothing that lies beside it is added',
      do: 'Export it as a GeoTIFF with its position.',
    });
  }
  const tags = tagsOf(file.bytes);
  const { entries } = tags;
  const isPlaced = entries.has(MATRIX) || entries.has(TIE);
  const more = [
    ...(world && !isPlaced ? placeTags(world, isPoint(file.bytes, tags)) : []),
    ...(prj && !entries.has(KEYS) ? await keyTags(prj, file.name) : []),
  ];
  return more.length > 0 ? { name: file.name, bytes: withTags(file.bytes, more) } : file;
}
