// Water day by day from the shell: all stores through the years, and one of them at several sizes.
import { Graph, type Season, ask } from '#core/derive';
import { parseJson } from '#core/formats';
import { fail } from '#core/project';
import { registry } from '#core/works';
import { readArguments, soleArgument } from './arguments.ts';
import { openProject } from './files.ts';

/** Years as A..B, or one alone. */
function yearsIn(text: string | undefined): { fromYear?: number; toYear?: number } {
  if (text === undefined) return {};
  const parts = /^(\d{4})(?:\.\.(\d{4}))?$/.exec(text);
  if (!parts) return fail('cli.years', `--years is "${text}"`, { do: 'Give them as 1995..2010.' });
  const [fromYear, toYear] = [Number(parts[1]), Number(parts[2] ?? parts[1])];
  return fromYear > toYear ? fail('cli.years', `--years ${text} end before they begin`, { do: 'Give the first year first.' }) : { fromYear, toYear };
} // prettier-ignore

/** What is told of a store that hangs on something nobody knows: nothing, by the same names. */
const UNTOLD = ['inM3', 'suppliedM3', 'demandM3', 'toppedUpM3', 'spilledM3', 'soakedM3', 'liftedM3', 'evaporatedM3', 'startM3', 'endM3', 'suppliedShare', 'dryDays', 'longestEmptyDays', 'monthsCarried']; // prettier-ignore
const NULLS = Object.fromEntries(UNTOLD.map((name) => [name, null]));

export async function seasonAt(words: readonly string[]): Promise<unknown> {
  const args = readArguments(words.filter((w) => w !== '--daily'), ['years']); // prettier-ignore
  const { project, grids, records } = await openProject(soleArgument(args, 'PROJECT'));
  const asked = { ...yearsIn(args.options.get('years')), ...(words.includes('--daily') ? { daily: true } : {}) };
  const season = ask('season', { project, context: { registry, grids, records, graph: new Graph() }, args: asked }) as Season;
  return { ...season, stores: season.stores.map(({ told, ...store }) => ({ ...store, ...(told ?? NULLS) })) };
}

export async function sizesAt(words: readonly string[]): Promise<unknown> {
  const args = readArguments(words, ['years']);
  const { project, grids, records } = await openProject(soleArgument(args, 'PROJECT'));
  const store = args.plain[1] ?? fail('cli.missing', 'the WORK is missing', { do: 'Name a store by its id.' });
  const given = parseJson('arguments', new TextEncoder().encode(args.plain[2] ?? '{}'));
  const litres = typeof given === 'object' && given !== null ? (given as { litres?: unknown }).litres : undefined;
  const asked = { ...yearsIn(args.options.get('years')), store, ...(litres === undefined ? {} : { litres }) };
  return ask('sizes', { project, context: { registry, grids, records, graph: new Graph() }, args: asked });
}
