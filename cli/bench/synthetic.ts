// A seeded rough surface for benchmarks: eight octaves of smoothed lattice noise on a tilted plane, plus pixel noise.
import { dateText, daysTo, randomFrom } from '#core/rain';
import { type Grid, gridFromLevels } from '#core/terrain';

function lattice(x: number, y: number, k: number): number {
  let h = (Math.imul(x, 0x9e3779b1) + Math.imul(y, 0x85ebca77) + Math.imul(k, 0xc2b2ae3d)) >>> 0;
  h ^= h >>> 16;
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  h ^= h >>> 16;
  return (h >>> 0) / 4294967296;
}

const smooth = (t: number): number => t * t * (3 - 2 * t);

/** Level of the synthetic surface at a lattice point [m]. */
function levelOf(x: number, y: number): number {
  let z = 100 - 0.01 * x - 0.005 * y;
  for (let octave = 0, amplitude = 24; octave < 8; octave++, amplitude /= 2) {
    const shift = 8 - octave;
    const width = 256 >> octave;
    const [cx, cy, k] = [x >> shift, y >> shift, 16 + octave];
    const sx = smooth((x & (width - 1)) / width);
    const sy = smooth((y & (width - 1)) / width);
    const u00 = lattice(cx, cy, k);
    const u01 = lattice(cx, cy + 1, k);
    const a = u00 + (lattice(cx + 1, cy, k) - u00) * sx;
    const b = u01 + (lattice(cx + 1, cy + 1, k) - u01) * sx;
    z += amplitude * (a + (b - a) * sy - 0.5);
  }
  return z + 0.05 * (lattice(x, y, 31) - 0.5);
}

/** N x N cells of 2 m, the same on every machine. */
export function syntheticGrid(size: number): Grid {
  const levels = new Float64Array(size * size);
  for (let y = 0, i = 0; y < size; y++) for (let x = 0; x < size; x++, i++) levels[i] = levelOf(x, y);
  return gridFromLevels({ ncols: size, nrows: size, cellM: 2, west: 0, south: 0 }, levels);
}

/** Scattered survey points over a 999 x 999 square. */
export function syntheticPoints(count: number): { x: Float64Array; y: Float64Array; z: Float64Array } {
  const [x, y, z] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  for (let i = 0; i < count; i++) {
    x[i] = lattice(i, 0, 7) * 999;
    y[i] = lattice(i, 1, 7) * 999;
    z[i] = lattice(i, 2, 7) * 10;
  }
  return { x, y, z };
}

/** Daily rain of so many years, made the same every time. */
export function syntheticGauge(years: number): string {
  const random = randomFrom(7);
  const rows = ['date,rain_mm'];
  for (let day = daysTo(1970, 1, 1); day < daysTo(1970 + years, 1, 1); day++) {
    rows.push(`${dateText(day)},${random() < 0.3 ? (-9 * Math.log(1 - random())).toFixed(1) : 0}`);
  }
  return `${rows.join('\n')}\n`;
}
