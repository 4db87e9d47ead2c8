import type { QuantityKind } from '../../units/index.ts';

/** How deep the deepest cut of some pegs is; where nothing is dug, how little the least fill is. */
export function deepestWords(
  pegs: readonly { readonly cutM: number | null }[],
  q: (value: number | null, kind: QuantityKind) => string,
): { readonly before: string; readonly figure: string } {
  let deepest: number | null = null;
  for (const { cutM } of pegs) if (cutM !== null && (deepest === null || cutM > deepest)) deepest = cutM;
  return deepest !== null && deepest < 0
    ? { before: ', all above the ground, the least by ', figure: q(-deepest, 'length') }
    : { before: ', the deepest cut ', figure: q(deepest, 'length') };
}
