// What works make of the ground: answers about the land hang on it, and on nothing else of the works.
import type { WorkBase } from '#core/contract';
import { type Project, optionOf } from '#core/project';
import { catalogue } from '#core/works';

const own = new WeakMap<WorkBase, string>();
const all = new WeakMap<readonly WorkBase[], string>();

/** One that was there before the survey shows in it. */
function shapeOf(work: WorkBase): string {
  const known = own.get(work);
  if (known !== undefined) return known;
  const { reshapes } = catalogue.describe(work);
  const text = reshapes.length === 0 || work.status === 'retired' || work.status === 'existing' ? '' : JSON.stringify(reshapes);
  own.set(work, text);
  return text;
}

/** The same text as long as works make the same of the ground; empty where none shapes it. */
export function shapesOf(project: Project): string {
  const { works } = optionOf(project);
  const known = all.get(works);
  if (known !== undefined) return known;
  const text = works.map(shapeOf).join('');
  all.set(works, text);
  return text;
}
