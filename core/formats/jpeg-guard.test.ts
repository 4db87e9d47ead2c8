// A JPEG written by an independent program, whole and cut, and what its frame may say.
import { describe, expect, it } from '@jest/globals';
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { isSoundJpeg } from './jpeg-guard.ts';

const ZIP = new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures', 'photo-degrees.zip')));
const JPEG = unzipSync(ZIP)['photo-degrees.jpg'];
/** Where its frame begins: length, precision, rows, columns, parts, and for each part its number, sampling and table. */
const FRAME = JPEG.findIndex((byte, k) => byte === 0xff && JPEG[k + 1] === 0xc0) + 2;
const [HIGH, WIDE] = [JPEG[FRAME + 3] * 256 + JPEG[FRAME + 4], JPEG[FRAME + 5] * 256 + JPEG[FRAME + 6]];
const block = { width: WIDE, height: HIGH };
const changed = (at: number, byte: number): Uint8Array => Uint8Array.from(JPEG, (b, k) => (k === at ? byte : b));

describe('a JPEG in a TIFF', () => {
  it('holds together whole, and nowhere cut', () => {
    expect(isSoundJpeg(JPEG, block)).toBe(true);
    for (let k = 0; k < JPEG.length - 1; k++) expect(isSoundJpeg(JPEG.subarray(0, k), block)).toBe(false);
    expect(isSoundJpeg(Uint8Array.from([...JPEG, 0]), block)).toBe(true);
  });
  it('covers its block at most', () => {
    expect(isSoundJpeg(JPEG, { width: WIDE - 1, height: HIGH })).toBe(false);
    expect(isSoundJpeg(JPEG, { width: WIDE, height: HIGH - 1 })).toBe(false);
    expect(isSoundJpeg(changed(FRAME + 5, 0xff), block)).toBe(false);
  });
  it('has parts of one to four samples, in eight bits, and no frame that is not read', () => {
    for (const sampling of [0x01, 0x10, 0x51, 0x15]) expect(isSoundJpeg(changed(FRAME + 9, sampling), block)).toBe(false);
    for (const sampling of [0x11, 0x44]) expect(isSoundJpeg(changed(FRAME + 9, sampling), block)).toBe(true);
    expect(isSoundJpeg(changed(FRAME + 2, 12), block)).toBe(false);
    for (const parts of [0, 5]) expect(isSoundJpeg(changed(FRAME + 7, parts), block)).toBe(false);
    for (const marker of [0xc3, 0xcf, 0xdc, 0xd8, 0x10]) expect(isSoundJpeg(changed(FRAME - 1, marker), block)).toBe(false);
  });
  it('that is something else altogether is none', () => {
    expect(isSoundJpeg(new Uint8Array(0), block)).toBe(false);
    expect(isSoundJpeg(Uint8Array.from([0xff, 0xd8, 0xff]), block)).toBe(false);
    expect(isSoundJpeg(ZIP, block)).toBe(false);
  });
});
