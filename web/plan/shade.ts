import type { Palette } from '../app/theme.ts';
import type { TerrainView } from '../workers/protocol.ts';

/** Hillshade in the colours of the paper; no data is left clear. */
export function paintShade({ frame, shade }: TerrainView, { light, shadow }: Palette): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [frame.ncols, frame.nrows];
  const context = canvas.getContext('2d');
  if (!context) return canvas;
  const image = context.createImageData(frame.ncols, frame.nrows);
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
