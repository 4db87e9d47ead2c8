// Every question there is, in one table: what the page's worker and the command line answer from, with one context.
import { type Project, fail } from '../../project/index.ts';
import type { RoomContext } from '../set/laid.ts';
import { RAIN_QUESTIONS, type RainContext } from './gauge.ts';
import { GROUND_QUESTIONS } from './ground-questions.ts';
import { LAND_QUESTIONS } from './land.ts';
import { NETWORK_QUESTIONS } from './network-questions.ts';
import { SEASON_QUESTIONS } from './sizes.ts';
import { type Finished, finish } from '../graph/slowly.ts';

/** What answers are worked out with. */
export interface AskContext extends RoomContext, RainContext {}

/** Questions by what they are about. */
export const FAMILIES = {
  land: LAND_QUESTIONS,
  rain: RAIN_QUESTIONS,
  ground: GROUND_QUESTIONS,
  network: NETWORK_QUESTIONS,
  season: SEASON_QUESTIONS,
} as const;
export type Family = keyof typeof FAMILIES;

export const QUESTIONS = { ...LAND_QUESTIONS, ...RAIN_QUESTIONS, ...GROUND_QUESTIONS, ...NETWORK_QUESTIONS, ...SEASON_QUESTIONS } as const;
export type Questions = typeof QUESTIONS;
export type QuestionName = keyof Questions;
/** What a question is told besides project and context, and what comes of it. */
export type ArgsOf<K extends QuestionName> =
  Parameters<Questions[K]> extends [unknown, unknown, infer A] ? A : Readonly<Record<string, never>>;
export type AnswerOf<K extends QuestionName> = Finished<ReturnType<Questions[K]>>;

interface Asked {
  readonly project: Project;
  readonly context: AskContext;
  readonly args: unknown;
}

/**
 * An answer begun: names and arguments come from outside, so this is the one place their types are let go. What it keeps is
 * held on to until its question has been asked twice more. @throws UserError for a question there is not.
 */
export function begunAnswer(name: string, { project, context, args }: Asked): unknown {
  type Any = (project: Project, context: AskContext, args: unknown) => unknown;
  const table: Readonly<Record<string, unknown>> = QUESTIONS;
  if (!Object.hasOwn(table, name))
    return fail('question.unknown', `there is no question "${name}"`, { do: `Ask one of ${Object.keys(table).join(', ')}.` });
  return context.graph.runFor(`ask:${name}`, () => (table[name] as Any)(project, context, args));
}

/** Answers a question by name. */
export const ask = (name: string, asked: Asked): unknown => finish(begunAnswer(name, asked));
