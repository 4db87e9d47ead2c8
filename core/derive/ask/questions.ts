import { type Project, fail } from '../../project/index.ts';

/** Answers a question of a table by name: where names and arguments come from outside, the one place their types are let go. */
export function askByName<C>(
  questions: object,
  name: string,
  on: { readonly project: Project; readonly context: C; readonly args: unknown },
): unknown {
  type Any = (project: Project, context: C, args: unknown) => unknown;
  const table = questions as Readonly<Record<string, Any | undefined>>;
  const question = Object.hasOwn(table, name) ? table[name] : undefined;
  if (!question) return fail('question.unknown', `there is no question "${name}"`, { do: `Ask one of ${Object.keys(table).join(', ')}.` });
  return question(on.project, on.context, on.args);
}
