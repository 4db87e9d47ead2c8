// Survey points to a surface: Delaunay triangles, rasterised by rows.
import Delaunator from 'delaunator';
import type { Line } from './line.ts';

export interface ScatteredPoints {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
}

/** Cell centres to fill: centre of column c is x0 + c·stepM; row r counts down from y0. */
export interface RasterFrame {
  readonly ncols: number;
  readonly nrows: number;
  readonly x0: number;
  readonly y0: number;
  readonly stepM: number;
}

/** Corner indices of the Delaunay triangles, three a triangle. Fewer than three points, or all in line: none. */
export function triangulate({ x, y }: ScatteredPoints): Uint32Array {
  const coords = new Float64Array(x.length * 2);
  for (let i = 0; i < x.length; i++) {
    // Offsets from the first point keep the predicates exact enough at large map coordinates.
    coords[2 * i] = x[i] - x[0];
    coords[2 * i + 1] = y[i] - y[0];
  }
  return new Delaunator(coords).triangles;
}

/** Linear interpolation of every triangle onto the cell centres it covers; NaN outside the hull. */
export function rasterise(points: ScatteredPoints, triangles: Uint32Array, frame: RasterFrame): Float64Array {
  const { ncols, nrows, x0, y0, stepM } = frame;
  const { x, y, z } = points;
  const out = new Float64Array(ncols * nrows).fill(NaN);
  for (let t = 0; t < triangles.length; t += 3) {
    const a = triangles[t];
    const b = triangles[t + 1];
    const c = triangles[t + 2];
    // Into cell units, rows downwards.
    const ax = (x[a] - x0) / stepM;
    const ay = (y0 - y[a]) / stepM;
    const bx = (x[b] - x0) / stepM;
    const by = (y0 - y[b]) / stepM;
    const cx = (x[c] - x0) / stepM;
    const cy = (y0 - y[c]) / stepM;
    const det = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (det === 0) continue;
    const gx = ((z[b] - z[a]) * (cy - ay) - (z[c] - z[a]) * (by - ay)) / det;
    const gy = ((z[c] - z[a]) * (bx - ax) - (z[b] - z[a]) * (cx - ax)) / det;
    const top = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 1e-9));
    const bottom = Math.min(nrows - 1, Math.floor(Math.max(ay, by, cy) + 1e-9));
    for (let row = top; row <= bottom; row++) {
      let lo = Infinity;
      let hi = -Infinity;
      for (let edge = 0; edge < 3; edge++) {
        const px = edge === 0 ? ax : edge === 1 ? bx : cx;
        const py = edge === 0 ? ay : edge === 1 ? by : cy;
        const qx = edge === 0 ? bx : edge === 1 ? cx : ax;
        const qy = edge === 0 ? by : edge === 1 ? cy : ay;
        if (Math.min(py, qy) > row + 1e-9 || Math.max(py, qy) < row - 1e-9) continue;
        if (py === qy) {
          lo = Math.min(lo, px, qx);
          hi = Math.max(hi, px, qx);
        } else {
          const at = px + ((row - py) * (qx - px)) / (qy - py);
          if (at < lo) lo = at;
          if (at > hi) hi = at;
        }
      }
      const first = Math.max(0, Math.ceil(lo - 1e-9));
      const last = Math.min(ncols - 1, Math.floor(hi + 1e-9));
      const base = z[a] + gy * (row - ay) - gx * ax;
      for (let col = first; col <= last; col++) out[row * ncols + col] = base + gx * col;
    }
  }
  return out;
}

/** Takes the level from every cell whose centre lies in none of the rings (even-odd rule): how many lost one. */
export function cutTo(levels: Float64Array, { ncols, nrows, x0, y0, stepM }: RasterFrame, rings: readonly Line[]): number {
  let cut = 0;
  for (let row = 0; row < nrows; row++) {
    const y = y0 - row * stepM;
    const crossings = rings.flatMap((ring) =>
      ring.flatMap(([ax, ay], k): number[] => {
        const [bx, by] = ring[(k + 1) % ring.length];
        return ay > y === by > y ? [] : [ax + ((bx - ax) * (y - ay)) / (by - ay)];
      }),
    );
    crossings.sort((a, b) => a - b);
    for (let col = 0, passed = 0; col < ncols; col++) {
      while (passed < crossings.length && crossings[passed] <= x0 + col * stepM) passed++;
      const cell = row * ncols + col;
      if (passed % 2 === 1 || Number.isNaN(levels[cell])) continue;
      levels[cell] = NaN;
      cut++;
    }
  }
  return cut;
}
