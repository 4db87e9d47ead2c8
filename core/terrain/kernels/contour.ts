// Contour lines by marching squares on cell centres. Crossed edges are sorted by level first, then walked, so each level
// costs its own length only. A saddle is joined through the mean of its four corners.
import type { Grid } from '../grid.ts';

export interface ContourLevels {
  readonly firstM: number;
  readonly intervalM: number;
  readonly count: number;
}

/** Lines as one flat coordinate array: line k runs from starts[k] to starts[k+1] (in points), at levelM[k]. */
export interface ContourLines {
  readonly xy: Float64Array;
  readonly starts: Int32Array;
  readonly levelM: Float64Array;
}

/** All multiples of an interval that a grid's levels cross. */
export function levelsEvery(grid: Grid, intervalM: number): ContourLevels {
  const { z, baseM } = grid;
  let lo = Infinity;
  let hi = -Infinity;
  for (let i = 0; i < z.length; i++) {
    const v = z[i];
    if (v < lo) lo = v;
    if (v > hi) hi = v;
  }
  if (hi < lo) return { firstM: 0, intervalM, count: 0 };
  const first = Math.ceil((lo + baseM) / intervalM);
  const last = Math.floor((hi + baseM) / intervalM);
  return { firstM: first * intervalM, intervalM, count: Math.max(0, last - first + 1) };
}

/** How many levels are at or below each cell; 65535 marks no data. */
function bandsOf(grid: Grid, { firstM, intervalM, count }: ContourLevels): Uint16Array {
  const { z, baseM } = grid;
  const first = firstM - baseM;
  const bands = new Uint16Array(z.length);
  for (let i = 0; i < z.length; i++) {
    const v = z[i];
    if (v !== v) {
      bands[i] = 65535;
      continue;
    }
    let k = Math.floor((v - first) / intervalM) + 1;
    if (k < 0) k = 0;
    else if (k > count) k = count;
    // Guard the division's rounding: band k means level k-1 <= v < level k.
    while (k > 0 && first + (k - 1) * intervalM > v) k--;
    while (k < count && first + k * intervalM <= v) k++;
    bands[i] = k;
  }
  return bands;
}

/** Edges (2·cell + 1 if vertical) that cross each level, grouped by level: ends[k] is the end of group k. */
function crossedEdges(grid: Grid, bands: Uint16Array, count: number): { edges: Int32Array; ends: Int32Array } {
  const { ncols, nrows } = grid;
  const ends = new Int32Array(count + 1);
  let edges = new Int32Array(0);
  for (let pass = 0; pass < 2; pass++) {
    for (let row = 0, i = 0; row < nrows; row++) {
      for (let col = 0; col < ncols; col++, i++) {
        const a = bands[i];
        if (a === 65535) continue;
        if (col < ncols - 1) {
          const b = bands[i + 1];
          if (a !== b && b !== 65535) {
            const hi = a < b ? b : a;
            for (let k = a < b ? a : b; k < hi; k++) {
              if (pass === 1) edges[ends[k]++] = 2 * i;
              else ends[k + 1]++;
            }
          }
        }
        if (row < nrows - 1) {
          const b = bands[i + ncols];
          if (a !== b && b !== 65535) {
            const hi = a < b ? b : a;
            for (let k = a < b ? a : b; k < hi; k++) {
              if (pass === 1) edges[ends[k]++] = 2 * i + 1;
              else ends[k + 1]++;
            }
          }
        }
      }
    }
    if (pass === 0) {
      for (let k = 0; k < count; k++) ends[k + 1] += ends[k];
      edges = new Int32Array(ends[count]);
    }
  }
  return { edges, ends };
}

/** Traces all lines of the given levels. A line that ends at the border or at no data is open; others repeat their start. */
export function contourLines(grid: Grid, levels: ContourLevels): ContourLines {
  const { ncols, nrows, z, baseM, cellM, west, south } = grid;
  const { firstM, intervalM, count } = levels;
  const bands = bandsOf(grid, levels);
  const { edges, ends } = crossedEdges(grid, bands, count);
  const xy = new Float64Array(2 * (2 * edges.length + 2));
  const starts: number[] = [0];
  const lineLevels: number[] = [];
  const seen = new Uint8Array(2 * z.length);
  const x0 = west + 0.5 * cellM;
  const y0 = south + (nrows - 0.5) * cellM;
  // Whether the square whose north-west corner is (col, row) has four levels.
  const isSquare = (col: number, row: number): boolean => {
    if (col < 0 || row < 0 || col >= ncols - 1 || row >= nrows - 1) return false;
    const p = row * ncols + col;
    return bands[p] !== 65535 && bands[p + 1] !== 65535 && bands[p + ncols] !== 65535 && bands[p + ncols + 1] !== 65535;
  };
  let points = 0;
  for (let k = 0, from = 0; k < count; from = ends[k], k++) {
    const level = firstM + k * intervalM - baseM;
    const to = ends[k];
    const tag = (k % 255) + 1;
    if (tag === 1 && k > 0) seen.fill(0);
    // Open lines first, from their ends; what is left is closed.
    for (let pass = 0; pass < 2; pass++) {
      for (let j = from; j < to; j++) {
        const start = edges[j];
        if (seen[start] === tag) continue;
        const isVertical = (start & 1) === 1;
        const cell = start >> 1;
        let col = cell % ncols;
        let row = (cell - col) / ncols;
        // Squares on either side of the edge: `ahead` is below or right, `behind` above or left.
        const ahead = isSquare(col, row);
        const behind = isVertical ? isSquare(col - 1, row) : isSquare(col, row - 1);
        if (pass === 0 && ahead === behind) continue;
        if (!ahead && !behind) continue;
        let side = isVertical ? 3 : 0;
        if (!ahead) {
          side = isVertical ? 1 : 2;
          if (isVertical) col--;
          else row--;
        }
        const firstPoint = points;
        for (let e = start; ;) {
          seen[e] = tag;
          const a = e >> 1;
          const vertical = e & 1;
          const za = z[a];
          const t = (level - za) / (z[vertical === 1 ? a + ncols : a + 1] - za);
          const ac = a % ncols;
          const ar = (a - ac) / ncols;
          xy[2 * points] = x0 + (vertical === 1 ? ac : ac + t) * cellM;
          xy[2 * points + 1] = y0 - (vertical === 1 ? ar + t : ar) * cellM;
          points++;
          if (!isSquare(col, row)) break;
          const p = row * ncols + col;
          const A = bands[p] > k;
          const B = bands[p + 1] > k;
          const C = bands[p + ncols + 1] > k;
          const D = bands[p + ncols] > k;
          let out: number;
          if (A === C && B === D && A !== B) {
            const middle = (z[p] + z[p + 1] + z[p + ncols + 1] + z[p + ncols]) * 0.25 >= level;
            out = middle === A ? side ^ 1 : 3 - side;
          } else if (side !== 0 && A !== B) out = 0;
          else if (side !== 1 && B !== C) out = 1;
          else if (side !== 2 && C !== D) out = 2;
          else out = 3;
          if (out === 0) {
            e = 2 * p;
            row--;
            side = 2;
          } else if (out === 1) {
            e = 2 * (p + 1) + 1;
            col++;
            side = 3;
          } else if (out === 2) {
            e = 2 * (p + ncols);
            row++;
            side = 0;
          } else {
            e = 2 * p + 1;
            col--;
            side = 1;
          }
          if (e === start) {
            xy[2 * points] = xy[2 * firstPoint];
            xy[2 * points + 1] = xy[2 * firstPoint + 1];
            points++;
            break;
          }
        }
        starts.push(points);
        lineLevels.push(firstM + k * intervalM);
      }
    }
  }
  return { xy: xy.slice(0, 2 * points), starts: Int32Array.from(starts), levelM: Float64Array.from(lineLevels) };
}
