/** Flow against head on rising rows, read straight between them; above the last row it grows by the power 1.5 of the head. */
export class Rating {
  private constructor(
    private readonly headM: Float64Array,
    private readonly flowM3s: Float64Array,
  ) {}

  /** From a law that gives head and flow together, at so many rows from nothing to one. */
  static by(rows: number, at: (share: number) => readonly [headM: number, flowM3s: number]): Rating {
    const [headM, flowM3s] = [new Float64Array(rows + 1), new Float64Array(rows + 1)];
    for (let k = 1; k <= rows; k++) {
      const [head, flow] = at(k / rows);
      headM[k] = Math.max(headM[k - 1] + 1e-6, head);
      flowM3s[k] = Math.max(flowM3s[k - 1], flow);
    }
    return new Rating(headM, flowM3s);
  }

  flowAt(head: number): number {
    const { headM, flowM3s } = this;
    const last = headM.length - 1;
    if (!(head > 0)) return 0;
    if (head >= headM[last]) return flowM3s[last] * (head / headM[last]) ** 1.5;
    let [lo, hi] = [0, last];
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (headM[mid] <= head) lo = mid;
      else hi = mid;
    }
    return flowM3s[lo] + ((flowM3s[hi] - flowM3s[lo]) * (head - headM[lo])) / (headM[hi] - headM[lo]);
  }
}
