// Marks are drawn once: while what they are of is one thing, and so is what else they show, they are what they were.

/** Draws what hangs on a thing and on some words or things beside it; what was drawn of it last is given again where these are the same. */
export function drawnOnce<T>(): (of: object, beside: readonly unknown[], draw: () => T) => T {
  const drawn = new WeakMap<object, { readonly beside: readonly unknown[]; readonly made: T }>();
  return (of, beside, draw) => {
    const known = drawn.get(of);
    if (known && known.beside.length === beside.length && known.beside.every((one, k) => one === beside[k])) return known.made;
    const made = draw();
    drawn.set(of, { beside, made });
    return made;
  };
}
