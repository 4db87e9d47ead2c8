// The compiled inner loops (native/) and the memory they work in.
import compiled from './native.json';

/** The little of the platform's interface that is used: core is compiled without a page's types. */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: object };
};
declare function atob(base64: string): string;

/** Places are offsets in the memory [bytes]. */
export interface NativeKernels {
  readonly memory: { readonly buffer: ArrayBuffer };
  reserve(bytes: number): number;
  fill(levels: number, done: number, spare: number, heap: number, seeds: number, ncols: number, cells: number, epsilon: number): void;
  findFacets(filled: number, facet: number, ncols: number, cells: number): void;
  countWaiting(facet: number, state: number, off: number, cells: number): void;
  descend(
    ...places: [
      filled: number,
      facet: number,
      state: number,
      off: number,
      drifts: number,
      jumps: number,
      jumpCount: number,
      receiver: number,
      order: number,
      ready: number,
      cells: number,
    ]
  ): number;
  takeCells(state: number, cells: number, count: number): void;
}

const MODULE = new WebAssembly.Module(Uint8Array.from(atob(compiled.wasm), (c) => c.charCodeAt(0)));

const aligned = (bytes: number): number => Math.ceil(bytes / 64) * 64;

/** Memory up to this size is kept for the next run: fresh memory costs about as much time as the work. Larger is given back. */
const KEPT_BYTES = 192 * 2 ** 20;
let kept: NativeKernels | null = null;

/**
 * The kernels with room for arrays of these sizes [bytes], and where each array starts. What was left there by an earlier run
 * is still there: whoever needs zeros writes them.
 */
export function openNative(sizes: readonly number[]): {
  readonly kernels: NativeKernels;
  readonly buffer: ArrayBuffer;
  readonly at: readonly number[];
} {
  const kernels = kept ?? (new WebAssembly.Instance(MODULE).exports as NativeKernels);
  const total = sizes.reduce((sum, size) => sum + aligned(size), 0);
  let next = kernels.reserve(total);
  const at = sizes.map((size) => {
    const start = next;
    next += aligned(size);
    return start;
  });
  kept = total <= KEPT_BYTES ? kernels : null;
  return { kernels, buffer: kernels.memory.buffer, at };
}
