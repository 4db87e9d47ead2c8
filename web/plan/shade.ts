import type { Palette } from '../app/theme.ts';
import type { PaintCell } from './paint.ts';

/** Hillshade in the colours of the paper; no data is left clear. */
export const shadeCell =
  (shade: Uint8ClampedArray, { light, shadow }: Palette): PaintCell =>
  (cell, into, at) => {
    if (shade[cell] === 0) return;
    // Flat ground lies at about 0.77: more light towards it keeps the paper warm and only the shadows dark.
    const t = Math.min(1, Math.max(0, (shade[cell] / 255 - 0.28) / 0.62));
    for (let c = 0; c < 3; c++) into[at + c] = shadow[c] + (light[c] - shadow[c]) * t;
    into[at + 3] = 255;
  };
