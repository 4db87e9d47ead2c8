// One tab writes a project; others read. Locks of the browser where it has them, else a lease that tabs ask each other about.
import { Lease } from './lease.ts';

const LOCK = 'outlet-project-';
const SHORT_WAIT_MS = 600;
let release: (() => void) | null = null;
let heldId: string | null = null;
let waiting: AbortController | null = null;
const hasLocks = typeof navigator !== 'undefined' && 'locks' in navigator;
const lease = hasLocks ? null : new Lease();

/** Asks for the lock of a project; resolves when it is had, or with false when `signal` ends the wait. */
function request(id: string, signal: AbortSignal): Promise<boolean> {
  return new Promise((resolve) => {
    navigator.locks
      .request(LOCK + id, { signal }, () => {
        resolve(true);
        // Only now is the project that this tab had free for others.
        release?.();
        heldId = id;
        return new Promise<void>((done) => {
          release = done;
        });
      })
      .catch(() => resolve(false));
  });
}

/**
 * Whether this tab may write the project: the first tab to open it holds a lock until it opens another or closes. A page
 * that was just left lets go a moment later, so a short wait comes first. Refused, `onLater` is told when the lock is had.
 */
export async function claim(id: string, onLater?: () => void): Promise<boolean> {
  if (lease) return lease.claim(id, onLater);
  waiting?.abort();
  if (heldId === id) return true;
  if (await request(id, AbortSignal.timeout(SHORT_WAIT_MS))) return true;
  if (onLater) {
    waiting = new AbortController();
    void request(id, waiting.signal).then((isHad) => isHad && onLater());
  }
  return false;
}

/** Whether this tab still holds what it claimed; a lock is never taken away, a lease may run out while a tab sleeps. */
export const stillHolds = (id: string): boolean => lease?.renew(id) ?? true;

/** Whether another tab may be changing this project. */
export async function isOpenElsewhere(id: string): Promise<boolean> {
  if (lease) return lease.isHeldElsewhere(id);
  const { held = [] } = await navigator.locks.query();
  return heldId !== id && held.some(({ name }) => name === LOCK + id);
}
