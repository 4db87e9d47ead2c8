// Times in which little changes: several steps may be taken as one.

/** Most steps taken as one. */
const MOST_STEPS = 32;
/** Of how much steps taken as one may stir, what is aimed at: they seldom have to be taken again. */
const AIMED = 0.7;
/** What comes may differ by this share of its peak among steps taken as one. */
const ALIKE = 0.005;
/** Most a level may bend away from how it went before over several steps that are taken as one [m]: its course between bends a quarter as far. */
const BEND_M = 0.0005;
/** And this share of the depth there is: what empties falls by the same share in the same time. */
const BEND_SHARE = 0.005;
/** But never less than this: what is left of a film, nobody asks. */
const FILM_M = 1e-5;

/** How far a level may bend over several steps taken as one, by how deep it stands [m]. */
export const mayBend = (depthM: number): number => Math.max(FILM_M, Math.min(BEND_M, BEND_SHARE * depthM));

/** Finds how many steps can be taken as one by what comes to each of several stores. */
export class Quiet {
  private readonly tolerance: Float64Array;
  /** No more are tried than went well of late. */
  private most = 1;

  constructor(private readonly comes: readonly Float64Array[]) {
    this.tolerance = Float64Array.from(comes, (flow) => {
      let peak = 0;
      for (let i = 0; i < flow.length; i++) peak = Math.max(peak, flow[i]);
      return ALIKE * peak;
    });
  }

  /** How many steps from `i` on may be taken as one, by what comes alone. */
  stepsFrom(i: number): number {
    const { comes, tolerance } = this;
    let n = Math.min(this.most, comes[0].length - i);
    if (n === 1) return n;
    for (let j = 0; j < comes.length; j++) {
      const flow = comes[j];
      let low = flow[i];
      let high = low;
      let k = 1;
      for (; k < n; k++) {
        const q = flow[i + k];
        if (q < low) low = q;
        else if (q > high) high = q;
        if (high - low > tolerance[j]) break;
      }
      n = k;
    }
    return n;
  }

  /** Mean of what comes to each store over the steps. */
  meanOf(i: number, n: number, into: Float64Array): void {
    const { comes } = this;
    for (let j = 0; j < comes.length; j++) {
      const flow = comes[j];
      let sum = 0;
      for (let k = 0; k < n; k++) sum += flow[i + k];
      into[j] = sum / n;
    }
  }

  /** How taking `n` steps as one went, by how much they stirred: so many are tried next. */
  told(n: number, stirs: number): number {
    // A level bends away with the square of the time.
    const fit = Math.floor(n * Math.sqrt(AIMED / Math.max(stirs, AIMED / 4)));
    // Fewer than asked for by what comes says nothing of how many would have gone well.
    if (stirs > 1) this.most = Math.max(1, Math.min(fit, n - 1));
    else this.most = Math.max(n >= this.most ? 1 : this.most, Math.min(MOST_STEPS, fit));
    return this.most;
  }
}
