// What goes out of the plan: drawings, tables, the ground, pegs.
import type { DrawingFormat, GroundFormat, PegFormat } from '#core/formats';
import type { GroundBuilt } from '#core/derive';
import { type Project, optionOf } from '#core/project';
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

/** Whether it went out. */
async function leave({ title, what, does }: Written): Promise<boolean> {
  const answer = await runJob(title, does);
  if (!answer) return false;
  const project = useApp.getState().history?.project.name ?? '';
  if (answer.ok) download(`${fileName(project)}-${answer.value.name}`, answer.value.blob);
  else notify({ tone: 'mend', title: `${what} not exported`, problems: answer.problems });
  return answer.ok;
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

/** The ground as works shape it, for other programs and machines; or with all that is to be made cut and filled into it. */
export async function exportGround(format: GroundFormat, isBuilt: boolean): Promise<void> {
  const { history, terrain } = useApp.getState();
  if (!history || !terrain) return;
  const { name, site } = history.project;
  const built = isBuilt ? await askNow({ name: 'builtGround', args: {} }, { tells: true }) : null;
  if (isBuilt && !built) return;
  const ground = built ? { frame: built.grid, z: built.grid.z } : terrain;
  const called = built ? 'built-ground' : 'ground';
  const does: Written['does'] = async (work) => {
    const told = await work.ground(ground, { format, name, crs: site.crs });
    return told.ok ? { ok: true, value: { blob: told.value.blob, name: `${called}.${told.value.ending}` } } : told;
  };
  if ((await leave({ title: 'Writing the ground', what: 'The ground was', does })) && built) tellBuilt(history.project, built);
}

/** Says which works the ground that went out has in it, and which it has not. */
function tellBuilt(project: Project, { made, left }: Pick<GroundBuilt, 'made' | 'left'>): void {
  const names = new Map(optionOf(project).works.map((w) => [w.id, w.name]));
  const list = (ids: readonly string[]): string => ids.flatMap((id) => names.get(id) ?? []).join(', ');
  const isIn =
    made.length === 0 ? 'Nothing is built into the ground: no work that moves earth is to be made' : `Built into the ground: ${list(made)}`;
  notify({ tone: 'fine', title: left.length === 0 ? `${isIn}.` : `${isIn}. Not in it: ${list(left)}.`, problems: [] });
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
