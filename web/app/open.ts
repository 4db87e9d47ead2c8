// Opening a project by its id: claimed first, then read and judged as a file is, then shown.
import { type Project, type UserProblem, UserError, fail, problemsThrown } from '#core/project';
import { readProject } from './guard.ts';
import { claim } from './claim.ts';
import { runJob } from './jobs.ts';
import { openProject } from './store.ts';
import { collectAssets, loadProject } from './storage.ts';

/** Holdings to look at, the first of them shown to whoever comes; each is a file that ships with the app. */
export const DEMOS = [
  { id: 'sallow-rise', name: 'Sallow Rise', file: 'demo.outlet' },
  { id: 'dry-fork', name: 'Dry Fork', file: 'dry-fork.outlet' },
  { id: 'quill-lane', name: 'Quill Lane School', file: 'plot.outlet' },
] as const;
export const DEMO_ID = DEMOS[0].id;
export const ELSEWHERE = 'open in another tab';

/** What came of opening: shown, not there, or kept but not to be opened, with why. */
export type Opened = 'open' | 'missing' | { readonly problems: readonly UserProblem[] };

async function demoFile(name: string): Promise<File> {
  const response = await fetch(`/samples/${name}`);
  if (!response.ok) fail('demo.missing', 'the demo is not there', { do: 'Start the app again, or begin from your own land.' });
  return new File([await response.blob()], name);
}

async function openDemo(name: string): Promise<void> {
  const file = await demoFile(name);
  const answer = await runJob('Opening the demo', (work) => work.open(file));
  if (!answer) return fail('demo.stopped', 'opening the demo was given up', { do: 'Open it again when you like.' });
  if (!answer.ok) throw new UserError(answer.problems);
  const project = await readProject(answer.value.json, file.name);
  await openProject(project, { assets: answer.value.assets, ...(await mayWrite(project.id)) });
}

async function mayWrite(id: string): Promise<{ readOnly?: string }> {
  return (await claim(id, () => void takeOver(id))) ? {} : { readOnly: ELSEWHERE };
}

/** How long the last words of a page that has just gone may take to reach this one [ms]. */
const WORDS_MS = 120;

/** The tab that had the project is gone: what it left is taken up before anything is written. */
async function takeOver(id: string): Promise<void> {
  await new Promise((done) => setTimeout(done, WORDS_MS));
  await openById(id);
}

let hasCollected = false;

/** Once a visit, before anything is brought in. Where it fails, nothing is thrown away. */
async function collectOnce(): Promise<void> {
  if (hasCollected) return;
  hasCollected = true;
  await collectAssets().catch(() => undefined);
}

const UNREADABLE: UserProblem = {
  code: 'storage.unreadable',
  what: 'this browser cannot read what it kept of this project',
  where: {},
  do: 'Try again after closing other tabs; free space on the disk; or open a file you exported.',
};

/** Opens a kept project, or the demo when it is not kept yet. */
export async function openById(id: string): Promise<Opened> {
  try {
    const how = await mayWrite(id);
    const kept: Project | null = await loadProject(id).catch(() => {
      throw new UserError([UNREADABLE]);
    });
    if (kept) await collectOnce();
    const demo = DEMOS.find((one) => one.id === id);
    if (kept) await openProject(await readProject(kept), how);
    else if (demo) await openDemo(demo.file);
    else return 'missing';
    return 'open';
  } catch (error) {
    return { problems: problemsThrown(error, 'opening this project') };
  }
}
