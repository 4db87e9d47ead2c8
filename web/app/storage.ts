// What the browser keeps: projects, their terrain assets, and a few settings, each in its own store.
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
}

export async function listProjects(): Promise<ProjectLine[]> {
  await recovered();
  const lines: ProjectLine[] = [];
  await projects.iterate<Kept, void>(({ project, savedAt }) => {
    lines.push({ id: project.id, name: project.name, savedAt });
  });
  return lines.sort((a, b) => b.savedAt - a.savedAt);
}

export async function loadProject(id: string): Promise<Project | null> {
  await recovered();
  return (await projects.getItem<Kept>(id))?.project ?? null;
}

export async function saveProject(project: Project): Promise<void> {
  await projects.setItem<Kept>(project.id, { project, savedAt: Date.now() });
  localStorage.removeItem(LAST_WORDS + project.id);
}

const LAST_WORDS = 'outlet-unsaved:';

/**
 * Writes a project down before this returns. A page that is about to go has no time for the real store, whose writes end
 * later: what they would lose is taken up from here on the next visit. Without room it does nothing.
 */
export function leaveLastWords(project: Project): void {
  try {
    localStorage.setItem(LAST_WORDS + project.id, JSON.stringify(project));
  } catch {
    // No room: the ordinary save is still on its way.
  }
}

async function takeUpLastWords(): Promise<void> {
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith(LAST_WORDS))) {
    const words = localStorage.getItem(key);
    if (words !== null) await saveProject(JSON.parse(words) as Project);
  }
}

let recovery: Promise<void> | null = null;
/** Resolves once what an earlier visit could not save is in the store. */
const recovered = (): Promise<void> => (recovery ??= takeUpLastWords());

export async function removeProject(id: string): Promise<void> {
  await projects.removeItem(id);
  localStorage.removeItem(LAST_WORDS + id);
}

export async function saveAsset(sha256: string, bytes: Uint8Array): Promise<void> {
  await assets.setItem(sha256, bytes);
}

export function loadAsset(sha256: string): Promise<Uint8Array | null> {
  return assets.getItem<Uint8Array>(sha256);
}

/** Drops assets that no kept project names. Undo within a session may still want one, so it runs only between projects. */
export async function collectAssets(): Promise<void> {
  const used = new Set<string>();
  await projects.iterate<Kept, void>(({ project }) => {
    for (const name of assetsOf(project)) used.add(name);
  });
  for (const key of await assets.keys()) if (!used.has(key)) await assets.removeItem(key);
}

export function loadSetting<T>(name: string): Promise<T | null> {
  return settings.getItem<T>(name);
}

export async function saveSetting(name: string, value: unknown): Promise<void> {
  await settings.setItem(name, value);
}
