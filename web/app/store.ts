// The one truth of the page: the document with its history, what was computed from it, and what is selected.
import { create } from 'zustand';
import { type Command, type History, execute, redo, startHistory, undo } from '#core/commands';
import type { DeriveResult } from '#core/derive';
import type { Point } from '#core/geometry';
import { type Project, UserError, type UserProblem, assetsOf } from '#core/project';
import type { Said, UnitSystem } from '#core/units';
import { registry } from '#core/works';
import type { Compute, TerrainView } from '../workers/protocol.ts';
import { startCompute } from '../workers/client.ts';
import { picking } from './pick.ts';
import { leaveLastWords, loadAsset, loadSetting, saveAsset, saveProject, saveSetting } from './storage.ts';
import type { ThemeName } from './theme.ts';

/** Name of a tool in web/plan/tools.ts. */
export type ToolKind = string;

export interface Notice {
  readonly tone: 'fine' | 'mend';
  readonly title: Said;
  readonly problems: readonly UserProblem[];
}

export interface AppState {
  readonly history: History | null;
  readonly result: DeriveResult | null;
  /** Revision the result was computed from; behind history.revision while the worker works. */
  readonly computed: number;
  readonly terrain: TerrainView | null;
  readonly progress: { readonly part: string; readonly share: number } | null;
  readonly saved: 'saved' | 'saving' | 'failed' | 'read-only';
  readonly selected: string | null;
  readonly tool: ToolKind | null;
  readonly drawn: readonly Point[];
  readonly notice: Notice | null;
  readonly system: UnitSystem;
  readonly theme: ThemeName;
}

const INITIAL: AppState = {
  history: null,
  result: null,
  computed: -1,
  terrain: null,
  progress: null,
  saved: 'saved',
  selected: null,
  tool: null,
  drawn: [],
  notice: null,
  system: 'metric',
  theme: 'paper',
};

export const useApp = create<AppState>(() => INITIAL);
/** Some members of the state; renders again only when one of them changes. */
export const useAppPick = picking(useApp);
const { getState: get, setState: set } = useApp;

let compute: Compute | null = null;
/** The compute worker, started when first needed. */
export function worker(): Compute {
  compute ??= startCompute((part, share) => set({ progress: share < 1 ? { part, share } : null }));
  return compute;
}

const notComputed = (problems: readonly UserProblem[]): Notice => ({ tone: 'mend', title: 'This could not be computed', problems });
const CRASHED: UserProblem = {
  code: 'compute.failed',
  what: 'the computation stopped on a fault of ours',
  where: {},
  do: 'Undo the last change; what you made is kept. Export the project if it happens again.',
};

let deriving = false;

/** Computes the latest document; edits made meanwhile are computed once more when this is done. */
async function refresh(): Promise<void> {
  const { history } = get();
  if (deriving || !history) return;
  deriving = true;
  const { project, revision } = history;
  try {
    const answer = await worker().derive(project);
    if (get().history?.project.id === project.id) {
      if (answer.ok) set({ result: answer.value, computed: revision });
      else set({ computed: revision, notice: notComputed(answer.problems) });
    }
  } catch {
    set({ computed: revision, notice: notComputed([CRASHED]) });
  } finally {
    deriving = false;
  }
  if (get().history && get().history?.revision !== revision) void refresh();
}

async function refreshTerrain(): Promise<void> {
  const project = get().history?.project;
  if (!project) return;
  const answer = await worker().terrainView(project);
  if (get().history?.project.id === project.id) set({ terrain: answer.ok ? answer.value : null, progress: null });
}

let saveTimer: ReturnType<typeof setTimeout> | undefined;

function saveSoon(): void {
  if (get().saved === 'read-only') return;
  set({ saved: 'saving' });
  clearTimeout(saveTimer);
  saveTimer = setTimeout(() => void saveNow(), 250);
}

/** Writes the document to the browser at once: also when the page is about to go. */
export async function saveNow(): Promise<void> {
  const project = get().history?.project;
  if (!project || get().saved === 'read-only') return;
  clearTimeout(saveTimer);
  try {
    await saveProject(project);
    if (get().history?.project === project) set({ saved: 'saved' });
  } catch {
    set({ saved: 'failed' });
  }
}

/** The page may be gone in a moment: what is not yet kept is written down at once. */
export function leave(): void {
  const { history, saved } = get();
  if (!history || (saved !== 'saving' && saved !== 'failed')) return;
  leaveLastWords(history.project);
  void saveNow();
}

function changed(history: History, before: History | null): void {
  set({ history });
  saveSoon();
  void refresh();
  const [old, now] = [before?.project, history.project];
  if (old?.terrain !== now.terrain || old?.features !== now.features || old?.land !== now.land) void refreshTerrain();
}

/** Applies a command; a refused one changes nothing and says why. Returns whether it was applied. */
export function dispatch(command: Command, gesture?: string): boolean {
  const { history, saved } = get();
  if (!history) return false;
  if (saved === 'read-only') {
    set({ notice: { tone: 'mend', title: 'This project is open in another tab, so it is read-only here', problems: [] } });
    return false;
  }
  try {
    changed(execute(history, command, { registry, ...(gesture === undefined ? {} : { gesture }) }), history);
    if (get().notice?.tone === 'mend') set({ notice: null });
    return true;
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    set({ notice: { tone: 'mend', title: 'That cannot be done', problems: error.problems } });
    return false;
  }
}

export function undoLast(): void {
  const { history } = get();
  if (history && history.past.length > 0 && get().saved !== 'read-only') changed(undo(history), history);
}

export function redoLast(): void {
  const { history } = get();
  if (history && history.future.length > 0 && get().saved !== 'read-only') changed(redo(history), history);
}

/** Opens a project with the assets it came with, or those the browser keeps. */
export async function openProject(
  project: Project,
  how: { readonly assets?: ReadonlyMap<string, Uint8Array>; readonly readOnly?: boolean } = {},
): Promise<void> {
  // The last edits of the project that is still open come first.
  await saveNow();
  let isKept = true;
  for (const [sha, bytes] of how.assets ?? []) isKept = (await keepAsset(sha, bytes)) && isKept;
  for (const name of assetsOf(project)) {
    const bytes = how.assets?.get(name) ?? (await assetBytes(name));
    if (bytes) await worker().keep(name, bytes);
  }
  const works = project.options.find((o) => o.id === project.activeOption)?.works ?? [];
  const first = works.find((w) => w.kind === 'swale' && w.status === 'existing') ?? works[0];
  set({
    history: startHistory(project),
    result: null,
    computed: -1,
    terrain: null,
    selected: first?.id ?? null,
    tool: null,
    drawn: [],
    notice: null,
    saved: how.readOnly ? 'read-only' : isKept ? 'saved' : 'failed',
  });
  await saveSetting('last-project', project.id).catch(() => undefined);
  await Promise.all([refresh(), refreshTerrain()]);
}

/** Assets of this visit that the browser had no room for. */
const unkept = new Map<string, Uint8Array>();

/** Keeps an asset for the worker and, if there is room, for the next visit. Returns whether there was. */
export async function keepAsset(sha256: string, bytes: Uint8Array): Promise<boolean> {
  await worker().keep(sha256, bytes);
  try {
    await saveAsset(sha256, bytes);
    return true;
  } catch {
    unkept.set(sha256, bytes);
    set({ saved: 'failed' });
    return false;
  }
}

/** Bytes of an asset, kept by the browser or held only for this visit. */
export async function assetBytes(sha256: string): Promise<Uint8Array | null> {
  return unkept.get(sha256) ?? (await loadAsset(sha256));
}

export const select = (selected: string | null): void => set({ selected });
export const startTool = (tool: ToolKind | null): void => set({ tool, drawn: [] });
export const setDrawn = (drawn: readonly Point[]): void => set({ drawn });
export const notify = (notice: Notice | null): void => set({ notice });

export function setSystem(system: UnitSystem): void {
  set({ system });
  void saveSetting('system', system);
}

export function setTheme(theme: ThemeName): void {
  set({ theme });
  void saveSetting('theme', theme);
}

export async function loadSettings(): Promise<void> {
  const [system, theme] = await Promise.all([loadSetting<UnitSystem>('system'), loadSetting<ThemeName>('theme')]);
  set({ system: system ?? 'metric', theme: theme ?? 'paper' });
}
