// Filling of hollows: the inner loop of core/terrain/kernels/fill.ts, which says what it does and by which method.

/** Heap of cells, lowest level first, four children a node: level and cell side by side. */
let size: i32 = 0;
let heap: usize = 0;

@inline
function at(k: i32): usize {
  return heap + (<usize>k << 4);
}

function push(level: f64, cell: i32): void {
  let p = size++;
  while (p > 0) {
    const q = (p - 1) >> 2;
    const above = load<f64>(at(q));
    if (above <= level) break;
    store<f64>(at(p), above);
    store<i32>(at(p), load<i32>(at(q), 8), 8);
    p = q;
  }
  store<f64>(at(p), level);
  store<i32>(at(p), cell, 8);
}

function pop(): i32 {
  const top = load<i32>(at(0), 8);
  const last = at(--size);
  const level = load<f64>(last);
  const cell = load<i32>(last, 8);
  let p = 0;
  for (;;) {
    let c = (p << 2) + 1;
    if (c >= size) break;
    let least = load<f64>(at(c));
    const end = min(c + 4, size);
    for (let k = c + 1; k < end; k++) {
      const v = load<f64>(at(k));
      if (v < least) {
        least = v;
        c = k;
      }
    }
    if (least >= level) break;
    store<f64>(at(p), least);
    store<i32>(at(p), load<i32>(at(c), 8), 8);
    p = c;
  }
  store<f64>(at(p), level);
  store<i32>(at(p), cell, 8);
  return top;
}

let f: usize = 0;
let closed: usize = 0;
let stack: usize = 0;
let queue: usize = 0;
let tail: usize = 0;

/** Finishes a neighbour that is higher than a finished cell; true where it is not higher, and so has to wait. */
@inline
function climb(k: i32, limit: f64): bool {
  if (load<u8>(closed + <usize>k)) return false;
  if (load<f64>(f + (<usize>k << 3)) <= limit) return true;
  store<u8>(closed + <usize>k, 1);
  store<i32>(stack, k);
  stack += 4;
  return false;
}

/** Finishes a neighbour of the lowest cell, raised where it lies below it. */
@inline
function flood(k: i32, limit: f64): void {
  if (load<u8>(closed + <usize>k)) return;
  store<u8>(closed + <usize>k, 1);
  if (load<f64>(f + (<usize>k << 3)) <= limit) {
    store<f64>(f + (<usize>k << 3), limit);
    store<i32>(queue + tail, k);
    tail += 4;
  } else {
    store<i32>(stack, k);
    stack += 4;
  }
}

/**
 * Raises `levels` in place. `done` is 1 for cells finished from the start and on a spare row and cell at both ends; `seeds`
 * cells stand at the foot of `spare`, whose three parts of n cells are stack, queue and again.
 */
export function fill(levels: usize, done: usize, spare: usize, heapAt: usize, seeds: i32, ncols: i32, n: i32, epsilon: f64): void {
  f = levels;
  closed = done;
  heap = heapAt;
  size = 0;
  const part = <usize>n << 2;
  const bottom = spare;
  stack = spare + (<usize>seeds << 2);
  queue = spare + part;
  const again = queue + part;
  let head: usize = 0;
  tail = 0;
  for (;;) {
    let waiting = again;
    while (stack != bottom) {
      stack -= 4;
      const m = load<i32>(stack);
      const limit = load<f64>(f + (<usize>m << 3)) + epsilon;
      let open = climb(m + 1, limit);
      open = climb(m + ncols + 1, limit) || open;
      open = climb(m + ncols, limit) || open;
      open = climb(m + ncols - 1, limit) || open;
      open = climb(m - 1, limit) || open;
      open = climb(m - ncols + 1, limit) || open;
      open = climb(m - ncols, limit) || open;
      open = climb(m - ncols - 1, limit) || open;
      if (open) {
        store<i32>(waiting, m);
        waiting += 4;
      }
    }
    for (let j = again; j != waiting; j += 4) {
      const m = load<i32>(j);
      const c = closed + <usize>m;
      const row = <usize>ncols;
      const all = load<u8>(c, 1) & load<u8>(c + row + 1) & load<u8>(c + row) & load<u8>(c + row - 1) & load<u8>(c - 1) & load<u8>(c - row + 1) & load<u8>(c - row) & load<u8>(c - row - 1);
      if (all == 0) push(load<f64>(f + (<usize>m << 3)), m);
    }
    // Next lowest cell: from the queue of raised cells while its front is not above the heap's top.
    let m: i32 = 0;
    if (head != tail && (size == 0 || load<f64>(f + (<usize>load<i32>(queue + head) << 3)) <= load<f64>(heap))) {
      m = load<i32>(queue + head);
      head += 4;
    } else if (size > 0) m = pop();
    else break;
    const limit = load<f64>(f + (<usize>m << 3)) + epsilon;
    flood(m + 1, limit);
    flood(m + ncols + 1, limit);
    flood(m + ncols, limit);
    flood(m + ncols - 1, limit);
    flood(m - 1, limit);
    flood(m - ncols - 1, limit);
    flood(m - ncols, limit);
    flood(m - ncols + 1, limit);
  }
}
