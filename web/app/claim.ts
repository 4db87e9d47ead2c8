// One tab writes a project; others read.
let release: (() => void) | null = null;
let heldId: string | null = null;

/** Whether this tab may write the project: the first tab to open it holds a lock until it closes. */
export function claim(id: string): Promise<boolean> {
  if (heldId === id) return Promise.resolve(true);
  release?.();
  heldId = null;
  return new Promise((resolve) => {
    if (!('locks' in navigator)) {
      resolve(true);
      return;
    }
    void navigator.locks.request(`outlet-project-${id}`, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      if (lock === null) return undefined;
      heldId = id;
      return new Promise<void>((done) => {
        release = done;
      });
    });
  });
}
