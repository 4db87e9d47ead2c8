import type { StoreApi, UseBoundStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';

/** A hook that reads some members of a store and renders again only when one of them changes. */
export function picking<S extends object>(useStore: UseBoundStore<StoreApi<S>>): <K extends keyof S>(...keys: readonly K[]) => Pick<S, K> {
  return function usePicked<K extends keyof S>(...keys: readonly K[]): Pick<S, K> {
    return useStore(useShallow((state) => Object.fromEntries(keys.map((key) => [key, state[key]])) as Pick<S, K>));
  };
}
