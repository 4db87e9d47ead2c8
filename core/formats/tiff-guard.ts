// The first directory of a TIFF, looked through before anything is unpacked: no tag may claim more than the file holds.

/** Bytes of one value by field type (TIFF 6.0 section 2; 16 to 18 are those of files over 4 GB). */
const SIZES: Readonly<Record<number, number>> = {
  1: 1,
  2: 1,
  3: 2,
  4: 4,
  5: 8,
  6: 1,
  7: 1,
  8: 2,
  9: 4,
  10: 8,
  11: 4,
  12: 8,
  13: 4,
  16: 8,
  17: 8,
  18: 8,
};
const MOST_TAGS = 500;

/** Why a TIFF cannot be unpacked safely; null when its directory holds together. */
export function tiffFault(bytes: Uint8Array): string | null {
  if (bytes.length < 16) return 'it is too short for a TIFF';
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = bytes[0] === 0x49;
  const version = view.getUint16(2, little);
  if (version !== 42 && version !== 43) return 'it is no TIFF';
  const isBig = version === 43;
  const whole = (at: number): number => (isBig ? Number(view.getBigUint64(at, little)) : view.getUint32(at, little));
  const [head, step, word] = isBig ? [8, 20, 8] : [2, 12, 4];
  const start = whole(isBig ? 8 : 4);
  if (start + head > bytes.length) return 'its directory lies beyond its end';
  const count = isBig ? whole(start) : view.getUint16(start, little);
  if (count === 0 || count > MOST_TAGS || start + head + count * step > bytes.length) return 'its directory is cut short';
  for (let i = 0; i < count; i++) {
    const at = start + head + i * step;
    const size = SIZES[view.getUint16(at + 2, little)];
    if (size === undefined) return `tag ${view.getUint16(at, little)} is of a type that is none`;
    const length = whole(at + 4) * size;
    const from = length <= word ? at + 4 + word : whole(at + 4 + word);
    if (from + length > bytes.length) return `tag ${view.getUint16(at, little)} claims more than the file holds`;
  }
  return null;
}
