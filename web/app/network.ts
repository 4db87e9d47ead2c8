// What the page does with the works together: asks the worker about cases, failure and marks.
import type { AnswerOf, ArgsOf, FAMILIES } from '#core/derive';
import { type Project, optionOf } from '#core/project';
import { askNow, groundKey, idOf, useAnswer } from './ask.ts';
import { useApp } from './store.ts';

type NetworkQuestion = keyof (typeof FAMILIES)['network'];

/** These answers hang on everything that decides a storm, levels included. */
function keyOf(project: Project): string {
  const { id, terrain, features, land, site, cases } = project;
  return [id, ...[terrain, features, land, site, cases, optionOf(project)].map((part) => idOf(part)), groundKey(project)].join('.');
}

/** An answer that follows the document; undefined while it is worked out, null where there is none. `args` null asks nothing. */
export function useAskNetwork<K extends NetworkQuestion>(name: K, args: ArgsOf<K> | null): AnswerOf<K> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const canAsk = project !== undefined && project.rain !== null && project.ground !== null && optionOf(project).works.length > 0;
  const key = canAsk ? [keyOf(project)] : null;
  return useAnswer(args && { name, args }, { key, keeps: true, tells: false });
}

/** Every option side by side: follows the works of all of them. */
export function useAskOptions(): AnswerOf<'options'> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const key = project?.terrain ? [keyOf(project), project.options.map(idOf).join('.')] : null;
  return useAnswer({ name: 'options', args: {} }, { key, keeps: true, tells: false });
}

/** Cases worth asking of these works. */
export const usualCasesNow = (): Promise<AnswerOf<'usualCases'> | null> => askNow({ name: 'usualCases', args: {} }, { tells: true });

/** What suits a place: follows everything, and is asked where there is terrain, works or not. */
export function useAdvice(asked: ArgsOf<'advise'>): AnswerOf<'advise'> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const key = project?.terrain ? [keyOf(project)] : null;
  return useAnswer({ name: 'advise', args: asked }, { key, keeps: true, tells: true });
}
