// Plain JSON with one member replaced, for tests of what readers take.
export type Tree = Record<string, unknown>;

/** Dotted paths of all members of a tree. */
export function pathsIn(tree: Tree, before = ''): string[] {
  return Object.entries(tree).flatMap(([key, value]) => {
    const path = before === '' ? key : `${before}.${key}`;
    return typeof value === 'object' && value !== null ? [path, ...pathsIn(value as Tree, path)] : [path];
  });
}

/** A copy with another value at a dotted path. */
export function replacedAt(tree: Tree, path: string, value: unknown): Tree {
  const copy = structuredClone(tree);
  const keys = path.split('.');
  const last = keys.pop() ?? '';
  keys.reduce<Tree>((at, key) => at[key] as Tree, copy)[last] = value;
  return copy;
}

/** JSON in which figures that are none can be seen; plain JSON writes them as null. */
export const withFaults = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' && !Number.isFinite(v) ? 'NOT FINITE' : v));
