// What is written into files: the ground of a project, with or without a survey laid into it, and tables.
import { basename } from 'node:path';
import { Graph, derive, groundModel } from '#core/derive';
import { GROUND_ENDINGS, type GroundFormat, epsgOf, importFile, requireCrs, tablesOf, writeGround, writeTables } from '#core/formats';
import { fail } from '#core/project';
import { differsFrom, patched, statsOf, usualFeather } from '#core/terrain';
import { registry } from '#core/works';
import { type Arguments, numberOption, readArguments, soleArgument } from './arguments.ts';
import { type Opened, openProject, readBytes, writeBytes } from './files.ts';
import { toJson } from './json.ts';

/** Number of a project's system; null for local metres. */
const epsgIn = async ({ project: { site }, file }: Pick<Opened, 'project' | 'file'>): Promise<number | null> =>
  site.crs === null ? null : epsgOf(await requireCrs(site.crs, file));

/** The ground, as works shape it: `--to` a format, `--out` a file. */
export async function exportGround(args: Arguments, format: GroundFormat): Promise<string> {
  const { project: found, grids, file } = await openProject(soleArgument(args, 'PROJECT'));
  const out = args.options.get('out') ?? fail('cli.out', '--out is missing', { do: `Name the file to write, for example ground.${GROUND_ENDINGS[format]}.` });
  const project = { ...found, activeOption: args.options.get('option') ?? found.activeOption };
  const model = groundModel(project, { registry, grids, graph: new Graph() });
  if (!model) return fail('terrain.none', 'there is no ground in it', { where: { file }, do: 'Bring in terrain first.' });
  const bytes = writeGround(model.grid, format, { name: project.name, epsg: await epsgIn({ project, file }), when: new Date() });
  writeBytes(out, bytes);
  return toJson({ written: out, bytes: bytes.length, crs: project.site.crs, ...statsOf(model.grid) });
} // prettier-ignore

/** Stores, quantities, pegs and checks as a spreadsheet, in the file `--out` names. */
export async function exportTables(args: Arguments): Promise<string> {
  const { project: found, grids } = await openProject(soleArgument(args, 'PROJECT'));
  const out = args.options.get('out') ?? fail('cli.out', '--out is missing', { do: 'Name the file to write, for example tables.xlsx.' });
  const project = { ...found, activeOption: args.options.get('option') ?? found.activeOption };
  const { derived } = derive(project, { registry, grids, graph: new Graph() });
  const tables = tablesOf(project, derived);
  const bytes = await writeTables(tables);
  writeBytes(out, bytes);
  return toJson({ written: out, bytes: bytes.length, sheets: tables.map(({ name, rows }) => ({ name, rows: rows.length })) });
}

/** A survey laid into the ground of a project: how the two differ, and where `--out` names a file, the ground they make. */
export async function patchCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['crs', 'shift', 'feather', 'out']);
  const { project, grids, file } = await openProject(soleArgument(args, 'PROJECT'));
  const path = args.plain[1] ?? fail('cli.missing', 'FILE is missing', { do: 'Name the survey to lay in.' });
  const model = groundModel(project, { registry, grids, graph: new Graph() });
  // Into the ground as it was surveyed: what works make of it is theirs.
  const ground = model && (model.surveyed ?? model.grid);
  if (!ground) return fail('terrain.none', 'there is no ground in it', { where: { file }, do: 'Bring in terrain first.' });
  const survey = await importFile({ name: basename(path), bytes: readBytes(path) }, { crs: args.options.get('crs') ?? project.site.crs, as: 'terrain' });
  if (survey.kind !== 'terrain') return fail('file.kind', 'it is no ground', { where: { file: path }, do: 'Name a grid, survey points or a level book.' });
  const differs = differsFrom(ground, survey.grid);
  if (!differs) return fail('terrain.apart', 'it lies nowhere on the ground of the project', { where: { file: path }, do: 'Check its system, or its places.' });
  const said = args.options.get('shift');
  const shiftM = said === 'ground' ? -differs.medianM : (numberOption(args, 'shift') ?? 0);
  const featherM = numberOption(args, 'feather') ?? usualFeather(ground, survey.grid);
  if (!(featherM >= 0)) fail('cli.feather', `--feather is ${featherM}`, { do: 'Give a distance in metres, nought or more.' });
  const out = args.options.get('out');
  if (out !== undefined) {
    const made = patched(ground, survey.grid, { shiftM, featherM });
    writeBytes(out, writeGround(made, out.endsWith('.asc') ? 'asc' : 'tif', { name: project.name, epsg: await epsgIn({ project, file }), when: new Date() }));
  }
  return toJson({ differs, shiftM, featherM, written: out ?? null, warnings: survey.notes });
} // prettier-ignore
