import type { DrawingFormat, GroundFormat, PegFormat } from '#core/formats';
import { type Project, assetsOf, optionOf } from '#core/project';
import { askNow } from './ask.ts';
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

/** The whole plan as a drawing, with contours where an interval is given. */
export async function exportDrawing(format: DrawingFormat, contourM: number | null): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  const { project } = history;
  const contours = contourM === null ? null : await askNow({ name: 'contours', args: { intervalM: contourM } }, { tells: true });
  if (contourM !== null && !contours) return;
  const answer = await runJob('Drawing the plan', (work) => work.drawing(project, { derived: result.derived, contours, format }));
  if (!answer) return;
  if (answer.ok) download(`${fileName(project.name)}-plan.${format}`, answer.value);
  else notify({ tone: 'mend', title: 'The plan was not exported', problems: answer.problems });
}

/** Stores, quantities, pegs and checks as a spreadsheet. */
export async function exportTables(): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  const { project } = history;
  const answer = await runJob('Writing the tables', (work) => work.tables(project, result.derived));
  if (!answer) return;
  if (answer.ok) download(`${fileName(project.name)}-tables.xlsx`, answer.value);
  else notify({ tone: 'mend', title: 'The tables were not exported', problems: answer.problems });
}

/** The ground as works shape it, for other programs and machines. */
export async function exportGround(format: GroundFormat): Promise<void> {
  const { history, terrain } = useApp.getState();
  if (!history || !terrain) return;
  const { name, site } = history.project;
  const answer = await runJob('Writing the ground', (work) => work.ground(terrain, { format, name, crs: site.crs }));
  if (!answer) return;
  if (answer.ok) download(`${fileName(name)}-ground.${GROUND_ENDINGS[format]}`, answer.value);
  else notify({ tone: 'mend', title: 'The ground was not exported', problems: answer.problems });
}

/** How files of the ground end: told here too, since the writers come with the worker alone. */
const GROUND_ENDINGS: Readonly<Record<GroundFormat, string>> = { tif: 'tif', asc: 'asc', landxml: 'xml', faces: 'dxf' };

/** The pegs as computed, in one of the open formats. */
export async function exportPegs(format: PegFormat): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  const { project } = history;
  const names = optionOf(project).works.map((w) => [w.id, w.name] as const);
  const answer = await runJob('Writing the pegs', (work) => work.pegs(result.derived.pegs, { format, crs: project.site.crs, names }));
  if (!answer) return;
  if (answer.ok) download(`${fileName(project.name)}-pegs.${format}`, answer.value);
  else notify({ tone: 'mend', title: 'The pegs were not exported', problems: answer.problems });
}
