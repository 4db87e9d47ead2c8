import { type LazyExoticComponent, type ReactNode, lazy } from 'react';

/** A component of a module that comes when it is first shown, or fetched before. */
export function lazily<K extends string, P extends object = object>(
  load: () => Promise<Readonly<Record<K, (props: P) => ReactNode>>>,
  name: K,
): { readonly View: LazyExoticComponent<(props: P) => ReactNode>; readonly fetch: () => void } {
  return {
    View: lazy(() => load().then((module) => ({ default: module[name] }))),
    // Where it cannot come now, it is asked for again when it is shown.
    fetch: () => void load().catch(() => undefined),
  };
}
