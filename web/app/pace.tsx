// Two paces of one truth: what a hand drags follows it at once; what is read beside it follows a few times a second, and at once when
// the hand rests.
import { type ReactNode, createContext, useContext } from 'react';
import { type StateCreator, type StoreApi, type UseBoundStore, create, createStore, useStore } from 'zustand';

/** Whether what is shown here is read rather than held: it may come a moment after a hand that drags. */
const IsRead = createContext(false);
/** Around a part of the page that is read. */
export const Read = ({ children }: { readonly children: ReactNode }): ReactNode => <IsRead value={true}>{children}</IsRead>;

/** How often what is read follows while something is dragged [ms]. */
const READ_EVERY_MS = 250;
/** Where showing it takes long, less often: it has this share of the page's time at most, but follows once in so long [ms]. */
const READ_SHARE = 0.1;
const READ_AT_LEAST_MS = 1000;
/** A hand that has not moved for so long rests [ms]. */
const RESTS_MS = 400;

export interface Paced<S> extends UseBoundStore<StoreApi<S>> {
  /** A hand drags something: what is read need not follow each step. */
  readonly drags: () => void;
  /** It has let go: what is read follows at once. */
  readonly letsGo: () => void;
  /** Waits until it has, or has not moved for a while; not at all where nothing is dragged. */
  readonly rests: () => Promise<void>;
}

/** A store that is followed at two paces, by where in the page it is read. Outside the page it says at once what it holds. */
export function paced<S extends object>(begin: StateCreator<S>): Paced<S> {
  const held = create<S>(begin);
  const read = createStore<S>(() => held.getState());
  let draggedAt = -Infinity;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Whoever waits for the hand to rest waits for one thing. */
  let resting: Promise<void> | null = null;
  let wake: () => void = () => undefined;
  const restsFor = (): number => performance.now() - draggedAt;
  /** How long it took to show what is read, when it followed a hand last [ms]. */
  let tookMs = 0;
  const follow = (): void => {
    clearTimeout(timer);
    timer = undefined;
    read.setState(held.getState(), true);
  };
  const followHand = (): void => {
    const start = performance.now();
    follow();
    // The page renders at the end of this turn, before anything else.
    queueMicrotask(() => (tookMs = performance.now() - start));
  };
  const everyMs = (): number => Math.min(READ_AT_LEAST_MS, Math.max(READ_EVERY_MS, tookMs / READ_SHARE));
  held.subscribe(() => {
    if (restsFor() > RESTS_MS) follow();
    else timer ??= setTimeout(followHand, everyMs());
  });
  function usePaced<U>(select: (state: S) => U): U {
    return useStore<StoreApi<S>, U>(useContext(IsRead) ? read : held, select);
  }
  const drags = (): void => {
    draggedAt = performance.now();
  };
  const letsGo = (): void => {
    draggedAt = -Infinity;
    follow();
    wake();
  };
  const untilRest = async (): Promise<void> => {
    while (restsFor() <= RESTS_MS) {
      await new Promise<void>((resolve) => {
        wake = resolve;
        setTimeout(resolve, RESTS_MS - restsFor() + 1);
      });
    }
  };
  const rests = (): Promise<void> =>
    (resting ??= untilRest().then(() => {
      resting = null;
    }));
  return Object.assign(usePaced as UseBoundStore<StoreApi<S>>, { ...held, drags, letsGo, rests });
}
