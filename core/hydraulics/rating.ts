/** Flow against head on rising rows, read straight between them; above the last row it grows by a power of the head. */
export class Rating {
  private constructor(
    private readonly headM: Float64Array,
    private readonly flowM3s: Float64Array,
    private readonly power: number,
  ) {}

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
    const { headM, flowM3s, power } = this;
    const last = headM.length - 1;
    if (!(head > 0)) return 0;
    if (head >= headM[last]) return flowM3s[last] * (head / headM[last]) ** power;
    let [lo, hi] = [0, last];
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (headM[mid] <= head) lo = mid;
      else hi = mid;
    }
    return flowM3s[lo] + ((flowM3s[hi] - flowM3s[lo]) * (head - headM[lo])) / (headM[hi] - headM[lo]);
  }
}
