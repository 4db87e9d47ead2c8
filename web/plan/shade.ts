import type { Palette } from '../app/theme.ts';
import type { Frame } from './raster.ts';

/** Hillshade in the colours of the paper; no data is left clear. */
export function paintShade(shade: Uint8ClampedArray, { ncols, nrows }: Frame, { light, shadow }: Palette): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [ncols, nrows];
  const context = canvas.getContext('2d');
  if (!context) return canvas;
  const image = context.createImageData(ncols, nrows);
  // Flat ground lies at about 0.77: more light towards it keeps the paper warm and only the shadows dark.
  for (let i = 0; i < shade.length; i++) {
    if (shade[i] === 0) continue;
    const t = Math.min(1, Math.max(0, (shade[i] / 255 - 0.28) / 0.62));
    for (let c = 0; c < 3; c++) image.data[4 * i + c] = shadow[c] + (light[c] - shadow[c]) * t;
    image.data[4 * i + 3] = 255;
  }
  context.putImageData(image, 0, 0);
  return canvas;
}
