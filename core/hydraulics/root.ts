// Where something that rises comes to nothing, found for sure.

/** Two places, too little at the one and too much at the other, and how near is near enough. */
interface Bracket {
  readonly lo: number;
  readonly hi: number;
  readonly fLo: number;
  readonly fHi: number;
  /** By what is found there. */
  readonly close: number;
  /** By how far the two are from each other, as a share of where they are. */
  readonly narrow: number;
}

/** Every second look at the latest has halved the bracket: by then it is as narrow as numbers are, however wide it was. */
const MOST_LOOKS = 200;

/** By false position with the Illinois weight: quick on what is nearly straight. Where it bends or jumps that creeps, and the middle is looked at. */
export function rootBetween(rising: (x: number) => number, on: Bracket): number {
  let { lo, hi, fLo, fHi } = on;
  let width = hi - lo;
  for (let k = 0, side = 0; k < MOST_LOOKS && hi - lo > on.narrow * Math.max(1, Math.abs(hi)); k++) {
    const isDue = k % 2 === 1;
    const creeps = isDue && hi - lo > width / 2;
    if (isDue) width = hi - lo;
    const isStraight = !creeps && fHi !== fLo && Number.isFinite(fHi);
    const x = isStraight ? (lo * fHi - hi * fLo) / (fHi - fLo) : (lo + hi) / 2;
    const f = rising(x);
    if (Math.abs(f) < on.close) return x;
    if (f < 0) {
      lo = x;
      fLo = f;
      if (side === -1) fHi /= 2;
      side = -1;
    } else {
      hi = x;
      fHi = f;
      if (side === 1) fLo /= 2;
      side = 1;
    }
  }
  return (lo + hi) / 2;
}

/** Root of a function that rises with x, looked for upwards from [low, high]; `low` where it is too much even there. */
export function rootOf(rising: (x: number) => number, low = 0, high = 1): number {
  let lo = low;
  let hi = high;
  let fLo = rising(lo);
  let fHi = rising(hi);
  if (fLo >= 0) return lo;
  for (let k = 0; fHi < 0 && k < 60; k++) {
    lo = hi;
    fLo = fHi;
    hi += 2 * (hi - low);
    fHi = rising(hi);
  }
  return rootBetween(rising, { lo, hi, fLo, fHi, close: 1e-13, narrow: 1e-11 });
}
