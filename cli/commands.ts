import { basename } from 'node:path';
import { type Command, applyCommand } from '#core/commands';
import { type Family, FAMILIES, FORMULAS, Graph, ask, compareOptions, derive, failureOrder } from '#core/derive';
import {
  type DecimalMark,
  type ImportedGauge,
  type ImportedShapes,
  DRAWING_FORMATS,
  GROUND_FORMATS,
  CODE_USES,
  HOLDS,
  LEVEL_UNITS,
  type PointsSaid,
  type LevelUnit,
  type PegFormat,
  canBeGround,
  drawingOf,
  importFile,
  needsCrs,
  parseJson,
  requireCrs,
  writeDrawing,
  writePegs,
} from '#core/formats';
import type { LawResult, SymbolCard } from '#core/formula';
import { UserError, fail } from '#core/project';
import { told } from '#core/units';
import { dailyOf, frequencyOf, seasonsOf } from '#core/rain';
import { likelyThing } from '#core/seen';
import { readFrom } from '#core/survey';
import { type Part, type ContourLines, extentOf, statsOf } from '#core/terrain';
import { kindsOf, registry } from '#core/works';
import { readProject } from '../core/project/guard.ts';
import { type Arguments, numberOption, readArguments, soleArgument } from './arguments.ts';
import { begunAt } from './begin.ts';
import { exportGround, exportTables, patchCommand } from './ground.ts';
import { toJson } from './json.ts';
import { benchCompiled } from './bench/compiled.ts';
import { openProject, readBytes } from './files.ts';
import { scenarioIn } from './scenario.ts';
import { seasonAt, sizesAt } from './season.ts';

type CliCommand = (words: readonly string[]) => Promise<string> | string;

async function deriveCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['option', 'case', 'scenario']);
  const { project, grids } = await openProject(soleArgument(args, 'PROJECT'));
  const option = args.options.get('option');
  if (option !== undefined && !project.options.some((o) => o.id === option)) {
    fail('option.missing', `there is no option "${option}"`, {
      where: { field: 'option' },
      do: `Use one of ${project.options.map((o) => o.id).join(', ')}.`,
    });
  }
  const asked = scenarioIn(args.options.get('scenario'));
  const one = args.options.get('case') ?? asked.case;
  const { derived } = derive(project, {
    registry,
    grids,
    ...(option === undefined ? {} : { option }),
    ...(one === undefined ? {} : { case: one }),
    ...(asked.conditions ? { conditions: asked.conditions } : {}),
  });
  // Metric words only: the pieces they are made of are for a page that can change its units.
  return toJson({ ...derived, checks: derived.checks.map((check) => ({ ...check, said: undefined })) });
}

async function applyAll(words: readonly string[]): Promise<string> {
  const args = readArguments(words, []);
  const { project, file } = await openProject(soleArgument(args, 'PROJECT'));
  const path = args.plain[1] ?? fail('cli.missing', 'COMMANDS.json is missing', { do: 'Name a file with a list of commands.' });
  const name = basename(path);
  const list = parseJson(name, readBytes(path));
  if (!Array.isArray(list))
    fail('commands.list', 'it is not a list of commands', { where: { file: name }, do: 'Give [{"type": ..., "payload": {...}}, ...].' });
  let changed = project;
  (list as unknown[]).forEach((item, i) => {
    const field = String(i);
    const isCommand =
      typeof item === 'object' &&
      item !== null &&
      'type' in item &&
      'payload' in item &&
      typeof item.payload === 'object' &&
      item.payload !== null;
    if (!isCommand)
      fail('commands.shape', `command ${i + 1} has no type and payload`, {
        where: { file: name, field },
        do: 'Give {"type": ..., "payload": {...}}.',
      });
    try {
      changed = applyCommand(changed, item as Command, registry).project;
    } catch (error) {
      if (error instanceof UserError)
        throw new UserError(
          error.problems.map((p) => ({ ...p, where: { file: name, ...p.where, field: [field, p.where.field].filter(Boolean).join('.') } })),
        );
      return fail('commands.payload', `command ${i + 1} (${told((item as { type: unknown }).type)}) has a payload that cannot be used`, {
        where: { file: name, field },
        do: 'Check the members of its payload.',
      });
    }
  });
  // What the commands made must be a sound document as a whole.
  return toJson(readProject(JSON.parse(JSON.stringify(changed)), registry, file));
}

/** A gauge's record as understood: its frame and report, and what it says by itself. */
function gaugeJson({ record, report, notes }: ImportedGauge): string {
  const { startMin, stepMin, steps } = record;
  const seasons = seasonsOf(dailyOf(record));
  const { years, fits, tooShort } = frequencyOf(record);
  return toJson({ kind: 'gauge', startMin, stepMin, steps, report, years, tooShort, fits, seasons, warnings: notes });
}

const DECIMALS: Readonly<Record<string, DecimalMark>> = { point: '.', comma: ',' };

/** The user's word on the mark for decimals, where the numbers alone do not tell. */
function decimalOf(said: string | undefined): { decimal?: DecimalMark } {
  if (said === undefined) return {};
  return Object.hasOwn(DECIMALS, said)
    ? { decimal: DECIMALS[said] }
    : fail('cli.decimal', `--decimal is "${said}"`, { do: `Use one of ${Object.keys(DECIMALS).join(', ')}.` });
}

/** As what the user wants a drawn file taken. */
function asOf(said: string | undefined): { as?: 'terrain' | 'features' } {
  if (said === undefined) return {};
  return said === 'terrain' || said === 'features' ? { as: said } : fail('cli.as', `--as is "${said}"`, { do: 'Use terrain or features.' });
}

/** What the levels of a grid are in, where it does not say. */
function levelsOf(said: string | undefined): { levelsIn?: LevelUnit } {
  if (said === undefined) return {};
  const unit = LEVEL_UNITS.find((one) => one === said);
  return unit ? { levelsIn: unit } : fail('cli.levels', `--levels is "${said}"`, { do: 'Use m or ft.' });
}

/** Which band of a GeoTIFF holds its levels. */
function bandOf(said: string | undefined): { band?: number } {
  if (said === undefined) return {};
  return /^[1-9]\d{0,2}$/.test(said) ? { band: Number(said) } : fail('cli.band', `--band is "${said}"`, { do: 'Use its number, from 1.' });
}

/** Only a part of a GeoTIFF, in its own coordinates. */
function partOf(said: string | undefined): { part?: Part } {
  if (said === undefined) return {};
  const [west, south, east, north] = said.split(',').map((word) => (word.trim() === '' ? NaN : Number(word)));
  const isPart = said.split(',').length === 4 && [west, south, east, north].every(Number.isFinite) && west < east && south < north;
  return isPart
    ? { part: { west, south, east, north } }
    : fail('cli.part', `--part is "${said}"`, { do: 'Use WEST,SOUTH,EAST,NORTH in the coordinates of the file.' });
}

/** What the columns of a table of points hold, and what the points of each code are: `--columns x,y,z,code --codes TOE=line,EDGE=outline`. */
function pointsOf(columns: string | undefined, codes: string | undefined): { points?: PointsSaid } {
  if (columns === undefined && codes === undefined) return {};
  const holds = columns?.split(',').map((word) => HOLDS.find((one) => one === word.trim()) ?? fail('cli.columns', `--columns has "${word}"`, { do: `Name each column by one of ${HOLDS.join(', ')}.` })); // prettier-ignore
  const uses = codes?.split(',').map((pair) => {
    const [, code, word] = /^(.+)=([a-z]+)$/.exec(pair.trim()) ?? [];
    const use = CODE_USES.find((one) => one === word);
    return use ? ([code, use] as const) : fail('cli.codes', `--codes has "${pair}"`, { do: `Write CODE=USE, with one of ${CODE_USES.join(', ')}.` }); // prettier-ignore
  });
  return { points: { ...(holds ? { columns: holds } : {}), ...(uses ? { codes: Object.fromEntries(uses) } : {}) } };
}

/** What is drawn in a file, with what each is likely to be. */
const shapesJson = (imported: ImportedShapes): string =>
  toJson({
    kind: 'shapes',
    crs: imported.crs,
    shapes: imported.shapes.map((s) => ({ ...s, likely: likelyThing(`${s.group} ${s.name}`, s.form) })),
    canBeGround: canBeGround(imported),
    warnings: imported.notes,
  });

async function importCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['crs', 'decimal', 'as', 'levels', 'band', 'part', 'columns', 'codes']);
  const path = soleArgument(args, 'FILE');
  const how = {
    crs: args.options.get('crs') ?? null,
    ...decimalOf(args.options.get('decimal')),
    ...asOf(args.options.get('as')),
    ...levelsOf(args.options.get('levels')),
    ...bandOf(args.options.get('band')),
    ...partOf(args.options.get('part')),
    ...pointsOf(args.options.get('columns'), args.options.get('codes')),
  };
  const imported = await importFile({ name: basename(path), bytes: readBytes(path) }, how);
  if (imported.kind === 'rain') return toJson({ kind: 'rain', table: imported.table, limits: imported.limits, warnings: imported.notes });
  if (imported.kind === 'gauge') return gaugeJson(imported);
  if (imported.kind === 'shapes') return shapesJson(imported);
  if (imported.kind === 'picture') {
    const { picture, laying, crs, notes } = imported;
    const { kind: type, widthPx, heightPx } = picture;
    return toJson({ kind: 'picture', type, widthPx, heightPx, laying, crs, warnings: notes });
  }
  const { grid, crs, notes } = imported;
  const [west, south, east, north] = extentOf(grid);
  const { ncols, nrows, cellM } = grid;
  return toJson({ kind: 'terrain', crs, ncols, nrows, cellM, extent: { west, south, east, north }, ...statsOf(grid), warnings: notes });
}

/** A question of a family by name, with its arguments as JSON. */
async function askFamily(family: Family, words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['option']);
  const { project, grids, records } = await openProject(soleArgument(args, 'PROJECT'));
  const known = Object.keys(FAMILIES[family]);
  const name = args.plain[1] ?? fail('cli.missing', 'the QUESTION is missing', { do: `Ask one of ${known.join(', ')}.` });
  if (!known.includes(name)) fail('question.unknown', `there is no question "${name}"`, { do: `Ask one of ${known.join(', ')}.` });
  const given = parseJson('arguments', new TextEncoder().encode(args.plain[2] ?? '{}'));
  try {
    const answer = ask(name, { project, context: { registry, grids, records, graph: new Graph() }, args: given });
    return toJson({ question: name, answer });
  } catch (error) {
    if (error instanceof UserError) throw error;
    return fail('question.arguments', `the arguments of "${name}" cannot be used`, {
      where: { field: name },
      do: 'Check their names and units, and that places are [x, y] in metres.',
    });
  }
}

const askCommand =
  (family: Family): CliCommand =>
  (words) =>
    askFamily(family, words);

/** In what order ways out run and crests are passed as the storm is raised. */
async function failureOrderCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['option']);
  const { project, grids } = await openProject(soleArgument(args, 'PROJECT'));
  const option = args.options.get('option') ?? project.activeOption;
  return toJson(failureOrder({ ...project, activeOption: option }, { registry, grids, graph: new Graph() }));
}

/** Every option of a project, side by side. */
async function compareCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, []);
  const { project, grids } = await openProject(soleArgument(args, 'PROJECT'));
  return toJson(compareOptions(project, { registry, grids, graph: new Graph() }));
}

const PEG_FORMATS: readonly PegFormat[] = ['csv', 'gpx', 'geojson'];

/** The whole plan as a drawing: `--to` a format, with contours at an interval where that is given. */
async function exportDrawing(args: Arguments): Promise<string> {
  const { project: found, grids, records, file } = await openProject(soleArgument(args, 'PROJECT'));
  const said = args.options.get('to') ?? '';
  const format = DRAWING_FORMATS.find((f) => f === said) ?? fail('cli.format', `--to is "${said}"`, { do: `Use one of ${[...DRAWING_FORMATS, ...GROUND_FORMATS, 'xlsx'].join(', ')}.` }); // prettier-ignore
  const intervalM = numberOption(args, 'contours') ?? null;
  if (intervalM !== null && !(intervalM > 0))
    fail('cli.contours', `--contours is ${intervalM}`, { do: 'Give a height above zero, in metres.' });
  const project = { ...found, activeOption: args.options.get('option') ?? found.activeOption };
  const context = { registry, grids, records, graph: new Graph() };
  const { derived } = derive(project, context);
  const contours = intervalM === null ? null : (ask('contours', { project, context, args: { intervalM } }) as ContourLines);
  const crs = project.site.crs === null || !needsCrs(format) ? null : await requireCrs(project.site.crs, file);
  return writeDrawing(drawingOf(project, derived, { catalogue: registry, contours }), format, crs);
}

async function exportCommand(words: readonly string[]): Promise<string> {
  const args = readArguments(words, ['pegs', 'hi', 'interval', 'option', 'to', 'ground', 'contours', 'out']);
  const ground = GROUND_FORMATS.find((f) => f === args.options.get('to'));
  if (ground) return exportGround(args, ground);
  if (args.options.get('to') === 'xlsx') return exportTables(args);
  if (args.options.has('to')) return exportDrawing(args);
  const { project, grids, file } = await openProject(soleArgument(args, 'PROJECT'));
  const format =
    PEG_FORMATS.find((f) => f === args.options.get('pegs')) ??
    fail('cli.format', `--pegs is "${args.options.get('pegs') ?? ''}"`, { do: `Use one of ${PEG_FORMATS.join(', ')}.` });
  const pegIntervalM = numberOption(args, 'interval') ?? project.survey?.pegIntervalM ?? 10;
  if (!(pegIntervalM > 0)) fail('cli.interval', `--interval is ${pegIntervalM}`, { do: 'Give a distance above zero, in metres.' });
  const hi = numberOption(args, 'hi') ?? project.survey?.heightOfCollimationM ?? null;
  const option = args.options.get('option') ?? project.activeOption;
  const { derived } = derive({ ...project, survey: { heightOfCollimationM: hi, pegIntervalM } }, { registry, grids, option });
  const works = project.options.find((o) => o.id === option)?.works ?? [];
  const crs = project.site.crs === null || format === 'csv' ? null : await requireCrs(project.site.crs, file);
  const pegs = derived.pegs.map((p) => readFrom(p, hi));
  return writePegs(pegs, format, { crs, workNames: new Map(works.map((w) => [w.id, w.name])) });
}

function formulasCommand(): string {
  return toJson(
    FORMULAS.map(({ id, title, statement, symbols, result, source, limits }) => ({
      id,
      title,
      statement,
      symbols,
      result,
      source,
      range: limits ?? null,
    })),
  );
}

/** A symbol of a formula, and how it is given where it is no number. */
const givenAs = ([symbol, { many, words }]: readonly [string, SymbolCard]): string =>
  words ? `${symbol} as one of ${words.join(', ')}` : many ? `${symbol} as a list of numbers` : `${symbol} as a number`;

function calcCommand(words: readonly string[]): string {
  const args = readArguments(words, []);
  const id = soleArgument(args, 'the id of a formula');
  const formula =
    FORMULAS.find((f) => f.id === id) ?? fail('formula.unknown', `there is no formula "${id}"`, { do: 'List them with: formulas --json' });
  const given = parseJson('inputs', new TextEncoder().encode(args.plain[1] ?? '{}'));
  const inputs = (typeof given === 'object' && given !== null ? given : {}) as never;
  let result: LawResult;
  try {
    result = formula.evaluate(inputs);
  } catch (error) {
    return fail('formula.input', error instanceof Error ? error.message : String(error), {
      where: { field: id },
      do: `Give ${Object.entries(formula.symbols).map(givenAs).join(', ')}.`,
    });
  }
  const cautions = formula.cautions(inputs);
  return toJson({ formula: id, result, unit: formula.result.unit, inRange: cautions.length === 0, cautions, source: formula.source });
}

export const COMMANDS: Readonly<Record<string, CliCommand>> = {
  derive: deriveCommand,
  apply: applyAll,
  land: askCommand('land'),
  rain: askCommand('rain'),
  ground: askCommand('ground'),
  network: askCommand('network'),
  'failure-order': failureOrderCommand,
  compare: compareCommand,
  import: importCommand,
  patch: patchCommand,
  export: exportCommand,
  formulas: formulasCommand,
  kinds: () => toJson(kindsOf(registry)),
  begin: (words) => begunAt(words).then(toJson),
  season: (words) => seasonAt(words).then(toJson),
  size: (words) => sizesAt(words).then(toJson),
  calc: calcCommand,
  bench: () => benchCompiled().then(toJson),
};
