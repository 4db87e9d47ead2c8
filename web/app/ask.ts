// Answers that follow the document: asked of the worker through SWR, keyed by the parts of the document they hang on.
import useSWR from 'swr';
import type { WorkBase } from '#core/contract';
import { type Project, optionOf } from '#core/project';
import { registry } from '#core/works';
import type { Answer } from '../workers/protocol.ts';
import { giveAssets, notify, useApp } from './store.ts';

let count = 0;
const ids = new WeakMap<object, number>();

/** Parts of the document are immutable and shared between its versions: the same part is the same object. */
export function idOf(part: object | null | undefined): number {
  if (!part) return 0;
  const known = ids.get(part);
  if (known !== undefined) return known;
  ids.set(part, ++count);
  return count;
}

const texts = new Map<string, number>();
const caught = new WeakMap<WorkBase, number>();

/** The same number for works that catch water alike, wherever their lines stand in them, and that are called alike. */
function catchOf(work: WorkBase): number {
  const known = caught.get(work);
  if (known !== undefined) return known;
  const text = JSON.stringify([work.id, work.name, registry.bind(work).intakes]);
  const number = texts.get(text) ?? ++count;
  texts.set(text, number);
  caught.set(work, number);
  return number;
}

/** Works count by what catches water: their levels change no catchment, and dragging one must ask for nothing. */
export const catchesOf = (project: Project): number[] => optionOf(project).works.map(catchOf);

/** Ground, rain and how runoff is worked out. */
export const groundKey = ({ ground, rain, runoff }: Project): string => [idOf(ground), idOf(rain), idOf(runoff)].join('.');

export interface AskedBy {
  /** What is asked, and of which parts of the document; null asks nothing. */
  readonly key: readonly unknown[] | null;
  /** Whether the last answer stays while the next is worked out. */
  readonly keeps: boolean;
  /** Whether a question without an answer is told. */
  readonly tells: boolean;
}

/** The worker's answer once it has the document's assets; null when it was stopped meanwhile. */
async function answerTo(project: Project, asks: (project: Project) => Promise<Answer<unknown>>): Promise<Answer<unknown> | null> {
  try {
    await giveAssets(project);
    return await asks(project);
  } catch {
    return null;
  }
}

/** Asks of the document as it is; null when it cannot be answered, which is told where `tells`. */
export async function askNow<T>(asks: (project: Project) => Promise<Answer<unknown>>, tells: boolean): Promise<T | null> {
  const project = useApp.getState().history?.project;
  if (!project) return null;
  const answer = await answerTo(project, asks);
  if (!answer) return null;
  if (answer.ok) return answer.value as T;
  if (tells) notify({ tone: 'mend', title: 'That cannot be answered', problems: answer.problems });
  return null;
}

/** An answer that follows the document; undefined while it is worked out, null where there is none. */
export function useAnswer<T>({ key, keeps, tells }: AskedBy, asks: (project: Project) => Promise<Answer<unknown>>): T | null | undefined {
  const { data } = useSWR(key, () => askNow<T>(asks, tells), { keepPreviousData: keeps, revalidateOnFocus: false });
  return data;
}
