// A TIFF put together tag by tag, independent of the library that reads it: 16-bit levels with what the tags say of them.

interface Tag {
  readonly id: number;
  /** 2 text, 3 short, 4 long, 12 double. */
  readonly type: 2 | 3 | 4 | 12;
  readonly values: readonly number[] | string;
}

const SIZE = { 2: 1, 3: 2, 4: 4, 12: 8 } as const;

function put(view: DataView, at: number, { type, values }: Tag): void {
  const list = typeof values === 'string' ? [...`${values}\0`].map((c) => c.charCodeAt(0)) : values;
  list.forEach((v, i) => {
    const to = at + i * SIZE[type];
    if (type === 2) view.setUint8(to, v);
    else if (type === 3) view.setUint16(to, v, true);
    else if (type === 4) view.setUint32(to, v, true);
    else view.setFloat64(to, v, true);
  });
}

const countOf = ({ values }: Tag): number => (typeof values === 'string' ? values.length + 1 : values.length);

/** Bytes of a TIFF of signed 16-bit numbers, `width` to a row, with more tags (scale and offset, no data, keys). */
export function tiffOf(numbers: Int16Array, width: number, more: readonly Tag[]): Uint8Array {
  const height = numbers.length / width;
  const own: Tag[] = [
    { id: 256, type: 3, values: [width] },
    { id: 257, type: 3, values: [height] },
    { id: 258, type: 3, values: [16] },
    { id: 259, type: 3, values: [1] },
    { id: 262, type: 3, values: [1] },
    { id: 273, type: 4, values: [8] },
    { id: 277, type: 3, values: [1] },
    { id: 278, type: 3, values: [height] },
    { id: 279, type: 4, values: [numbers.byteLength] },
    { id: 339, type: 3, values: [2] },
  ];
  const tags = [...own, ...more].sort((a, b) => a.id - b.id);
  const ifd = 8 + numbers.byteLength;
  let free = ifd + 2 + 12 * tags.length + 4;
  const bytes = new Uint8Array(free + tags.reduce((sum, t) => sum + countOf(t) * SIZE[t.type], 0) + 8);
  const view = new DataView(bytes.buffer);
  [0x4949, 42].forEach((v, i) => view.setUint16(2 * i, v, true));
  view.setUint32(4, ifd, true);
  numbers.forEach((v, i) => view.setInt16(8 + 2 * i, v, true));
  view.setUint16(ifd, tags.length, true);
  tags.forEach((tag, i) => {
    const at = ifd + 2 + 12 * i;
    const length = countOf(tag) * SIZE[tag.type];
    view.setUint16(at, tag.id, true);
    view.setUint16(at + 2, tag.type, true);
    view.setUint32(at + 4, countOf(tag), true);
    if (length <= 4) put(view, at + 8, tag);
    else {
      view.setUint32(at + 8, free, true);
      put(view, free, tag);
      free += length;
    }
  });
  return bytes;
}

/** Tags that put a raster of 2 m cells at a place of UTM zone 33 north. */
export const PLACED: readonly Tag[] = [
  { id: 33550, type: 12, values: [2, 2, 0] },
  { id: 33922, type: 12, values: [0, 0, 0, 500_000, 5_000_008, 0] },
  { id: 34735, type: 3, values: [1, 1, 0, 3, 1024, 0, 1, 1, 1025, 0, 1, 1, 3072, 0, 1, 32633] },
];
