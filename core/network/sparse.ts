// Linear systems of stores that hang on few neighbours each: solved along the ways between them, as trees of pipes ask for.

/** The order unknowns are taken in, and which others each still meets then. */
export interface Pattern {
  readonly n: number;
  readonly order: Int32Array;
  /** By unknown: those taken after it that its row or column reaches, what fills in among them with. */
  readonly later: readonly Int32Array[];
}

/** Fewest neighbours first (minimum degree): in a tree nothing fills in. Made once for a group. */
export function patternOf(n: number, pairs: readonly (readonly [number, number])[]): Pattern {
  const near = Array.from({ length: n }, () => new Set<number>());
  for (const [a, b] of pairs)
    if (a !== b) {
      near[a].add(b);
      near[b].add(a);
    }
  const isLeft = new Set(near.keys());
  const order = new Int32Array(n);
  const later: Int32Array[] = Array.from({ length: n }, () => new Int32Array(0));
  for (let step = 0; step < n; step++) {
    let best = -1;
    for (const v of isLeft) if (best < 0 || near[v].size < near[best].size) best = v;
    isLeft.delete(best);
    order[step] = best;
    const reached = [...near[best]];
    later[best] = Int32Array.from(reached);
    for (const v of reached) {
      near[v].delete(best);
      for (const w of reached) if (w !== v) near[v].add(w);
    }
  }
  return { n, order, later };
}

/** Sets all places of a pattern in rows of n + 1 to nothing. */
export function clear(rows: Float64Array, { n, later }: Pattern): void {
  const width = n + 1;
  for (let v = 0; v < n; v++) {
    rows[v * width + v] = 0;
    rows[v * width + n] = 0;
    const list = later[v];
    for (let i = 0; i < list.length; i++) {
      rows[v * width + list[i]] = 0;
      rows[list[i] * width + v] = 0;
    }
  }
}

/**
 * Gauss elimination in place, rows of n + 1, along a pattern; the answer is left in the last column. Without pivoting: a store's own
 * level weighs no less on what it holds than its neighbours' do. False where that is not so.
 */
export function eliminate(rows: Float64Array, { n, order, later }: Pattern): boolean {
  const width = n + 1;
  for (let step = 0; step < n; step++) {
    const v = order[step];
    const list = later[v];
    const pivot = rows[v * width + v];
    if (!(Math.abs(pivot) >= 1e-14)) return false;
    for (let i = 0; i < list.length; i++) {
      const w = list[i];
      const factor = rows[w * width + v] / pivot;
      if (factor === 0) continue;
      for (let k = 0; k < list.length; k++) rows[w * width + list[k]] -= factor * rows[v * width + list[k]];
      rows[w * width + n] -= factor * rows[v * width + n];
    }
  }
  for (let step = n - 1; step >= 0; step--) {
    const v = order[step];
    const list = later[v];
    let sum = rows[v * width + n];
    for (let i = 0; i < list.length; i++) sum -= rows[v * width + list[i]] * rows[list[i] * width + n];
    rows[v * width + n] = sum / rows[v * width + v];
  }
  return true;
}
