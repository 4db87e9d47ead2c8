// What goes out of the plan: drawings, tables, the ground, pegs.
import type { DrawingFormat, GroundFormat, PegFormat } from '#core/formats';
import { optionOf } from '#core/project';
import { askNow } from './ask.ts';
import { download, fileName } from './export.ts';
import { runJob } from './jobs.ts';
import type { Answer, FileWork } from '../workers/protocol.ts';
import { notify, useApp } from './store.ts';

/** A file as a job writes it, and what it is called after the project; `what` was not exported where that is refused. */
interface Written {
  readonly title: string;
  readonly what: string;
  readonly does: (work: FileWork) => Promise<Answer<{ readonly blob: Blob; readonly name: string }>>;
}

async function leave({ title, what, does }: Written): Promise<void> {
  const answer = await runJob(title, does);
  if (!answer) return;
  const project = useApp.getState().history?.project.name ?? '';
  if (answer.ok) download(`${fileName(project)}-${answer.value.name}`, answer.value.blob);
  else notify({ tone: 'mend', title: `${what} not exported`, problems: answer.problems });
}

/** An answer under the name of its file. */
const called = async (name: string, answer: Promise<Answer<Blob>>): Promise<Answer<{ readonly blob: Blob; readonly name: string }>> => {
  const told = await answer;
  return told.ok ? { ok: true, value: { blob: told.value, name } } : told;
};

/** The whole plan as a drawing, with contours where an interval is given. */
export async function exportDrawing(format: DrawingFormat, contourM: number | null): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  const { project } = history;
  const contours = contourM === null ? null : await askNow({ name: 'contours', args: { intervalM: contourM } }, { tells: true });
  if (contourM !== null && !contours) return;
  const on = { derived: result.derived, contours, format };
  await leave({ title: 'Drawing the plan', what: 'The plan was', does: (work) => called(`plan.${format}`, work.drawing(project, on)) });
}

/** Stores, quantities, pegs and checks as a spreadsheet. */
export async function exportTables(): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  await leave({
    title: 'Writing the tables',
    what: 'The tables were',
    does: (work) => called('tables.xlsx', work.tables(history.project, result.derived)),
  });
}

/** The ground as works shape it, for other programs and machines. */
export async function exportGround(format: GroundFormat): Promise<void> {
  const { history, terrain } = useApp.getState();
  if (!history || !terrain) return;
  const { name, site } = history.project;
  const does: Written['does'] = async (work) => {
    const told = await work.ground(terrain, { format, name, crs: site.crs });
    return told.ok ? { ok: true, value: { blob: told.value.blob, name: `ground.${told.value.ending}` } } : told;
  };
  await leave({ title: 'Writing the ground', what: 'The ground was', does });
}

/** The pegs as computed, in one of the open formats. */
export async function exportPegs(format: PegFormat): Promise<void> {
  const { history, result } = useApp.getState();
  if (!history || !result) return;
  const { project } = history;
  const names = optionOf(project).works.map((w) => [w.id, w.name] as const);
  const on = { format, crs: project.site.crs, names };
  await leave({
    title: 'Writing the pegs',
    what: 'The pegs were',
    does: (work) => called(`pegs.${format}`, work.pegs(result.derived.pegs, on)),
  });
}
