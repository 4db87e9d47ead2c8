// Where water goes, cell by cell: the inner loops of core/terrain/kernels/flow.ts, which says what is worked out and packs the
// facets. Two cells at a time in vector lanes, without branches; then the descent, one cell at a time.

/** No way down, and water led elsewhere. */
const NONE: i32 = 0xffff;
const JUMPS: i32 = 0xfffe;
const SINGLE: i32 = 8;
const BITS: i32 = 12;
const PARTS: i32 = 4095;
const DIAGONAL: f64 = 0.70710678118654752440;

// State of a cell: four 32-bit lanes.
const DRIFT: usize = 0;
const CELLS: usize = 4;
const LARGEST: usize = 8;
const WAITING: usize = 12;

// Receiver codes.
const LEAVES: i8 = -1;
const UNSEEN: i8 = -2;
const LED: i8 = 8;

/** Facet of every cell but those of the first and last row; of no use where one of the eight neighbours is missing. */
export function findFacets(filled: usize, facet: usize, ncols: i32, n: i32): void {
  const row = <usize>ncols << 3;
  const zero = f64x2.splat(0);
  const one = f64x2.splat(1);
  const seven = f64x2.splat(7);
  // The last pair may reach one cell into the last row.
  for (let i = ncols; i < n - ncols; i += 2) {
    const p = filled + (<usize>i << 3);
    const here = v128.load(p);
    const east = f64x2.sub(here, v128.load(p, 8));
    const west = f64x2.sub(here, v128.load(p - 8));
    const south = f64x2.sub(here, v128.load(p + row));
    const southEast = f64x2.sub(here, v128.load(p + row, 8));
    const southWest = f64x2.sub(here, v128.load(p + row - 8));
    const north = f64x2.sub(here, v128.load(p - row));
    const northEast = f64x2.sub(here, v128.load(p - row, 8));
    const northWest = f64x2.sub(here, v128.load(p - row - 8));
    // The largest drop of each kind, with those beside it.
    let drop = east;
    let left = northEast;
    let right = southEast;
    let c = zero;
    let more = f64x2.gt(south, drop);
    drop = f64x2.pmax(drop, south);
    left = v128.bitselect(southEast, left, more);
    right = v128.bitselect(southWest, right, more);
    c = v128.bitselect(f64x2.splat(2), c, more);
    more = f64x2.gt(west, drop);
    drop = f64x2.pmax(drop, west);
    left = v128.bitselect(southWest, left, more);
    right = v128.bitselect(northWest, right, more);
    c = v128.bitselect(f64x2.splat(4), c, more);
    more = f64x2.gt(north, drop);
    drop = f64x2.pmax(drop, north);
    left = v128.bitselect(northWest, left, more);
    right = v128.bitselect(northEast, right, more);
    c = v128.bitselect(f64x2.splat(6), c, more);
    let dropD = southEast;
    let leftD = east;
    let rightD = south;
    let d = one;
    more = f64x2.gt(southWest, dropD);
    dropD = f64x2.pmax(dropD, southWest);
    leftD = v128.bitselect(south, leftD, more);
    rightD = v128.bitselect(west, rightD, more);
    d = v128.bitselect(f64x2.splat(3), d, more);
    more = f64x2.gt(northWest, dropD);
    dropD = f64x2.pmax(dropD, northWest);
    leftD = v128.bitselect(west, leftD, more);
    rightD = v128.bitselect(north, rightD, more);
    d = v128.bitselect(f64x2.splat(5), d, more);
    more = f64x2.gt(northEast, dropD);
    dropD = f64x2.pmax(dropD, northEast);
    leftD = v128.bitselect(north, leftD, more);
    rightD = v128.bitselect(east, rightD, more);
    d = v128.bitselect(seven, d, more);
    // The steeper of the two, and the better of those beside it.
    const isCardinal = f64x2.ge(drop, f64x2.mul(dropD, f64x2.splat(DIAGONAL)));
    const falls = f64x2.gt(f64x2.pmax(drop, dropD), zero);
    c = v128.bitselect(c, d, isCardinal);
    left = v128.bitselect(left, leftD, isCardinal);
    right = v128.bitselect(right, rightD, isCardinal);
    const isLeft = f64x2.gt(left, right);
    const beside = f64x2.pmax(right, left);
    const along = v128.bitselect(drop, beside, isCardinal);
    const across = f64x2.sub(v128.bitselect(beside, dropD, isCardinal), along);
    const isInside = v128.and(f64x2.gt(across, zero), f64x2.ge(along, across));
    // Facet k lies clockwise of direction k: the one to the left of c is c - 1.
    const before = v128.bitselect(f64x2.sub(c, one), seven, f64x2.gt(c, zero));
    const kind = v128.bitselect(v128.bitselect(before, c, isLeft), f64x2.add(c, f64x2.splat(<f64>SINGLE)), isInside);
    const tangent = f64x2.nearest(f64x2.div(f64x2.mul(f64x2.splat(<f64>PARTS), across), along));
    const low = v128.and(tangent, isInside);
    const code = v128.bitselect(f64x2.add(f64x2.mul(kind, f64x2.splat(<f64>(1 << BITS))), low), f64x2.splat(<f64>NONE), falls);
    const codes = i32x4.trunc_sat_f64x2_u_zero(code);
    store<u16>(facet + (<usize>i << 1), <u16>i32x4.extract_lane(codes, 0));
    store<u16>(facet + (<usize>i << 1), <u16>i32x4.extract_lane(codes, 1), 2);
  }
}

/** How often each cell is named by one that may yet send it water: one with a single way down names it twice. */
export function countWaiting(facet: usize, state: usize, off: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    const code = <i32>load<u16>(facet + (<usize>i << 1));
    if (code >= JUMPS) continue;
    const k = code >> BITS;
    const first = state + (<usize>(i + load<i32>(off + (<usize>(k & 7) << 2))) << 4);
    store<i32>(first, load<i32>(first, WAITING) + 1, WAITING);
    const second = state + (<usize>(i + load<i32>(off + (<usize>((k + <i32>(k < SINGLE)) & 7) << 2))) << 4);
    store<i32>(second, load<i32>(second, WAITING) + 1, WAITING);
  }
}

/** Where the water of a cell that is led elsewhere comes out. `jumps`: pairs of cells. */
function ledTo(jumps: usize, count: i32, cell: i32): i32 {
  for (let j = 0; j < count; j++) if (load<i32>(jumps + (<usize>j << 3)) == cell) return load<i32>(jumps + (<usize>j << 3), 4);
  return -1;
}

/** Water down from each cell once nothing above it waits; writes receivers and the order, returns how many cells it holds. */
export function descend(filled: usize, facet: usize, state: usize, off: usize, drifts: usize, jumps: usize, jumpCount: i32, receiver: usize, order: usize, ready: usize, n: i32): i32 {
  let listed = order;
  for (let source = 0; source < n; source++) {
    if (load<i32>(state + (<usize>source << 4), WAITING) != 0 || load<i8>(receiver + <usize>source) != UNSEEN) continue;
    const level = load<f64>(filled + (<usize>source << 3));
    if (level != level) continue;
    let held = ready;
    store<i32>(held, source);
    held += 4;
    while (held != ready) {
      held -= 4;
      const i = load<i32>(held);
      store<i32>(listed, i);
      listed += 4;
      const at = state + (<usize>i << 4);
      const own = load<i32>(at, CELLS) + 1;
      store<i32>(at, own, CELLS);
      const code = <i32>load<u16>(facet + (<usize>i << 1));
      if (code >= JUMPS) {
        if (code == NONE) {
          store<i8>(receiver + <usize>i, LEAVES);
          continue;
        }
        store<i8>(receiver + <usize>i, LED);
        const to = ledTo(jumps, jumpCount, i);
        const out = state + (<usize>to << 4);
        store<i32>(out, load<i32>(out, CELLS) + own, CELLS);
        const left = load<i32>(out, WAITING) - 1;
        store<i32>(out, left, WAITING);
        if (left == 0) {
          store<i32>(held, to);
          held += 4;
        }
        continue;
      }
      const k = (code >> BITS) & 7;
      if (code >= SINGLE << BITS) {
        store<i8>(receiver + <usize>i, <i8>k);
        const r = i + load<i32>(off + (<usize>k << 2));
        const below = state + (<usize>r << 4);
        store<i32>(below, load<i32>(below, CELLS) + own, CELLS);
        if (own > load<i32>(below, LARGEST)) {
          store<i32>(below, own, LARGEST);
          store<i32>(below, 0, DRIFT);
        }
        const left = load<i32>(below, WAITING) - 2;
        store<i32>(below, left, WAITING);
        if (left == 0) {
          store<i32>(held, r);
          held += 4;
        }
        continue;
      }
      const odd = k & 1;
      const drift = drifts + (<usize>(code & PARTS) << 3);
      const sign = 1 - (odd << 1);
      const carried = load<i32>(at, DRIFT);
      const byCardinal = carried - sign * load<i32>(drift);
      const byDiagonal = carried + sign * load<i32>(drift, 4);
      const takesDiagonal = <i32>(abs(byDiagonal) < abs(byCardinal));
      const turn = takesDiagonal ^ odd;
      const direction = (k + turn) & 7;
      store<i8>(receiver + <usize>i, <i8>direction);
      const r = i + load<i32>(off + (<usize>direction << 2));
      const other = i + load<i32>(off + (<usize>((k + 1 - turn) & 7) << 2));
      const below = state + (<usize>r << 4);
      store<i32>(below, load<i32>(below, CELLS) + own, CELLS);
      if (own > load<i32>(below, LARGEST)) {
        store<i32>(below, own, LARGEST);
        store<i32>(below, select(byDiagonal, byCardinal, takesDiagonal), DRIFT);
      }
      const beside = state + (<usize>other << 4);
      const waits = load<i32>(beside, WAITING) - 1;
      store<i32>(beside, waits, WAITING);
      if (waits == 0) {
        store<i32>(held, other);
        held += 4;
      }
      const left = load<i32>(below, WAITING) - 1;
      store<i32>(below, left, WAITING);
      if (left == 0) {
        store<i32>(held, r);
        held += 4;
      }
    }
  }
  return <i32>((listed - order) >> 2);
}

/** Contributing cells of each cell, side by side. */
export function takeCells(state: usize, cells: usize, n: i32): void {
  for (let i = 0; i < n; i++) store<i32>(cells + (<usize>i << 2), load<i32>(state + (<usize>i << 4), CELLS));
}
