// A LAS point cloud put together byte by byte by the published layout, independent of what reads it.

export interface CloudPoint {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly kind: number;
  readonly isWithheld?: boolean;
}

export interface Cloud {
  readonly minor: 2 | 3 | 4;
  readonly format: number;
  readonly points: readonly CloudPoint[];
  readonly scale?: readonly [number, number, number];
  readonly offset?: readonly [number, number, number];
  /** Keys of its system, or words. */
  readonly keys?: readonly (readonly [key: number, value: number])[];
  readonly words?: string;
  /** More bytes after each point. */
  readonly extra?: number;
}

const POINT = [20, 28, 26, 34, 57, 63, 30, 36, 38, 59, 67];

/** Record of the system: 54 bytes of head, then its content. */
function recordOf(id: number, content: Uint8Array): Uint8Array {
  const record = new Uint8Array(54 + content.length);
  const view = new DataView(record.buffer);
  record.set(new TextEncoder().encode('LASF_Projection'), 2);
  view.setUint16(18, id, true);
  view.setUint16(20, content.length, true);
  record.set(content, 54);
  return record;
}

const keyed = (keys: readonly (readonly [number, number])[]): Uint8Array => new Uint8Array(Uint16Array.from([1, 1, 0, keys.length, ...keys.flatMap(([key, value]) => [key, 0, 1, value])]).buffer); // prettier-ignore

export function lasOf({
  minor,
  format,
  points,
  scale = [0.01, 0.01, 0.001],
  offset = [0, 0, 0],
  keys,
  words,
  extra = 0,
}: Cloud): Uint8Array {
  const records = [
    ...(keys ? [recordOf(34735, keyed(keys))] : []),
    ...(words === undefined ? [] : [recordOf(2112, new TextEncoder().encode(`${words}\0`))]),
  ];
  const head = minor === 4 ? 375 : minor === 3 ? 235 : 227;
  const pointAt = head + records.reduce((sum, r) => sum + r.length, 0);
  const each = POINT[format] + extra;
  const bytes = new Uint8Array(pointAt + each * points.length);
  const view = new DataView(bytes.buffer);
  bytes.set(new TextEncoder().encode('LASF'));
  view.setUint16(6, words === undefined ? 0 : 0x10, true);
  bytes.set([1, minor], 24);
  view.setUint16(94, head, true);
  view.setUint32(96, pointAt, true);
  view.setUint32(100, records.length, true);
  view.setUint8(104, format);
  view.setUint16(105, each, true);
  if (format < 6) view.setUint32(107, points.length, true);
  scale.forEach((v, k) => view.setFloat64(131 + 8 * k, v, true));
  offset.forEach((v, k) => view.setFloat64(155 + 8 * k, v, true));
  (['x', 'y', 'z'] as const).forEach((axis, k) => {
    view.setFloat64(179 + 16 * k, Math.max(...points.map((p) => p[axis])), true);
    view.setFloat64(187 + 16 * k, Math.min(...points.map((p) => p[axis])), true);
  });
  if (minor === 4) view.setBigUint64(247, BigInt(points.length), true);
  let at = head;
  for (const record of records) {
    bytes.set(record, at);
    at += record.length;
  }
  for (const { x, y, z, kind, isWithheld = false } of points) {
    [x, y, z].forEach((v, k) => view.setInt32(at + 4 * k, Math.round((v - offset[k]) / scale[k]), true));
    if (format < 6) view.setUint8(at + 15, kind | (isWithheld ? 0x80 : 0));
    else {
      view.setUint8(at + 15, isWithheld ? 4 : 0);
      view.setUint8(at + 16, kind);
    }
    at += each;
  }
  return bytes;
}
