import { type Project, assetsOf } from '#core/project';
import { runJob } from './jobs.ts';
import { loadProject } from './storage.ts';
import { assetOf, notify, useApp } from './store.ts';

/** Leaves a file with the browser. */
export function download(name: string, data: Blob): void {
  const url = URL.createObjectURL(data);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // A busy machine may take a while to begin reading it.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** A name as part of the name of a file. */
export const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 60)
    .replace(/^-|-$/g, '') || 'project';

/** Names of a project's assets, also of one that was not judged. */
function assetsIn(project: Project): string[] {
  try {
    return assetsOf(project).filter((name) => typeof name === 'string');
  } catch {
    return [];
  }
}

/** Names of what a project's assets are, for people. */
const partName = (project: Project, name: string): string => (name === project.gauge?.sha256 ? 'the gauge’s record' : 'the terrain');

/** The whole project as one file: what can be had of it, and what could not. */
export async function exportProject(project = useApp.getState().history?.project): Promise<void> {
  if (!project) return;
  const assets = new Map<string, Blob>();
  const missing: string[] = [];
  for (const name of assetsIn(project)) {
    const blob = await assetOf(name).catch(() => null);
    if (blob) assets.set(name, blob);
    else missing.push(partName(project, name));
  }
  const answer = await runJob(`Packing ${String(project.name).slice(0, 80)}`, (work) => work.pack(project, assets));
  if (!answer) return;
  if (!answer.ok) {
    notify({ tone: 'mend', title: 'The project was not exported', problems: answer.problems });
    return;
  }
  download(`${fileName(String(project.name))}.outlet`, answer.value);
  if (missing.length > 0)
    notify({
      tone: 'mend',
      title: `The file is without ${missing.join(' and ')}, which this browser does not have or cannot read: bring ${missing.length > 1 ? 'them' : 'it'} in again`,
      problems: [],
    });
}

/** A kept project as it is, whether or not it can be opened. */
export async function exportKept(id: string): Promise<void> {
  const project = await loadProject(id).catch(() => null);
  if (project) return exportProject(project);
  notify({ tone: 'mend', title: 'This browser cannot read what it kept of this project, so there is nothing to export', problems: [] });
}
