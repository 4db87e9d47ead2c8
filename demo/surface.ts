// The ground of an invented holding: a valley curving between two ridges, with the small unevenness of real land.

/** Repeatable value in [0, 1) for a lattice point. */
function chance(x: number, y: number, seed: number): number {
  let h = Math.imul(x, 0x27d4eb2d) ^ Math.imul(y, 0x165667b1) ^ Math.imul(seed, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Smooth unevenness of a wavelength, -0.5 to 0.5. */
export function uneven(x: number, y: number, on: { wave: number; seed: number }): number {
  const [u, v] = [x / on.wave, y / on.wave];
  const [cx, cy] = [Math.floor(u), Math.floor(v)];
  const ease = (t: number): number => t * t * t * (t * (6 * t - 15) + 10);
  const [sx, sy] = [ease(u - cx), ease(v - cy)];
  const at = (i: number, j: number): number => chance(cx + i, cy + j, on.seed);
  const south = at(0, 0) + (at(1, 0) - at(0, 0)) * sx;
  const north = at(0, 1) + (at(1, 1) - at(0, 1)) * sx;
  return south + (north - south) * sy - 0.5;
}

export const WIDTH_M = 620;
export const HEIGHT_M = 560;

/** Where the gully on the east flank runs at a height up the hill: it wanders as water found soft ground. */
const gullyAt = (y: number): number => 470 + 0.2 * (y - 80) + 11 * Math.sin(y / 27 + 0.8) + 4 * Math.sin(y / 10.5);
/** How deep it is cut there: it breaks off short under its head and runs out on the flat below. */
const gullyDepth = (y: number): number => 1.9 / (1 + Math.exp((y - 236) / 2.2)) / (1 + Math.exp((66 - y) / 14));

/** Spurs and coombs of the flanks, none of them like another; the bed of the valley keeps its own way. */
function spurs(x: number, y: number, off: number): number {
  const beside = 1 - Math.exp(-((off / 0.75) ** 2));
  return beside * (5.2 * uneven(x + 0.35 * y, y, { wave: 128, seed: 21 }) + 2.2 * uneven(x, y, { wave: 61, seed: 22 }));
}

/** Level at a place measured from the south-west corner [m]. */
export function groundLevel(x: number, y: number): number {
  const v = y / HEIGHT_M;
  const valley = 300 + 55 * Math.sin(2.6 * v + 0.4);
  const off = (x - valley) / 150;
  // Flanks rise from the valley and round over into ridges about 190 m either side; the valley opens to the south.
  const flank = 13 * (0.55 + 0.45 * v) * (1 - Math.exp(-off * off)) + 1.2 * Math.abs(off);
  // Steep under the skyline, gentle from mid-slope down: the turn is where a swale earns its keep.
  const skyline = 0.015 * Math.log1p(Math.exp((v - 0.89) / 0.015));
  const fall = 30 * v + 16 / (1 + Math.exp(-(v - 0.66) * 9)) - 110 * skyline;
  const rough =
    1.6 * uneven(x, y, { wave: 90, seed: 11 }) + 0.5 * uneven(x, y, { wave: 34, seed: 12 }) + 0.1 * uneven(x, y, { wave: 9, seed: 13 });
  const gully = gullyDepth(y) / (1 + ((x - gullyAt(y)) / 3.4) ** 4);
  return 96 + fall + flank + rough + spurs(x, y, off) - gully;
}
