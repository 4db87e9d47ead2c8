// Kinds of work as they are listed, and works that begin where something is drawn.
import { Memo, beginWorks } from '#core/derive';
import { parseJson } from '#core/formats';
import { fail } from '#core/project';
import { registry } from '#core/works';
import { readArguments, soleArgument } from './arguments.ts';
import { openProject } from './files.ts';

/** Every kind: what it is for, how it is drawn, its fields, what it is to others, its formulas and rules, and one of it. */
export const kindsListed = (): unknown[] =>
  registry.kinds.map((kind) => {
    const { title, family, fields, choices, draws, formulas, rules, sample } = registry.card(kind);
    const { traits, refs } = registry.bind(sample);
    return {
      kind,
      title,
      family,
      draws,
      fields,
      choices,
      traits,
      refs: refs.map(({ role, path, whenGone }) => ({ role, path, whenGone })),
      formulas: formulas.map((f) => f.id),
      rules: rules.map(({ id, title: name, needs = [] }) => ({ id, title: name, needs })),
      sample,
    };
  });

/** `begin KIND PROJECT '[[x,y],...]' [--how ID] [--host ID]`: the works to be added by works.add. */
export async function begunAt(words: readonly string[]): Promise<unknown> {
  const args = readArguments(words, ['host', 'how']);
  const kind = soleArgument(args, 'KIND');
  const { project, grids } = await openProject(args.plain[1] ?? fail('cli.missing', 'PROJECT is missing', { do: 'Name PROJECT.' }));
  const points = parseJson('points', new TextEncoder().encode(args.plain[2] ?? '[]'));
  const [host, how] = [args.options.get('host'), args.options.get('how')];
  return beginWorks(
    project,
    { registry, grids, memo: new Memo() },
    { kind, points: points as [number, number][], ...(host === undefined ? {} : { host }), ...(how === undefined ? {} : { how }) },
  ).works;
}
