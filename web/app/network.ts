// What the page does with the works together: asks the worker about cases, failure and marks.
import type { NetworkQuestions } from '#core/derive';
import { type Project, optionOf } from '#core/project';
import { askNow, groundKey, idOf, useAnswer } from './ask.ts';
import { useApp, worker } from './store.ts';

type Args<K extends keyof NetworkQuestions> =
  Parameters<NetworkQuestions[K]> extends [unknown, unknown, infer A] ? A : Record<string, never>;
type Reply<K extends keyof NetworkQuestions> = ReturnType<NetworkQuestions[K]>;

/** These answers hang on everything that decides a storm, levels included. */
function keyOf(project: Project): string {
  const { id, terrain, features, land, site, cases } = project;
  return [id, ...[terrain, features, land, site, cases, optionOf(project)].map((part) => idOf(part)), groundKey(project)].join('.');
}

/** An answer that follows the document; undefined while it is worked out, null where there is none. `args` null asks nothing. */
export function useAskNetwork<K extends keyof NetworkQuestions>(name: K, args: Args<K> | null): Reply<K> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const canAsk = project !== undefined && project.rain !== null && project.ground !== null && optionOf(project).works.length > 0;
  const key = canAsk && args !== null ? ['network', name, keyOf(project), JSON.stringify(args)] : null;
  return useAnswer({ key, keeps: true, tells: false }, (asked) => worker().askNetwork(name, asked, args));
}

/** Cases worth asking of these works. */
export const usualCasesNow = (): Promise<Reply<'usualCases'> | null> =>
  askNow((project) => worker().askNetwork('usualCases', project, {}), true);
