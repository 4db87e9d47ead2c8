// The level at which something that rises with it comes to nothing, found for sure.
import { rootBetween } from '../hydraulics/index.ts';

/** Where it is looked for from, and how near is near enough. */
interface About {
  readonly at: number;
  /** How much is too much there; less than 0, too little. */
  readonly f: number;
  /** The lowest level there is. */
  readonly floor: number;
  /** About how fast it rises. */
  readonly surface: number;
  readonly close: number;
}

/** Bracketed outwards from a level, then by false position; at the floor where even that is too much. */
export function rootAbout(excess: (level: number) => number, { at, f, floor, surface, close }: About): number {
  let lo = at;
  let hi = at;
  let fLo = f;
  let fHi = f;
  // Twice as far as its own miss says, so that one look does.
  const first = Math.max(1e-7, (2 * Math.abs(f)) / surface);
  for (let widen = first; fHi < 0; widen *= 2) {
    lo = hi;
    fLo = fHi;
    hi += widen;
    fHi = excess(hi);
  }
  for (let widen = first; fLo > 0; widen *= 2) {
    if (lo <= floor) return floor;
    hi = lo;
    fHi = fLo;
    lo = Math.max(floor, lo - widen);
    fLo = excess(lo);
  }
  return rootBetween(excess, { lo, hi, fLo, fHi, close, narrow: 1e-12 });
}
