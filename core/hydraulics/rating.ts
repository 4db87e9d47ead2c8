/** Parts each row is read in: between them a straight line does. */
const PARTS = 8;

/**
 * Flow against head on rising rows. Between two rows, and below the first, flow goes by the power of the head that joins them,
 * laid down in so many parts that straight lines between those do; above the last row it grows by a power of its own.
 */
export class Rating {
  /** Where it was read last: what follows is asked nearby. */
  private last = 0;

  /** How fast flow grows from each row to the next: division costs, and they are read very often. */
  readonly rises: Float64Array;

  private constructor(
    readonly headM: Float64Array,
    readonly flowM3s: Float64Array,
    private readonly power: number,
  ) {
    this.rises = Float64Array.from({ length: headM.length - 1 }, (_, k) => (flowM3s[k + 1] - flowM3s[k]) / (headM[k + 1] - headM[k]));
  }

  /** From a law that gives head and flow together, at so many rows from nothing to one; a crest goes on by 1.5, a full pipe by 0.5. */
  static by(rows: number, at: (share: number) => readonly [headM: number, flowM3s: number], power = 1.5): Rating {
    const [headM, flowM3s] = [new Float64Array(rows + 1), new Float64Array(rows + 1)];
    for (let k = 1; k <= rows; k++) {
      const [head, flow] = at(k / rows);
      headM[k] = Math.max(headM[k - 1] + 1e-6, head);
      flowM3s[k] = Math.max(flowM3s[k - 1], flow);
    }
    return new Rating(...inParts(headM, flowM3s), power);
  }

  flowAt(head: number): number {
    const { headM, flowM3s, power } = this;
    const end = headM.length - 1;
    if (!(head > 0)) return 0;
    if (head >= headM[end]) {
      const more = head / headM[end];
      // By a root where it can be: a power costs several times as much.
      return flowM3s[end] * (power === 1.5 ? more * Math.sqrt(more) : more ** power);
    }
    const lo = this.rowBelow(head);
    return flowM3s[lo] + this.rises[lo] * (head - headM[lo]);
  }

  /** The row at or below a head within the table: the one read last, else found by halving. */
  private rowBelow(head: number): number {
    const { headM, last } = this;
    if (headM[last] <= head && head < headM[last + 1]) return last;
    let lo = 0;
    let hi = headM.length - 1;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (headM[mid] <= head) lo = mid;
      else hi = mid;
    }
    this.last = lo;
    return lo;
  }
}

/** Rows with parts between them, each by the power that joins its two rows; straight where one of them has no flow. */
function inParts(headM: Float64Array, flowM3s: Float64Array): [headM: Float64Array, flowM3s: Float64Array] {
  const rows = headM.length - 1;
  const powerTo = (k: number): number =>
    k > 1 && k <= rows && flowM3s[k - 1] > 0 ? Math.log(flowM3s[k] / flowM3s[k - 1]) / Math.log(headM[k] / headM[k - 1]) : 0;
  const [heads, flows] = [new Float64Array(rows * PARTS + 1), new Float64Array(rows * PARTS + 1)];
  for (let k = 1; k <= rows; k++) {
    // Towards nothing the law goes on as it comes from the second row to the first.
    const power = powerTo(k === 1 ? 2 : k);
    for (let j = 1; j <= PARTS; j++) {
      const head = headM[k - 1] + ((headM[k] - headM[k - 1]) * j) / PARTS;
      const straight = flowM3s[k - 1] + ((flowM3s[k] - flowM3s[k - 1]) * j) / PARTS;
      heads[(k - 1) * PARTS + j] = head;
      flows[(k - 1) * PARTS + j] = power > 0 ? flowM3s[k] * (head / headM[k]) ** power : straight;
    }
  }
  return [heads, flows];
}
