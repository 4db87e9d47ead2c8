// Files brought in anywhere in the app: what they are decides what happens.
import type { ImportHow } from '#core/formats';
import { PICTURE_ENDINGS, type Project, type UserProblem, documentHash, fail, problemsThrown } from '#core/project';
import { readProject } from './guard.ts';
import type { TakenIn } from '../workers/protocol.ts';
import { keepAsset, openProject, saveNow, notify, useApp } from './store.ts';
import { claim } from './claim.ts';
import { isProject } from './dropped.ts';
import { runJob } from './jobs.ts';
import { takeGauge, takeTable } from './rain.ts';
import { newId } from './selectors.ts';
import { loadProject, saveProject } from './storage.ts';

export const typedLevels = (text: string): File =>
  new File([/[a-z]/i.test(text.split('\n')[0]) ? text : `x,y,z\n${text.trim()}\n`], 'typed-levels.csv');

type Shapes = Extract<TakenIn, { readonly kind: 'shapes' }>;

/** A kept project with the same id but other content stays, as a copy under an id of its own. */
async function keepOther(project: Project): Promise<void> {
  const kept = await loadProject(project.id).catch(() => null);
  if (!kept || documentHash(kept) === documentHash(project)) return;
  await saveProject({ ...kept, id: newId('project'), name: `${kept.name} (kept copy)` });
}

function refused(file: File, problems: readonly UserProblem[]): void {
  const what = isProject(file.name) ? 'opened' : 'taken in';
  notify({ tone: 'mend', title: `${file.name.slice(0, 80)} was not ${what}; nothing has changed`, problems });
}

/** Opens a project from a file and keeps it. Returns its id; null when the file is refused or given up. */
export async function openFile(file: File): Promise<string | null> {
  const answer = await runJob(`Opening ${file.name}`, (work) => work.open(file));
  if (!answer) return null;
  try {
    if (!answer.ok) {
      refused(file, answer.problems);
      return null;
    }
    const project = await readProject(answer.value.json, file.name);
    if (!(await claim(project.id))) {
      fail('project.open-elsewhere', `"${project.name}" is open in another tab, which may be changing it`, {
        where: { file: file.name },
        do: 'Close that tab, or open the file there.',
      });
    }
    await saveNow();
    await keepOther(project);
    void openProject(project, { assets: answer.value.assets });
    await opened(project.id);
    return project.id;
  } catch (error) {
    refused(file, problemsThrown(error, `opening ${file.name}`));
    return null;
  }
}

/** Resolves once a project is on the page, before it is worked out. */
function opened(id: string): Promise<void> {
  const isOpen = (): boolean => useApp.getState().history?.project.id === id;
  return new Promise((done) => {
    if (isOpen()) return done();
    const stop = useApp.subscribe(() => {
      if (!isOpen()) return;
      stop();
      done();
    });
  });
}

/** What the user alone can say of a file, by the problem that asks: its words, and how the file is then read. */
const DOUBTS: Readonly<Record<string, readonly { readonly name: string; readonly how: ImportHow }[]>> = {
  'number.doubtful': [
    { name: 'The comma is for decimals', how: { decimal: ',' } },
    { name: 'It stands between thousands', how: { decimal: '.' } },
  ],
  'levels.doubtful': [
    { name: 'Its levels are metres', how: { levelsIn: 'm' } },
    { name: 'Its levels are feet', how: { levelsIn: 'ft' } },
  ],
};

/** Problems of a picture of levels that is shown, so that the user says what of it is wanted. */
const [TOO_LARGE, SEVERAL_BANDS] = ['terrain.too-big', 'bands.doubtful'];

/** Shows a picture of levels and asks for a band, or a part of it: nothing where it is left; null where it cannot be shown. */
async function lookOver(
  file: File,
  on: { readonly band?: number | undefined; readonly isTooLarge: boolean },
): Promise<{ readonly how: Pick<ImportHow, 'band' | 'part'> | null } | null> {
  if (!/\.(tiff?|zip)$/i.test(file.name)) return null;
  const answer = await runJob(`Looking over ${file.name}`, (work) => work.look(file, on.band));
  if (!answer) return { how: null };
  if (!answer.ok) return null;
  notify(null);
  // Asked of two at once, the first is left.
  useApp.getState().lookedOver?.done(null);
  return new Promise((done) =>
    useApp.setState({ lookedOver: { file, looked: answer.value, isTooLarge: on.isTooLarge, done: (how) => done({ how }) } }),
  );
}

/** Shows a table of points and asks what its columns and words are: null where it is left. */
async function askPoints(file: File, { decimal }: ImportHow): Promise<Pick<ImportHow, 'points' | 'levelsIn'> | null> {
  const answer = await runJob(`Looking over ${file.name}`, (work) => work.points(file, decimal));
  if (!answer) return null;
  if (!answer.ok) {
    refused(file, answer.problems);
    return null;
  }
  notify(null);
  // Asked of two at once, the first is left.
  useApp.getState().pointsAsked?.done(null);
  return new Promise((done) => useApp.setState({ pointsAsked: { file, table: answer.value, done } }));
}

/** Files of what was drawn or walked, and pictures: they are put where the project lies. */
const DRAWN: ReadonlySet<string> = new Set([...'gpx kml kmz geojson dxf gpkg zip'.split(' '), ...PICTURE_ENDINGS]);
const isDrawn = (name: string): boolean => DRAWN.has(name.toLowerCase().split('.').pop() ?? '');

const inSystem = (name: string, how: ImportHow): ImportHow =>
  isDrawn(name) && !how.crs ? { ...how, crs: useApp.getState().history?.project.site.crs ?? null } : how;

/** How a file is read, and whether what is in it was made up. */
export type BringIn = ImportHow & { readonly isMadeUp?: true };

/** Brings a terrain, survey, rain or drawn file into the open project. Returns whether it was taken. */
export async function bringIn(file: File, how: BringIn = {}): Promise<boolean> {
  if (isProject(file.name)) return (await openFile(file)) !== null;
  const answer = await runJob(`Reading ${file.name}`, (work) => work.import(file, { asks: true, ...inSystem(file.name, how) }));
  if (!answer) return false;
  if (answer.ok) {
    if (answer.value.kind === 'shapes') return askOf(file, answer.value);
    return take(await inSystemThere(file, answer.value, how), how);
  }
  const codes = new Set(answer.problems.map((p) => p.code));
  if (codes.has('points.doubtful')) {
    const said = await askPoints(file, how);
    return said === null ? false : bringIn(file, { ...how, ...said });
  }
  const isTooLarge = codes.has(TOO_LARGE);
  const looked = isTooLarge || codes.has(SEVERAL_BANDS) ? await lookOver(file, { band: how.band, isTooLarge }) : null;
  if (looked) return looked.how === null ? false : bringIn(file, { ...how, ...looked.how });
  refused(file, answer.problems);
  const doubt = answer.problems.map((p) => DOUBTS[p.code]).find((choices) => choices !== undefined);
  const said = doubt ? await askWhich(doubt) : null;
  return said === null ? false : bringIn(file, { ...how, ...said });
}

/** Ground and pictures in another system are laid flat in that of the ground there is, so that the two can be one. */
async function inSystemThere(file: File, imported: Exclude<TakenIn, Shapes>, how: ImportHow): Promise<Exclude<TakenIn, Shapes>> {
  const project = useApp.getState().history?.project;
  const crs = project?.site.crs ?? null;
  if (crs === null || (imported.kind !== 'terrain' && imported.kind !== 'picture') || imported.crs === crs) return imported;
  // Ground that says no system is asked about otherwise; a picture that says none is taken in that of the project.
  const isLaid = imported.kind === 'picture' ? imported.laying !== null : imported.crs !== null && project?.terrain;
  if (!isLaid) return imported;
  const again = await runJob(`Reading ${file.name} in ${crs}`, (work) => work.import(file, { ...how, crs }));
  return again?.ok && again.value.kind === imported.kind ? again.value : imported;
}

/** Several files at once, each with its parts: whether any was taken. */
export async function bringInAll(files: readonly File[], how: ImportHow = {}): Promise<boolean> {
  // What takes several files apart comes when there are some.
  const { together } = await import('./together.ts');
  let isTaken = false;
  for (const file of await together(files)) isTaken = (await bringIn(file, how)) || isTaken;
  return isTaken;
}

/** Asks what only the user can say of the file just read; null when it is left. */
function askWhich(choices: readonly { readonly name: string; readonly how: ImportHow }[]): Promise<ImportHow | null> {
  return new Promise((resolve) => {
    const notice = useApp.getState().notice;
    if (!notice) return resolve(null);
    const say = (how: ImportHow) => (): void => {
      resolve(how);
      notify(null);
    };
    notify({ ...notice, choices: choices.map(({ name, how }) => ({ name, choose: say(how) })) });
    const stop = useApp.subscribe((s) => {
      if (s.notice?.choices) return;
      stop();
      resolve(null);
    });
  });
}

/** What is drawn is taken once the user has said what each is; where no place of it can be put on this ground it is refused. */
function askOf(file: File, imported: Shapes): Promise<boolean> {
  const { terrain, site } = useApp.getState().history?.project ?? {};
  if (terrain && site?.crs === null && imported.crs !== null) {
    const what = 'its places are longitudes and latitudes, and the ground of this project lies in local metres';
    refused(file, [{ code: 'shapes.local', what, where: { file: file.name }, do: 'Bring in ground that knows its coordinate system, or draw these by hand.' }]); // prettier-ignore
    return Promise.resolve(false);
  }
  // What was said before is of something else.
  notify(null);
  return new Promise((done) => useApp.setState({ drawnFile: { file, imported, done } }));
}

async function take(imported: Exclude<TakenIn, Shapes>, { isMadeUp }: BringIn): Promise<boolean> {
  const project = useApp.getState().history?.project;
  if (!project) return false;
  if (imported.kind === 'rain') {
    const { table, limits, source, notes } = imported;
    const done = takeTable({ table, source, basis: 'table', ...(limits ? { limits } : {}) });
    if (done) notify({ tone: 'fine', title: [`The rain table of ${source} is in.`, ...notes].join(' '), problems: [] });
    return done;
  }
  if (imported.kind === 'terrain') return (await import('./take-ground.ts')).takeGround(project, imported, isMadeUp ? { isMadeUp } : {});
  if (imported.kind === 'picture') return (await import('./pictures.ts')).takePicture(imported);
  const { sha256, blob } = imported.asset;
  await keepAsset(sha256, blob);
  return takeGauge(imported, sha256);
}
