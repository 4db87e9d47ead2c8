// What goes out of the plan: drawings, tables, the ground, pegs.
import type { DrawingFormat, GroundFormat, PegFormat } from '#core/formats';
import { optionOf } from '#core/project';
import { askNow } from './ask.ts';
import { download, fileName } from './export.ts';
import { runJob } from './jobs.ts';
import { notify, useApp } from './store.ts';

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
