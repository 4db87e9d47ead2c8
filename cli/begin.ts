// Works that begin where something is drawn.
import { Graph, beginWorks } from '#core/derive';
import { parseJson } from '#core/formats';
import { fail } from '#core/project';
import { registry } from '#core/works';
import { readArguments, soleArgument } from './arguments.ts';
import { openProject } from './files.ts';

/** `begin KIND PROJECT '[[x,y],...]' [--how ID] [--host ID]`: the works to be added by works.add. */
export async function begunAt(words: readonly string[]): Promise<unknown> {
  const args = readArguments(words, ['host', 'how']);
  const kind = soleArgument(args, 'KIND');
  const { project, grids } = await openProject(args.plain[1] ?? fail('cli.missing', 'PROJECT is missing', { do: 'Name PROJECT.' }));
  const points = parseJson('points', new TextEncoder().encode(args.plain[2] ?? '[]'));
  const [host, how] = [args.options.get('host'), args.options.get('how')];
  return beginWorks(
    project,
    { registry, grids, graph: new Graph() },
    { kind, points: points as [number, number][], ...(host === undefined ? {} : { host }), ...(how === undefined ? {} : { how }) },
  ).works;
}
