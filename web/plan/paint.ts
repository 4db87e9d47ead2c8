// Pictures of the ground, a pixel a cell, painted a strip at a time: the page answers between the strips however large it is.
import type { Frame } from './raster.ts';

/** More pixels than any screen shows of a whole property: beyond, every second or third cell is painted. */
const MOST_PIXELS = 4_000_000;
/** How long a strip may take [ms]. */
const STRIP_MS = 12;
const STRIP_ROWS = 24;

/** Writes the colour of a cell at a place of the picture's bytes. */
export type PaintCell = (cell: number, into: Uint8ClampedArray, at: number) => void;

const breath = (): Promise<void> => new Promise((done) => setTimeout(done, 0));

/** Paints cells of a frame; null when it is no longer wanted before it is done. Small ground is painted at once. */
export async function painted(
  { ncols, nrows }: Pick<Frame, 'ncols' | 'nrows'>,
  paint: PaintCell,
  isWanted: () => boolean,
): Promise<HTMLCanvasElement | null> {
  const stride = Math.ceil(Math.sqrt((ncols * nrows) / MOST_PIXELS));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.ceil(ncols / stride), Math.ceil(nrows / stride)];
  const context = canvas.getContext('2d');
  if (!context) return canvas;
  let begun = performance.now();
  for (let top = 0; top < canvas.height; top += STRIP_ROWS) {
    const rows = Math.min(STRIP_ROWS, canvas.height - top);
    const image = context.createImageData(canvas.width, rows);
    for (let r = 0; r < rows; r++) {
      const row = (top + r) * stride * ncols;
      for (let c = 0; c < canvas.width; c++) paint(row + c * stride, image.data, 4 * (r * canvas.width + c));
    }
    context.putImageData(image, 0, top);
    if (performance.now() - begun < STRIP_MS) continue;
    await breath();
    if (!isWanted()) return null;
    begun = performance.now();
  }
  return canvas;
}
