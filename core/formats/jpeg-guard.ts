// The blocks of a TIFF that are packed as JPEG, looked through before they are unpacked: one that breaks off, or claims more than its
// block, would keep its reader busy for ever.
import type { Image } from './tiff-place.ts';

// Markers of ITU-T T.81, table B.1.
const [START, END, SCAN, FILL, FIRST_RESTART, LAST_RESTART] = [0xd8, 0xd9, 0xda, 0xff, 0xd0, 0xd7];
/** Frames that are read: baseline, extended and progressive, by Huffman's codes. */
const FRAMES: ReadonlySet<number> = new Set([0xc0, 0xc1, 0xc2]);
/** Lines to be told later, and parts in several sizes. */
const NEVER: ReadonlySet<number> = new Set([0xdc, 0xde, 0xdf, 0xc3, 0xc5, 0xc6, 0xc7, 0xc9, 0xca, 0xcb, 0xcd, 0xce, 0xcf]);
const MOST_SAMPLING = 4;

interface Block {
  readonly width: number;
  readonly height: number;
}

const isRestart = (marker: number): boolean => marker >= FIRST_RESTART && marker <= LAST_RESTART;

/** Whether a frame is one that is read, of its block's size at most. */
function isSoundFrame(segment: Uint8Array, { width, height }: Block): boolean {
  if (segment.length < 8) return false;
  const [precision, rows, columns, parts] = [segment[2], segment[3] * 256 + segment[4], segment[5] * 256 + segment[6], segment[7]];
  if (precision !== 8 || rows < 1 || rows > height || columns < 1 || columns > width) return false;
  if (parts < 1 || parts > 4 || segment.length < 8 + 3 * parts) return false;
  return Array.from({ length: parts }, (_, k) => segment[9 + 3 * k]).every((s) => {
    const [across, down] = [s >> 4, s & 15];
    return across >= 1 && across <= MOST_SAMPLING && down >= 1 && down <= MOST_SAMPLING;
  });
}

/** Where what is coded in a scan ends: at the next marker that is no restart. */
function endOfScan(bytes: Uint8Array, from: number): number {
  for (let i = from; i + 1 < bytes.length; i++) if (bytes[i] === FILL && bytes[i + 1] !== 0 && bytes[i + 1] !== FILL && !isRestart(bytes[i + 1])) return i;
  return bytes.length;
} // prettier-ignore

/** Whether a JPEG holds together from its beginning to its end (ITU-T T.81, annex B), and covers its block at most. */
export function isSoundJpeg(bytes: Uint8Array, block: Block): boolean {
  if (bytes[0] !== FILL || bytes[1] !== START) return false;
  let at = 2;
  while (at + 1 < bytes.length) {
    if (bytes[at] !== FILL) return false;
    const marker = bytes[at + 1];
    if (marker === END) return true;
    if (NEVER.has(marker) || marker === START || isRestart(marker) || marker < 0xc0) return false;
    const length = at + 3 < bytes.length ? bytes[at + 2] * 256 + bytes[at + 3] : 0;
    if (length < 2 || at + 2 + length > bytes.length) return false;
    if (FRAMES.has(marker) && !isSoundFrame(bytes.subarray(at + 2, at + 2 + length), block)) return false;
    at += 2 + length;
    if (marker === SCAN) at = endOfScan(bytes, at);
  }
  return false;
}

/** TIFF's number for JPEG (TIFF technical note 2). */
const JPEG = 7;

/** Whether all blocks of a picture that are JPEG hold together; others are told by who unpacks them. */
export async function hasSoundJpegs(image: Image, bytes: Uint8Array): Promise<boolean> {
  const directory = image.fileDirectory;
  if (directory.getValue('Compression') !== JPEG) return true;
  const kind = directory.hasTag('TileOffsets') ? 'Tile' : 'Strip';
  const list = async (tag: 'Offsets' | 'ByteCounts'): Promise<number[]> => Array.from((await directory.loadValue(`${kind}${tag}`)) as ArrayLike<number>, Number); // prettier-ignore
  const [offsets, counts] = [await list('Offsets'), await list('ByteCounts')];
  const block = { width: image.getTileWidth(), height: image.getTileHeight() };
  const tables: unknown = directory.hasTag('JPEGTables') ? await directory.loadValue('JPEGTables') : null;
  if (tables !== null && !isSoundJpeg(Uint8Array.from(tables as ArrayLike<number>), block)) return false;
  // A block of nothing is one that was never written.
  return offsets.every((from, k) => counts[k] === 0 || isSoundJpeg(bytes.subarray(from, from + (counts[k] ?? 0)), block));
}
