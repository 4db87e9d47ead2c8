// The one truth of the page: the document with its history, what was computed from it, and what is selected.
import { type Command, type History, execute, redo, startHistory, undo } from '#core/commands';
import type { DeriveResult } from '#core/derive';
import type { Point } from '#core/geometry';
import { type Project, type UserProblem, assetsOf, problemsThrown, workedAssetsOf } from '#core/project';
import type { Said, UnitSystem } from '#core/units';
import { catalogue } from '#core/works';
import { type Asked, NOTHING_ASKED } from './asked.ts';
import type { Answer, Compute, TerrainView } from '../workers/protocol.ts';
import { Sender } from '../workers/document.ts';
import { type Parcel, Unpacker } from '../workers/parts.ts';
import { type Running, Stopped, startCompute } from '../workers/client.ts';
import { stillHolds } from './claim.ts';
import { following } from './following.ts';
import { paced } from './pace.tsx';
import { picking } from './pick.ts';
import { shapesOf } from './shapes.ts';
import { leaveLastWords, loadAsset, loadSetting, saveAsset, saveProject, saveSetting } from './storage.ts';
import type { ThemeName } from './theme.ts';

/** Name of a tool in web/plan/tools.ts. */
export type ToolKind = string;

export interface Notice {
  readonly tone: 'fine' | 'mend';
  readonly title: Said;
  readonly problems: readonly UserProblem[];
  /** Answers the user may give to it. */
  readonly choices?: readonly { readonly name: string; readonly choose: () => void }[];
}

/** How many checks are to mend, and to weigh. */
export interface Counts {
  readonly mend: number;
  readonly weigh: number;
}

const NO_CHECKS: Counts = { mend: 0, weigh: 0 };

function countsOf({ derived: { checks } }: DeriveResult): Counts {
  const of = (severity: keyof Counts): number => checks.filter((c) => c.severity === severity).length;
  return { mend: of('mend'), weigh: of('weigh') };
}

export interface AppState extends Asked {
  readonly history: History | null;
  readonly result: DeriveResult | null;
  /** Checks of the last result of a whole set: while something is dragged only a part of them is at hand. */
  readonly counts: Counts;
  /** Revision the result was computed from; behind history.revision while the worker works. */
  readonly computed: number;
  readonly terrain: TerrainView | null;
  readonly progress: { readonly part: string; readonly share: number } | null;
  /** Whether the worker works on the document right now, and whether the user stopped it. */
  readonly isComputing: boolean;
  readonly isStopped: boolean;
  /** A file being read or written, which can be given up. */
  readonly job: { readonly title: string; readonly part: string; readonly share: number; readonly cancel: () => void } | null;
  readonly saved: 'saved' | 'saving' | 'failed' | 'read-only';
  /** Why this tab may not write. */
  readonly readOnlyWhy: string;
  readonly selected: string | null;
  readonly tool: ToolKind | null;
  readonly drawn: readonly Point[];
  readonly notice: Notice | null;
  readonly system: UnitSystem;
  readonly theme: ThemeName;
  /** Length of the storm that is looked at; null for the one that governs. */
  readonly shownMin: number | null;
}

const INITIAL: AppState = {
  history: null,
  result: null,
  counts: NO_CHECKS,
  computed: -1,
  terrain: null,
  progress: null,
  isComputing: false,
  isStopped: false,
  job: null,
  saved: 'saved',
  readOnlyWhy: '',
  selected: null,
  tool: null,
  drawn: [],
  notice: null,
  ...NOTHING_ASKED,
  system: 'metric',
  theme: 'paper',
  shownMin: null,
};

export const useApp = paced<AppState>(() => INITIAL);
/** Some members of the state; renders again only when one of them changes. */
export const useAppPick = picking(useApp);
const { getState: get, setState: set } = useApp;

let running: Running<Compute> | null = null;
/** Assets the running worker has: a new one must be given them again. */
let given = new Map<string, Promise<void>>();
/** Sends the worker documents, and puts its answers together; with a new worker both begin anew. */
let [sender, unpacker] = [new Sender(), new Unpacker()];

/** The compute worker, started when first needed. */
export function worker(): Compute {
  running ??= startCompute((part, share) => set({ progress: share < 1 ? { part, share } : null }));
  return running.worker;
}

/** Ends the worker; the next question starts another. */
function endWorker(): void {
  running?.stop();
  running = null;
  given = new Map();
  [sender, unpacker] = [new Sender(), new Unpacker()];
}

/** Ends the computation at once, whatever it is at; the document stays, and `goOn` takes it up again. */
export function stopComputing(): void {
  endWorker();
  set({ progress: null, isComputing: false, isStopped: true });
}

export function goOn(): void {
  set({ isStopped: false });
  void refreshTerrain();
  void refresh();
}

const notComputed = (problems: readonly UserProblem[]): Notice => ({ tone: 'mend', title: 'This could not be computed', problems });
const CRASHED: UserProblem = {
  code: 'compute.failed',
  what: 'the computation stopped on a fault of ours',
  where: {},
  do: 'Undo the last change; what you made is kept. Export the project if it happens again.',
};

async function give(name: string): Promise<void> {
  const blob = await assetOf(name).catch(() => null);
  if (!blob) return;
  const answer = await worker().keep(name, blob);
  if (!answer.ok) set({ notice: { tone: 'mend', title: 'A part of this project cannot be read', problems: answer.problems } });
}

/** Gives the worker the assets a document is worked out from and it has not got yet; one that cannot be had is told of by what needs it. */
export async function giveAssets(project: Project): Promise<void> {
  for (const name of workedAssetsOf(project)) {
    if (!given.has(name)) given.set(name, give(name));
    await given.get(name);
  }
}

/** What of a document is asked for now; an edit or another storm to be shown makes it old. */
interface Wanted {
  readonly history: History;
  readonly shownMin: number | null;
}

const wanted = (): Wanted | null => {
  const { history, shownMin, isStopped } = get();
  return history && !isStopped ? { history, shownMin } : null;
};
const isOld = ({ history, shownMin }: Wanted): boolean => {
  const now = get();
  return now.history?.project.id !== history.project.id || now.history.revision !== history.revision || now.shownMin !== shownMin;
};

/** Shows an answer; true where it is of only part of the set. */
function show({ history: { project, revision } }: Wanted, answer: Answer<Parcel>): boolean {
  if (!answer.ok && answer.isDropped === true) return false;
  // Unpacked even when it is no longer wanted: the next answer builds on it.
  const result = answer.ok ? unpacker.unpack(answer.value) : null;
  if (get().history?.project.id !== project.id) return false;
  if (result) set({ result, computed: revision, ...(result.view.isWhole ? { counts: countsOf(result) } : {}) });
  else if (!answer.ok) set({ computed: revision, notice: notComputed(answer.problems) });
  return result !== null && !result.view.isWhole;
}

/** Computes the latest document, by the storms that decided last and then by all. */
const refresh = following<Wanted, Answer<Parcel>>({
  wanted,
  isOld,
  show,
  ask: async ({ history: { project }, shownMin }, how) => {
    const compute = worker();
    await giveAssets(project);
    // One that was ended meanwhile has its parts with it: another must not be asked in its place.
    if (running?.worker !== compute) throw new Stopped();
    return { answer: compute.derive(sender.send(project), { ...how, shownMin }) };
  },
  rests: () => useApp.rests(),
  drop: (ticket) => void worker().drop(ticket),
  fails: ({ history }, error) => {
    if (error instanceof Stopped) return;
    // Nobody knows what it still has, or whether it lives: the next edit is worked out by another.
    endWorker();
    set({ computed: history.revision, notice: notComputed([CRASHED]) });
  },
  works: (isComputing) => set({ isComputing }),
});

async function refreshTerrain(): Promise<void> {
  const project = get().history?.project;
  if (!project || get().isStopped) return;
  try {
    await giveAssets(project);
    const answer = await worker().terrainView(project);
    if (get().history?.project.id === project.id) set({ terrain: answer.ok ? answer.value : null, progress: null });
  } catch {
    // Stopped by the user, or told by the computation itself.
  }
}

let saveTimer: ReturnType<typeof setTimeout> | undefined;

function saveSoon(): void {
  if (get().saved === 'read-only') return;
  set({ saved: 'saving' });
  clearTimeout(saveTimer);
  saveTimer = setTimeout(() => void saveNow(), 250);
}

/** Writes follow one another, so that none puts an older document over a newer. */
let writing: Promise<void> = Promise.resolve();

async function write(): Promise<void> {
  const project = get().history?.project;
  if (!project || get().saved === 'read-only' || isDraft) return;
  if (!stillHolds(project.id)) {
    set({ saved: 'read-only', readOnlyWhy: 'another tab has taken it over. Export what is here if you miss something there' });
    return;
  }
  try {
    await saveProject(project);
    // Not while an asset of this visit is only in memory, nor when an edit came meanwhile.
    if (get().history?.project === project) set({ saved: assetsOf(project).some((name) => unkept.has(name)) ? 'failed' : 'saved' });
  } catch {
    const now = get().history?.project;
    if (now?.id !== project.id) return;
    set({ saved: 'failed' });
    leaveLastWords(now); // A busy page may be ended before it hears that it goes.
  }
}

/** Writes the document to the browser at once: also when the page is about to go. */
export function saveNow(): Promise<void> {
  clearTimeout(saveTimer);
  writing = writing.then(write);
  return writing;
}

/** The page may be gone in a moment: what is not yet kept is written down at once. */
export function leave(): void {
  const { history, saved } = get();
  if (!history || isDraft || (saved !== 'saving' && saved !== 'failed')) return;
  leaveLastWords(history.project);
  void saveNow();
}

function changed(history: History, before: History | null): void {
  // A draft with something in it is kept.
  isDraft = false;
  set({ history, isStopped: false });
  saveSoon();
  void refresh();
  const [old, now] = [before?.project, history.project];
  if (old?.terrain !== now.terrain || old?.features !== now.features || old?.land !== now.land || (old && shapesOf(old) !== shapesOf(now)))
    void refreshTerrain();
}

/** Applies a command; a refused one changes nothing and says why. Returns whether it was applied. */
export function dispatch(command: Command, gesture?: string): boolean {
  const { history, saved } = get();
  if (!history) return false;
  if (saved === 'read-only') {
    set({ notice: { tone: 'mend', title: `This project is read-only here: ${get().readOnlyWhy}`, problems: [] } });
    return false;
  }
  try {
    changed(execute(history, command, { registry: catalogue, ...(gesture === undefined ? {} : { gesture }) }), history);
    if (get().notice?.tone === 'mend') set({ notice: null });
    return true;
  } catch (error) {
    set({ notice: { tone: 'mend', title: 'That cannot be done', problems: problemsThrown(error, 'this change') } });
    return false;
  }
}

/** Steps back or forth: what was said of the last change is no longer so. */
function step(to: typeof undo, among: 'past' | 'future'): void {
  const { history, saved } = get();
  if (!history || history[among].length === 0 || saved === 'read-only') return;
  changed(to(history), history);
  set({ notice: null });
}

export const undoLast = (): void => step(undo, 'past');
export const redoLast = (): void => step(redo, 'future');

/** A project nobody has put anything in yet is not kept. */
let isDraft = false;

export interface OpenHow {
  readonly assets?: ReadonlyMap<string, Blob>;
  /** Why this tab may only read it; left out, it may write. */
  readonly readOnly?: string;
  readonly isDraft?: boolean;
}

/**
 * Opens a project with the assets it came with, or those the browser keeps. It is kept before anything is computed, so that
 * an edit made meanwhile is written after it, never before.
 */
export async function openProject(project: Project, how: OpenHow = {}): Promise<void> {
  // The last edits of the project that is still open come first.
  await saveNow();
  for (const [sha, blob] of how.assets ?? []) await keepAsset(sha, blob);
  const works = project.options.find((o) => o.id === project.activeOption)?.works ?? [];
  const first = works.find((w) => w.status === 'existing' && catalogue.describe(w).hostId === null) ?? works[0];
  isDraft = how.isDraft === true;
  set({
    history: startHistory(project),
    result: null,
    counts: NO_CHECKS,
    computed: -1,
    terrain: null,
    selected: first?.id ?? null,
    tool: null,
    drawn: [],
    shownMin: null,
    notice: null,
    isStopped: false,
    saved: how.readOnly === undefined ? 'saving' : 'read-only',
    readOnlyWhy: how.readOnly ?? '',
  });
  await saveNow();
  if (!isDraft) await saveSetting('last-project', project.id);
  // The ground first: it is there long before all that stands on it is worked out.
  await Promise.all([refreshTerrain(), refresh()]);
}

/** Assets of this visit that the browser had no room for. */
const unkept = new Map<string, Blob>();

/** Keeps an asset for the worker and, if there is room, for the next visit. Returns whether there was. */
export async function keepAsset(sha256: string, blob: Blob): Promise<boolean> {
  try {
    await saveAsset(sha256, blob);
    given.delete(sha256);
    return true;
  } catch {
    unkept.set(sha256, blob);
    given.delete(sha256);
    if (get().saved !== 'read-only') set({ saved: 'failed' });
    return false;
  }
}

/** An asset, kept by the browser or held only for this visit. */
export async function assetOf(sha256: string): Promise<Blob | null> {
  return unkept.get(sha256) ?? (await loadAsset(sha256));
}

/** Shows one storm of the set; null the one that governs. */
export function lookAtStorm(shownMin: number | null): void {
  set({ shownMin });
  void refresh();
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
