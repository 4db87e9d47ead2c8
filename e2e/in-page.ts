// What runs in the page itself: sent there as it is written, it can use nothing that stands outside it.

/** Every step is undone, one after the other as they are drawn, and worked out: figures of before would else be taken for those of now. */
export async function undoAll(): Promise<void> {
  const button = (): HTMLButtonElement | null => document.querySelector('button[aria-label="Undo"]');
  for (let undo = button(); undo && !undo.disabled; undo = button()) {
    undo.click();
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  for (let looks = 0; looks < 600 && document.querySelector('[aria-busy="true"]'); looks++)
    await new Promise((resolve) => setTimeout(resolve, 50));
}

/** Ends when the page itself has let so much time go by that the next click makes no double click, however busy it was. */
export const afterAClick = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 350));

/** The page is busy for so long each of the next times a button is let go. */
export function busyAfterClicks(times: number, forMs: number): void {
  let left = times;
  const busy = (): void => {
    for (const until = performance.now() + forMs; performance.now() < until;);
    if (--left === 0) removeEventListener('pointerup', busy, true);
  };
  addEventListener('pointerup', busy, true);
}

/** Whether no list lies over the page, nor has left what lies under it out of reach. */
export const isUncovered = (): boolean =>
  document.querySelector('[role="menu"], [role="listbox"]') === null &&
  (document.querySelector('.ol-viewport')?.closest('[inert], [aria-hidden="true"]') ?? null) === null;

/** What a region says with plain spaces, once that matches; null when it never does. */
export function textOnce(selector: string, [source, flags]: readonly [string, string], forMs: number): Promise<string | null> {
  const pattern = new RegExp(source, flags);
  return new Promise((resolve) => {
    let isStale = true;
    const watch = new MutationObserver(() => {
      isStale = true;
    });
    const end = (text: string | null): void => {
      watch.disconnect();
      clearInterval(looking);
      clearTimeout(limit);
      resolve(text);
    };
    const look = (): void => {
      if (!isStale) return;
      isStale = false;
      const region = document.querySelector(selector);
      const text = (region instanceof HTMLElement ? region.innerText : (region?.textContent ?? '')).replace(/[\u00a0\u202f]/g, ' ');
      if (region && pattern.test(text)) end(text);
    };
    watch.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
    const looking = setInterval(look, 60);
    const limit = setTimeout(() => end(null), forMs);
    look();
  });
}

/** Ends when nothing on the page has moved for so long, or has not held still for longer. */
export function stillFor(quietMs: number, mostMs: number): Promise<void> {
  return new Promise((resolve) => {
    const done = (): void => {
      watch.disconnect();
      clearTimeout(quiet);
      clearTimeout(limit);
      resolve();
    };
    let quiet = setTimeout(done, quietMs);
    const limit = setTimeout(done, mostMs);
    const watch = new MutationObserver(() => {
      clearTimeout(quiet);
      quiet = setTimeout(done, quietMs);
    });
    watch.observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
  });
}

/** A project as the browser keeps it. */
export const keptProject = (id: string): Promise<unknown> =>
  new Promise((resolve, reject) => {
    const request = indexedDB.open('outlet');
    request.onerror = () => reject(new Error('no storage'));
    request.onsuccess = () => {
      const get = request.result.transaction('projects').objectStore('projects').get(id);
      get.onsuccess = () => resolve((get.result as { project: unknown }).project);
    };
  });
