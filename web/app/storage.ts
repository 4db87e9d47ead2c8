// What the browser keeps: projects, their terrain assets, and a few settings, each in its own store. Each kept thing is read
// or fails by itself.
import localforage from 'localforage';
import { type Project, assetsOf } from '#core/project';

const store = (name: string): LocalForage => localforage.createInstance({ name: 'outlet', storeName: name });
const projects = store('projects');
const assets = store('assets');
const settings = store('settings');

interface Kept {
  readonly project: Project;
  readonly savedAt: number;
}

export interface ProjectLine {
  readonly id: string;
  readonly name: string;
  readonly savedAt: number;
  /** Whether it could be read at all. */
  readonly isReadable: boolean;
}

const LAST_WORDS = 'outlet-unsaved:';

/** What a page wrote down as it went, newer than what is kept; null where there is none. */
function lastWords(id: string): Kept | null {
  try {
    const words = JSON.parse(localStorage.getItem(LAST_WORDS + id) ?? 'null') as (Partial<Kept> & { readonly id?: unknown }) | null;
    // Written by an earlier version without its time: it was only ever left when it was the newest.
    if (words?.id === id) return { project: words as unknown as Project, savedAt: Infinity };
    return words?.project?.id === id && typeof words.savedAt === 'number' ? { project: words.project, savedAt: words.savedAt } : null;
  } catch {
    return null;
  }
}

function idsWithLastWords(): string[] {
  try {
    return Object.keys(localStorage).flatMap((k) => (k.startsWith(LAST_WORDS) ? [k.slice(LAST_WORDS.length)] : []));
  } catch {
    return [];
  }
}

/** The newest of what is kept under an id: the store's, or the last words of a page that could not save. */
async function newest(id: string): Promise<Kept | null> {
  const words = lastWords(id);
  const kept = await projects.getItem<Kept>(id).catch((error: unknown) => {
    // Without the store the last words are all there is.
    if (words) return null;
    throw error;
  });
  return words && words.savedAt >= (kept?.savedAt ?? -Infinity) ? words : kept;
}

const isNamed = (project: unknown): project is { readonly name: string } =>
  typeof (project as { name?: unknown } | null | undefined)?.name === 'string';

/** All kept projects, the newest first; one that cannot be read is listed all the same. */
export async function listProjects(): Promise<ProjectLine[]> {
  const ids = new Set([...(await projects.keys().catch(() => [])), ...idsWithLastWords()]);
  const lines = await Promise.all(
    [...ids].map(async (id): Promise<ProjectLine> => {
      const kept = await newest(id).catch(() => null);
      const name = isNamed(kept?.project) ? kept.project.name : id;
      const savedAt = kept?.savedAt ?? 0;
      return { id, name, savedAt: Number.isFinite(savedAt) ? savedAt : Date.now(), isReadable: kept !== null };
    }),
  );
  return lines.sort((a, b) => b.savedAt - a.savedAt);
}

/** A project as it was kept, not judged yet; null where there is none. Rejects where the browser cannot read it. */
export async function loadProject(id: string): Promise<Project | null> {
  return (await newest(id))?.project ?? null;
}

export async function saveProject(project: Project): Promise<void> {
  const savedAt = Date.now();
  await projects.setItem<Kept>(project.id, { project, savedAt });
  // Only words that this write outdates: a page may have left newer ones meanwhile.
  const words = lastWords(project.id);
  if (!words || words.savedAt <= savedAt || words.savedAt === Infinity) localStorage.removeItem(LAST_WORDS + project.id);
}

/**
 * Writes a project down before this returns. A page that is about to go has no time for the real store, whose writes end
 * later: what they would lose is taken up from here on the next visit. Without room it does nothing.
 */
export function leaveLastWords(project: Project): void {
  try {
    localStorage.setItem(LAST_WORDS + project.id, JSON.stringify({ project, savedAt: Date.now() } satisfies Kept));
  } catch {
    // No room: the ordinary save is still on its way.
  }
}

export async function removeProject(id: string): Promise<void> {
  await projects.removeItem(id);
  localStorage.removeItem(LAST_WORDS + id);
}

const IN_USE = 'outlet-assets';
let holdsAssets = false;

/** From its first import on, a page keeps every other from clearing out assets: its undo may name what no document does. */
function holdAssets(): void {
  if (holdsAssets || !('locks' in navigator)) return;
  holdsAssets = true;
  void navigator.locks.request(IN_USE, { mode: 'shared' }, () => new Promise<void>(() => undefined));
}

/** Assets are kept as blobs: a large one then crosses to a worker and back without the page ever reading it. */
export async function saveAsset(sha256: string, blob: Blob): Promise<void> {
  holdAssets();
  await assets.setItem(sha256, blob);
}

export async function loadAsset(sha256: string): Promise<Blob | null> {
  const kept = await assets.getItem<Blob | Uint8Array<ArrayBuffer>>(sha256);
  // Those of earlier visits may be kept as bytes.
  return kept === null || kept instanceof Blob ? kept : new Blob([kept]);
}

/** Names of the assets that any kept project needs. Rejects when one cannot be read: it may need any of them. */
async function assetsInUse(): Promise<Set<string>> {
  const ids = new Set([...(await projects.keys()), ...idsWithLastWords()]);
  const used = new Set<string>();
  for (const id of ids) {
    for (const { project } of [await projects.getItem<Kept>(id), lastWords(id)].filter((k) => k !== null))
      for (const name of assetsOf(project)) used.add(name);
  }
  return used;
}

/**
 * Drops assets that no kept project names. Not in a visit that brought something in, in this tab or another, and not where
 * tabs cannot be kept apart.
 */
export async function collectAssets(): Promise<void> {
  if (holdsAssets || !('locks' in navigator)) return;
  await navigator.locks.request(IN_USE, { mode: 'exclusive', ifAvailable: true }, async (lock) => {
    if (!lock) return;
    const used = await assetsInUse();
    for (const key of await assets.keys()) if (!used.has(key)) await assets.removeItem(key);
  });
}

export function loadSetting<T>(name: string): Promise<T | null> {
  return settings.getItem<T>(name).catch(() => null);
}

export async function saveSetting(name: string, value: unknown): Promise<void> {
  await settings.setItem(name, value).catch(() => undefined);
}

/** Whether the browser can keep anything at all right now. */
export async function canKeep(): Promise<boolean> {
  try {
    await settings.setItem('probe', 'x'.repeat(2000));
    await settings.removeItem('probe');
    return true;
  } catch {
    return false;
  }
}
