/** A rising table read at places near each other: it begins to look where it was last. */
export class Curve {
  private k = 0;
  constructor(
    private readonly xs: Float64Array,
    private readonly ys: Float64Array,
  ) {}

  /** The piece at x, from where the last one was. */
  find(x: number): number {
    const { xs } = this;
    const last = xs.length - 2;
    let k = this.k;
    while (k < last && x >= xs[k + 1]) k++;
    while (k > 0 && x < xs[k]) k--;
    this.k = k;
    return k;
  }

  /** Value at x; beyond its ends the last piece is continued. */
  at(x: number): number {
    const { xs, ys } = this;
    const k = this.find(x);
    const span = xs[k + 1] - xs[k];
    return span > 0 ? ys[k] + ((ys[k + 1] - ys[k]) * (x - xs[k])) / span : ys[k];
  }

  /** Rise of the piece it was read in last. */
  get slopeThere(): number {
    const { xs, ys, k } = this;
    const span = xs[k + 1] - xs[k];
    return span > 0 ? (ys[k + 1] - ys[k]) / span : 0;
  }
}
