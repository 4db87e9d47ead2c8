// Files brought in anywhere in the app: what they are decides what happens.
import { type Imported, type InputFile, openProjectFile } from '#core/formats';
import { type Project, UserError, assetName, documentHash, fail, gridToBytes } from '#core/project';
import { readProject } from '../../core/project/guard.ts';
import { registry } from '#core/works';
import { dispatch, keepAsset, openProject, saveNow, notify, useApp, worker } from './store.ts';
import { claim } from './claim.ts';
import { takeGauge, takeTable } from './rain.ts';
import { newId } from './selectors.ts';
import { loadProject, saveProject } from './storage.ts';

export const typedLevels = (text: string): File =>
  new File([/[a-z]/i.test(text.split('\n')[0]) ? text : `x,y,z\n${text.trim()}\n`], 'typed-levels.csv');

async function read(file: File): Promise<InputFile> {
  return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}

const isProject = (name: string): boolean => /\.(outlet|json)$/i.test(name);

/** A kept project with the same id but other content stays, as a copy under an id of its own. */
async function keepOther(project: Project): Promise<void> {
  const kept = await loadProject(project.id);
  if (!kept || documentHash(kept) === documentHash(project)) return;
  await saveProject({ ...kept, id: newId('project'), name: `${kept.name} (kept copy)` });
}

/** Opens a project from a file and keeps it. Returns its id; null when the file is refused. */
export async function openFile(file: File): Promise<string | null> {
  try {
    const input = await read(file);
    const { json, assets } = openProjectFile(input.name, input.bytes);
    const project = readProject(json, registry, input.name);
    if (!(await claim(project.id))) {
      fail('project.open-elsewhere', `"${project.name}" is open in another tab, which may be changing it`, {
        where: { file: input.name },
        do: 'Close that tab, or open the file there.',
      });
    }
    await saveNow();
    await keepOther(project);
    await openProject(project, { assets });
    await saveProject(project).catch(() => useApp.setState({ saved: 'failed' }));
    return project.id;
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    notify({ tone: 'mend', title: `${file.name} was not opened; nothing has changed`, problems: error.problems });
    return null;
  }
}

/** Brings a terrain, survey or rain file into the open project. Returns whether it was taken. */
export async function bringIn(file: File, crs: string | null = null): Promise<boolean> {
  if (isProject(file.name)) return (await openFile(file)) !== null;
  const answer = await worker().import(await read(file), crs);
  if (!answer.ok) {
    notify({ tone: 'mend', title: `${file.name} was not taken in; nothing has changed`, problems: answer.problems });
    return false;
  }
  return take(answer.value);
}

async function take(imported: Imported): Promise<boolean> {
  const project = useApp.getState().history?.project;
  if (!project) return false;
  if (imported.kind === 'gauge') return takeGauge(imported);
  if (imported.kind === 'rain') {
    const { table, limits, source, notes } = imported;
    const done = takeTable({ table, source, basis: 'table', ...(limits ? { limits } : {}) });
    if (done) notify({ tone: 'fine', title: [`The rain table of ${source} is in.`, ...notes].join(' '), problems: [] });
    return done;
  }
  const bytes = gridToBytes(imported.grid);
  const sha256 = assetName(bytes);
  await keepAsset(sha256, bytes);
  const done = dispatch({
    type: 'terrain.set',
    payload: { terrain: { kind: 'asset', sha256, source: imported.source }, crs: imported.crs },
  });
  if (done) notify({ tone: 'fine', title: [`${imported.source} is in.`, ...imported.notes].join(' '), problems: [] });
  return done;
}
