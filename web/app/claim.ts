// One tab writes a project; others read.
const LOCK = 'outlet-project-';
const SHORT_WAIT_MS = 600;
let release: (() => void) | null = null;
let heldId: string | null = null;
let waiting: AbortController | null = null;

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
  waiting?.abort();
  if (heldId === id || !('locks' in navigator)) return true;
  if (await request(id, AbortSignal.timeout(SHORT_WAIT_MS))) return true;
  if (onLater) {
    waiting = new AbortController();
    void request(id, waiting.signal).then((isHad) => isHad && onLater());
  }
  return false;
}

async function heldElsewhere(): Promise<string[]> {
  if (!('locks' in navigator)) return [];
  const { held = [] } = await navigator.locks.query();
  return held.flatMap(({ name = '' }) => (name.startsWith(LOCK) && name !== `${LOCK}${heldId}` ? [name.slice(LOCK.length)] : []));
}

/** Whether another tab may be changing this project. */
export const isOpenElsewhere = async (id: string): Promise<boolean> => (await heldElsewhere()).includes(id);

/** Whether another tab has any project open: its undo may name what no kept document does. */
export const isAnotherOpen = async (): Promise<boolean> => (await heldElsewhere()).length > 0;
