// What a LAS file says of itself before its points.
import { refuseFile } from './imported.ts';

export interface LasHeader {
  readonly format: number;
  readonly count: number;
  readonly pointAt: number;
  readonly pointBytes: number;
  readonly scale: readonly [x: number, y: number, z: number];
  readonly offset: readonly [x: number, y: number, z: number];
  /** Least and most east, north and up. */
  readonly box: readonly (readonly [least: number, most: number])[];
  readonly records: readonly LasRecord[];
  /** Its system stands in words rather than in keys. */
  readonly isInWords: boolean;
}

/** A record beside the points: whose it is, its number, and where its content stands. */
export interface LasRecord {
  readonly user: string;
  readonly id: number;
  readonly at: number;
  readonly bytes: number;
}

/** Bytes of a header by its version, of a record's own head, and of a point by its format. */
const LEAST_HEADER = 227;
const HEADER_14 = 375;
const RECORD_HEAD = 54;
const POINT_BYTES = [20, 28, 26, 34, 57, 63, 30, 36, 38, 59, 67];
const MOST_RECORDS = 2000;
/** Set on the format of points that are packed; and the record packing leaves. */
const PACKED = 0xc0;
const PACKING = 'laszip encoded';
const IN_WORDS = 0x10;

const spoilt = (file: string, why: string): never => refuseFile(file, 'las.spoilt', { what: `it is no LAS point cloud that holds together: ${why}`, do: 'Download or export it again.' }); // prettier-ignore

function recordsIn(bytes: Uint8Array, view: DataView, on: { readonly from: number; readonly count: number; readonly file: string }): readonly LasRecord[] {
  const { from, count, file } = on;
  const records: LasRecord[] = [];
  let at = from;
  for (let k = 0; k < count; k++) {
    if (at + RECORD_HEAD > bytes.length) return spoilt(file, 'a record before its points is cut short');
    const user = String.fromCharCode(...bytes.subarray(at + 2, at + 18)).replace(/\0.*$/s, '');
    const length = view.getUint16(at + 20, true);
    records.push({ user, id: view.getUint16(at + 18, true), at: at + RECORD_HEAD, bytes: length });
    at += RECORD_HEAD + length;
    if (at > bytes.length) return spoilt(file, 'a record before its points is cut short');
  }
  return records;
} // prettier-ignore

/** @throws UserError where it is none, is packed, or claims more than the file holds. */
export function lasHeader(bytes: Uint8Array, file: string): LasHeader {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < LEAST_HEADER || String.fromCharCode(...bytes.subarray(0, 4)) !== 'LASF') return spoilt(file, 'it does not begin as one');
  const [major, minor] = [view.getUint8(24), view.getUint8(25)];
  if (major !== 1 || minor > 4) return spoilt(file, `version ${major}.${minor} is none that is known`);
  const is14 = minor === 4;
  const headerBytes = view.getUint16(94, true);
  if (headerBytes < (is14 ? HEADER_14 : LEAST_HEADER) || headerBytes > bytes.length) return spoilt(file, 'its header is cut short');
  const recordCount = view.getUint32(100, true);
  if (recordCount > MOST_RECORDS) return spoilt(file, `it claims ${recordCount} records`);
  const records = recordsIn(bytes, view, { from: headerBytes, count: recordCount, file });
  const told = view.getUint8(104);
  if ((told & PACKED) !== 0 || records.some((r) => r.user === PACKING))
    return refuseFile(file, 'las.packed', {
      what: 'its points are packed (LAZ), which is not read here',
      do: 'Unpack it to LAS where it comes from, or with any point cloud tool, and bring that in.',
    });
  const pointBytes = view.getUint16(105, true);
  if (told >= POINT_BYTES.length || pointBytes < POINT_BYTES[told]) return spoilt(file, `points of format ${told} in ${pointBytes} bytes are none that are known`);
  const legacy = view.getUint32(107, true);
  const count = is14 ? Number(view.getBigUint64(247, true)) || legacy : legacy;
  const pointAt = view.getUint32(96, true);
  if (pointAt < headerBytes || pointAt + count * pointBytes > bytes.length)
    return spoilt(file, `${count} points of ${pointBytes} bytes are more than the file holds`);
  const three = (at: number): [number, number, number] => [view.getFloat64(at, true), view.getFloat64(at + 8, true), view.getFloat64(at + 16, true)];
  const [scale, offset] = [three(131), three(155)];
  const box = [0, 1, 2].map((axis) => [view.getFloat64(187 + 16 * axis, true), view.getFloat64(179 + 16 * axis, true)] as const);
  if (![...scale, ...offset, ...box.flat()].every(Number.isFinite) || scale.some((v) => v <= 0)) return spoilt(file, 'its scale or its box is no number');
  return { format: told, count, pointAt, pointBytes, scale, offset, box, records, isInWords: (view.getUint16(6, true) & IN_WORDS) !== 0 };
} // prettier-ignore
