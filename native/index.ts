export { fill } from './fill';
export { countWaiting, descend, findFacets, takeCells } from './flow';

/** Makes room for `bytes` and returns where it starts, on a multiple of 64. */
export function reserve(bytes: usize): usize {
  const base = (__heap_base + 63) & ~63;
  const pages = <i32>((base + bytes + 0xffff) >> 16) - memory.size();
  if (pages > 0) memory.grow(pages);
  return base;
}
