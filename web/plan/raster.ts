import ImageCanvasSource from 'ol/source/ImageCanvas.js';
import type { TerrainView } from '../workers/protocol.ts';

export type Frame = TerrainView['frame'];

/** A picture of one pixel a cell, drawn where its cells lie. */
export function rasterSource(picture: HTMLCanvasElement, { west, south, cellM, ncols, nrows }: Frame): ImageCanvasSource {
  return new ImageCanvasSource({
    ratio: 1,
    canvasFunction: (...[extent, resolution, pixelRatio, size]) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [Math.round(size[0]), Math.round(size[1])];
      const scale = pixelRatio / resolution;
      const context = canvas.getContext('2d');
      if (context) {
        context.imageSmoothingQuality = 'high';
        const [x, y] = [(west - extent[0]) * scale, (extent[3] - south - nrows * cellM) * scale];
        context.drawImage(picture, x, y, ncols * cellM * scale, nrows * cellM * scale);
      }
      return canvas;
    },
  });
}
