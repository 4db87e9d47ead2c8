// What is written into files: the ground of a project, with or without a survey laid into it, and tables.
import { basename } from 'node:path';
import { Graph, builtGround, derive, groundModel } from '#core/derive';
import {
  type Crs,
  GROUND_ENDINGS,
  type GroundFormat,
  epsgOf,
  importFile,
  prjOf,
  readMarks,
  requireCrs,
  tablesOf,
  writeGround,
  writeTables,
} from '#core/formats';
import { fail } from '#core/project';
import { type Grid, type MarksShift, differsFrom, patched, shiftByMarks, statsOf, usualFeather } from '#core/terrain';
import { registry } from '#core/works';
import { type Arguments, numberOption, readArguments, soleArgument } from './arguments.ts';
import { type Opened, openProject, readBytes, writeBytes } from './files.ts';
import { toJson } from './json.ts';

/** The system of a project; null for local metres. */
const crsIn = async ({ project: { site }, file }: Pick<Opened, 'project' | 'file'>): Promise<Crs | null> =>
  site.crs === null ? null : requireCrs(site.crs, file);

/** Writes a ground, beside one in text what tells its system. Returns how many bytes it is, and what was written beside it. */
async function writeOut(grid: Grid, on: { readonly out: string; readonly format: GroundFormat } & Pick<Opened, 'project' | 'file'>): Promise<{ readonly bytes: number; readonly prj?: string }> {
  const { out, format, project } = on;
  const crs = await crsIn(on);
  const bytes = writeGround(grid, format, { name: project.name, epsg: crs && epsgOf(crs), when: new Date() });
  writeBytes(out, bytes);
  const prj = crs && format === 'asc' ? prjOf(crs) : null;
  if (prj === null) return { bytes: bytes.length };
  const beside = out.replace(/(\.asc)?$/i, '.prj');
  writeBytes(beside, new TextEncoder().encode(prj));
  return { bytes: bytes.length, prj: beside };
} // prettier-ignore

const GROUNDS = ['shaped', 'built'] as const;

/** The ground as works shape it, or with `--ground built` with all that is to be made cut and filled into it: `--to` a format, `--out` a file. */
export async function exportGround(args: Arguments, format: GroundFormat): Promise<string> {
  const { project: found, grids, file } = await openProject(soleArgument(args, 'PROJECT'));
  const out = args.options.get('out') ?? fail('cli.out', '--out is missing', { do: `Name the file to write, for example ground.${GROUND_ENDINGS[format]}.` });
  const project = { ...found, activeOption: args.options.get('option') ?? found.activeOption };
  const said = args.options.get('ground') ?? GROUNDS[0];
  const which = GROUNDS.find((g) => g === said) ?? fail('cli.ground', `--ground is "${said}"`, { do: `Use one of ${GROUNDS.join(', ')}.` });
  const context = { registry, grids, graph: new Graph() };
  const model = groundModel(project, context);
  if (!model) return fail('terrain.none', 'there is no ground in it', { where: { file }, do: 'Bring in terrain first.' });
  const { grid, ...works } = which === 'built' ? builtGround(project, context) : { grid: model.grid };
  const written = await writeOut(grid, { out, format, project, file });
  return toJson({ written: out, ...written, crs: project.site.crs, ...statsOf(grid), ...works });
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

/** The shift by marks known in both, from a file with one a line; null where none is named. @throws UserError where it is no shift. */
function marksOf(options: Arguments['options'], on: { readonly ground: Grid; readonly survey: Grid }): MarksShift | null {
  const path = options.get('marks');
  if (path === undefined) return null;
  if (options.has('shift')) fail('cli.shift', 'both --shift and --marks are given', { do: 'Give one of them.' });
  const found = shiftByMarks(readMarks(new TextDecoder().decode(readBytes(path))), on.ground, on.survey);
  if (found.held.length > 0) return found;
  return fail('marks.none', 'no mark has a level in both', {
    where: { file: path },
    do: 'Give the level in the ground, and that by the survey behind it.',
  });
}

/** A survey laid into the ground of a project: how the two differ, and where `--out` names a file, the ground they make. */
export async function patchCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['crs', 'shift', 'marks', 'feather', 'out']);
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
  const marks = marksOf(args.options, { ground, survey: survey.grid });
  const said = args.options.get('shift');
  const shiftM = marks ? marks.shiftM : said === 'ground' ? -differs.medianM : (numberOption(args, 'shift') ?? 0);
  const featherM = numberOption(args, 'feather') ?? usualFeather(ground, survey.grid);
  if (!(featherM >= 0)) fail('cli.feather', `--feather is ${featherM}`, { do: 'Give a distance in metres, nought or more.' });
  const out = args.options.get('out');
  const laid = (): Grid => patched(ground, survey.grid, { shiftM, featherM });
  const { prj } = out === undefined ? {} : await writeOut(laid(), { out, format: out.endsWith('.asc') ? 'asc' : 'tif', project, file });
  return toJson({ differs, shiftM, ...(marks ? { marks } : {}), featherM, written: out ?? null, ...(prj === undefined ? {} : { prj }), warnings: survey.notes });
} // prettier-ignore
