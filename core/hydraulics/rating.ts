/** Flow against head on rising rows: between two of them, and below the first, by the power of the head that joins them; above the last by a power of its own. */
export class Rating {
  /** Power that joins each row with the one before; 0 where there is no flow at one of them, and the line is straight. */
  private readonly powers: Float64Array;

  private constructor(
    private readonly headM: Float64Array,
    private readonly flowM3s: Float64Array,
    private readonly power: number,
  ) {
    this.powers = headM.map((h, k) =>
      k > 1 && flowM3s[k - 1] > 0 ? Math.log(flowM3s[k] / flowM3s[k - 1]) / Math.log(h / headM[k - 1]) : 0,
    );
    // The law goes on towards nothing as it comes from the second row to the first.
    this.powers[1] = this.powers[2];
  }

  /** From a law that gives head and flow together, at so many rows from nothing to one; a crest goes on by 1.5, a full pipe by 0.5. */
  static by(rows: number, at: (share: number) => readonly [headM: number, flowM3s: number], power = 1.5): Rating {
    const [headM, flowM3s] = [new Float64Array(rows + 1), new Float64Array(rows + 1)];
    for (let k = 1; k <= rows; k++) {
      const [head, flow] = at(k / rows);
      headM[k] = Math.max(headM[k - 1] + 1e-6, head);
      flowM3s[k] = Math.max(flowM3s[k - 1], flow);
    }
    return new Rating(headM, flowM3s, power);
  }

  flowAt(head: number): number {
    const { headM, flowM3s, power, powers } = this;
    const last = headM.length - 1;
    if (!(head > 0)) return 0;
    if (head >= headM[last]) return flowM3s[last] * (head / headM[last]) ** power;
    let [lo, hi] = [0, last];
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (headM[mid] <= head) lo = mid;
      else hi = mid;
    }
    if (powers[hi] > 0) return flowM3s[hi] * (head / headM[hi]) ** powers[hi];
    return flowM3s[lo] + ((flowM3s[hi] - flowM3s[lo]) * (head - headM[lo])) / (headM[hi] - headM[lo]);
  }
}
