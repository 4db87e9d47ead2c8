import type { Grid } from '../terrain/index.ts';
import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M, MAX_CELLS, MAX_CELL_M } from '../terrain/index.ts';
import { hashOf } from './canonical.ts';
import { fail } from './problem.ts';

// Layout, little endian: magic, version, columns, rows (uint32), then cell, west, south, base (float64), then Float32 levels.
const MAGIC = 0x474c544f; // "OTLG"
const VERSION = 1;
const HEADER_BYTES = 48;

/** A grid as the bytes of an asset. */
export function gridToBytes(grid: Grid): Uint8Array {
  const bytes = new Uint8Array(HEADER_BYTES + 4 * grid.z.length);
  const view = new DataView(bytes.buffer);
  [MAGIC, VERSION, grid.ncols, grid.nrows].forEach((v, i) => view.setUint32(4 * i, v, true));
  [grid.cellM, grid.west, grid.south, grid.baseM].forEach((v, i) => view.setFloat64(16 + 8 * i, v, true));
  new Float32Array(bytes.buffer, HEADER_BYTES).set(grid.z);
  return bytes;
}

/** The grid of an asset's bytes. @throws UserError when they are not one, or damaged. */
export function gridFromBytes(bytes: Uint8Array, name = 'terrain asset'): Grid {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const bad = (what: string): never =>
    fail('asset.damaged', `${name}: ${what}`, {
      where: { file: name },
      do: 'Open an earlier copy of the project, or import the terrain again.',
    });
  if (bytes.byteLength < HEADER_BYTES || view.getUint32(0, true) !== MAGIC) bad('this is not a terrain asset');
  if (view.getUint32(4, true) !== VERSION) bad(`terrain asset version ${view.getUint32(4, true)} is newer than this app knows`);
  const [ncols, nrows] = [view.getUint32(8, true), view.getUint32(12, true)];
  const n = ncols * nrows;
  if (n === 0 || n > MAX_CELLS || bytes.byteLength !== HEADER_BYTES + 4 * n)
    bad(`it should hold ${ncols} x ${nrows} cells but has ${bytes.byteLength} bytes`);
  const cellM = view.getFloat64(16, true);
  if (!(cellM > 0 && cellM <= MAX_CELL_M)) bad(`its cells are ${cellM} m`);
  const [west, south, baseM] = [24, 32, 40].map((at) => view.getFloat64(at, true));
  if (![west, south, baseM].every(Number.isFinite)) bad('it does not say where it lies');
  const z = new Float32Array(bytes.slice(HEADER_BYTES).buffer);
  // What no ground can have was a mark for no data when it came in.
  for (let i = 0; i < n; i++) if (!(z[i] + baseM >= LEVEL_LOWEST_M && z[i] + baseM <= LEVEL_HIGHEST_M)) z[i] = NaN;
  return { ncols, nrows, z, cellM, west, south, baseM };
}

/** The name of an asset. */
export function assetName(bytes: Uint8Array): string {
  return hashOf(bytes);
}
