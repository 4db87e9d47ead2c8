// Answers that follow the document: asked of the worker through SWR, keyed by the parts of the document they hang on.
import { useEffect } from 'react';
import useSWR from 'swr';
import type { WorkBase } from '#core/contract';
import type { AnswerOf, ArgsOf, QuestionName } from '#core/derive';
import { type Project, optionOf } from '#core/project';
import { catalogue } from '#core/works';
import type { Answer } from '../workers/protocol.ts';
import { giveAssets, notify, useApp, worker } from './store.ts';

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
  const text = JSON.stringify([work.id, work.name, work.status === 'retired' ? [] : catalogue.describe(work).intakes]);
  const number = texts.get(text) ?? ++count;
  texts.set(text, number);
  caught.set(work, number);
  return number;
}

/** Works count by what catches water: their levels change no catchment, and dragging one must ask for nothing. */
export const catchesOf = (project: Project): number[] => optionOf(project).works.map(catchOf);

/** Ground, rain and how runoff is worked out. */
export const groundKey = ({ ground, rain, runoff }: Project): string => [idOf(ground), idOf(rain), idOf(runoff)].join('.');

/** A question with what it is told; null asks nothing. */
export interface Question<K extends QuestionName> {
  readonly name: K;
  readonly args: ArgsOf<K>;
}

/** Thrown to whoever waits for an answer that was given up. */
class GivenUp extends Error {}

let tickets = 0;

/** The worker's answer once it has the document's assets; null when it was stopped meanwhile. */
async function answerTo<K extends QuestionName>(
  project: Project,
  { name, args }: Question<K>,
  ticket: number,
): Promise<Answer<unknown> | null> {
  try {
    await giveAssets(project);
    return await worker().ask(name, project, { args, ticket });
  } catch {
    return null;
  }
}

/** Asks of the document as it is; null when it cannot be answered, which is told where `tells`. */
export async function askNow<K extends QuestionName>(
  question: Question<K>,
  { tells, ticket = ++tickets }: { readonly tells: boolean; readonly ticket?: number },
): Promise<AnswerOf<K> | null> {
  const project = useApp.getState().history?.project;
  if (!project) return null;
  const answer = await answerTo(project, question, ticket);
  if (!answer) return null;
  if (answer.ok) return answer.value as AnswerOf<K>;
  if (answer.isDropped) throw new GivenUp();
  if (tells) notify({ tone: 'mend', title: 'That cannot be answered', problems: answer.problems });
  return null;
}

export interface AskedBy {
  /** The parts of the document the answer hangs on; null asks nothing. */
  readonly key: readonly unknown[] | null;
  /** Whether the last answer stays while the next is worked out. */
  readonly keeps: boolean;
  /** Whether a question without an answer is told. */
  readonly tells: boolean;
}

/** How many show the answer of a key, and the ticket it is being asked with: when nobody shows it any more, it is given up. */
const shownBy = new Map<string, number>();
const going = new Map<string, number>();

function shows(key: string): () => void {
  shownBy.set(key, (shownBy.get(key) ?? 0) + 1);
  return () => {
    const left = (shownBy.get(key) ?? 1) - 1;
    if (left > 0) {
      shownBy.set(key, left);
      return;
    }
    shownBy.delete(key);
    // What is shown again at once, in another place of the page, is still waited for.
    setTimeout(() => {
      const ticket = shownBy.has(key) ? undefined : going.get(key);
      if (ticket !== undefined)
        worker()
          .drop(ticket)
          .catch(() => undefined);
    }, 0);
  };
}

/** An answer that follows the document; undefined while it is worked out, null where there is none. */
export function useAnswer<K extends QuestionName>(
  question: Question<K> | null,
  { key: parts, keeps, tells }: AskedBy,
): AnswerOf<K> | null | undefined {
  const key = question && parts ? [question.name, ...parts, JSON.stringify(question.args)].join('|') : null;
  useEffect(() => (key === null ? undefined : shows(key)), [key]);
  const fetched = async (): Promise<AnswerOf<K> | null> => {
    if (!question || key === null) return null;
    for (;;) {
      const ticket = ++tickets;
      going.set(key, ticket);
      try {
        return await askNow(question, { tells, ticket });
      } catch (error) {
        // Shown again while a busy worker was still to let go of it: whoever shows it now waits for this answer.
        if (!(error instanceof GivenUp) || !shownBy.has(key)) throw error;
      } finally {
        if (going.get(key) === ticket) going.delete(key);
      }
    }
  };
  const { data } = useSWR(key, fetched, { keepPreviousData: keeps, revalidateOnFocus: false, shouldRetryOnError: false });
  return data;
}
