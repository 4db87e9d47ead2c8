// Linear systems of stores that hang on few neighbours each: solved along the ways between them, as trees of pipes ask for.

/**
 * Where each coefficient of a system stands among its values, and in what order unknowns are taken out. A value on the diagonal
 * stands at the number of its unknown; each pair of others that meet, two values behind those. Made once for a group.
 */
export interface Pattern {
  readonly n: number;
  /** How many values there are. */
  readonly size: number;
  /** Unknowns in the order they are taken out: fewest neighbours first (minimum degree), so that in a tree nothing fills in. */
  readonly order: Int32Array;
  /** From where in the three lists below each unknown has its own, by its place in the order; one more for the end of the last. */
  readonly from: Int32Array;
  /** Unknowns still met when one is taken out; where its own row has them, and where their rows have it. */
  readonly met: Int32Array;
  readonly across: Int32Array;
  readonly down: Int32Array;
  /** Where what two of them have in common stands, row by row of those met, in the order they are come by. */
  readonly filled: Int32Array;
  /** Where the coefficient of an unknown in the row of another stands. */
  readonly placeOf: (row: number, column: number) => number;
}

/** In what order unknowns are taken out, and whom each still meets then, what fills in among them counted. */
function takenOut(n: number, pairs: readonly (readonly [number, number])[]): { readonly v: number; readonly met: readonly number[] }[] {
  const near = Array.from({ length: n }, () => new Set<number>());
  for (const [a, b] of pairs)
    if (a !== b) {
      near[a].add(b);
      near[b].add(a);
    }
  const isLeft = new Set(near.keys());
  return Array.from({ length: n }, () => {
    let best = -1;
    for (const v of isLeft) if (best < 0 || near[v].size < near[best].size) best = v;
    isLeft.delete(best);
    const met = [...near[best]];
    for (const v of met) {
      near[v].delete(best);
      for (const w of met) if (w !== v) near[v].add(w);
    }
    return { v: best, met };
  });
}

/** The pattern of a system of so many unknowns, by the pairs that hang on each other. */
export function patternOf(n: number, pairs: readonly (readonly [number, number])[]): Pattern {
  const taken = takenOut(n, pairs);
  const places = new Map<number, number>();
  let size = n;
  for (const { v, met } of taken)
    for (const w of met) {
      places.set(v * n + w, size++);
      places.set(w * n + v, size++);
    }
  const placeOf = (row: number, column: number): number => {
    const at = row === column ? row : places.get(row * n + column);
    if (at === undefined) throw new Error(`${row} and ${column} hang on nothing in common`);
    return at;
  };
  const from = new Int32Array(n + 1);
  taken.forEach(({ met }, step) => (from[step + 1] = from[step] + met.length));
  return {
    n,
    size,
    order: Int32Array.from(taken, (t) => t.v),
    from,
    met: Int32Array.from(taken.flatMap((t) => t.met)),
    across: Int32Array.from(taken.flatMap(({ v, met }) => met.map((w) => placeOf(v, w)))),
    down: Int32Array.from(taken.flatMap(({ v, met }) => met.map((w) => placeOf(w, v)))),
    filled: Int32Array.from(taken.flatMap(({ met }) => met.flatMap((w) => met.map((x) => placeOf(w, x))))),
    placeOf,
  };
}

/**
 * Gauss elimination in place along a pattern; the answer is left in `right`. Without pivoting: a store's own level weighs no less on
 * what it holds than its neighbours' do. False where that is not so.
 */
export function eliminate(values: Float64Array, right: Float64Array, pattern: Pattern): boolean {
  const { n, order, from, met, across, down, filled } = pattern;
  let fill = 0;
  for (let step = 0; step < n; step++) {
    const v = order[step];
    const first = from[step];
    const end = from[step + 1];
    const pivot = values[v];
    if (!(Math.abs(pivot) >= 1e-14)) return false;
    for (let i = first; i < end; i++) {
      const factor = values[down[i]] / pivot;
      if (factor === 0) {
        fill += end - first;
        continue;
      }
      for (let k = first; k < end; k++) values[filled[fill++]] -= factor * values[across[k]];
      right[met[i]] -= factor * right[v];
    }
  }
  for (let step = n - 1; step >= 0; step--) {
    const v = order[step];
    let sum = right[v];
    for (let i = from[step]; i < from[step + 1]; i++) sum -= values[across[i]] * right[met[i]];
    right[v] = sum / values[v];
  }
  return true;
}
