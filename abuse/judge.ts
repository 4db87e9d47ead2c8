// What came of reading a spoilt file: taken in whole and sound, refused in words, or a fault of ours.
import { type Command, type History, execute, startHistory, undo } from '#core/commands';
import { type GridSource, derive } from '#core/derive';
import { type Imported, importFile, overviewOf, openProjectFile, parseJson, readReadings } from '#core/formats';
import { MOST_LISTED, type Project, UserError, canonicalJson, gridFromBytes } from '#core/project';
import { checkTable } from '#core/rain';
import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M, statsOf } from '#core/terrain';
import { registry } from '#core/works';
import { readProject } from '../core/project/guard.ts';
import { withFaults } from '../core/testing/trees.ts';
import { COMMANDS_ON, type Format } from './mutate.ts';

export type Outcome = 'taken' | 'refused' | 'unsound' | 'exception';
export interface Judged {
  readonly outcome: Outcome;
  /** What is wrong with it, for the report. */
  readonly why: string;
}

class Unsound extends Error {}

function require(holds: boolean, why: string): void {
  if (!holds) throw new Unsound(why);
}

function requireImported(read: Imported): void {
  if (read.kind === 'rain') return require(checkTable(read.table).length === 0, 'a rain table that is none');
  if (read.kind === 'gauge') {
    const { wet, mm, steps } = read.record;
    return require(wet.every((v, i) => v < steps && (i === 0 || v > wet[i - 1])) &&
      mm.every((v) => v > 0 && Number.isFinite(v)), 'a record that is none');
  }
  if (read.kind === 'shapes') {
    const isDrawn = read.shapes.every(({ form, points, levelsM }) => points.length >= { point: 1, line: 2, ring: 3 }[form] && points.flat().every(Number.isFinite) && (levelsM ?? points.map(() => 0)).every(Number.isFinite)); // prettier-ignore
    return require(read.shapes.length > 0 && isDrawn, 'shapes that are none');
  }
  if (read.kind === 'picture') {
    const isLaid = read.laying === null || read.laying.every(Number.isFinite);
    return require(read.picture.widthPx > 0 && read.picture.heightPx > 0 && isLaid, 'a picture that is none');
  }
  const { cells, noData, minM, maxM } = statsOf(read.grid);
  require(cells === read.grid.ncols * read.grid.nrows && noData < cells, 'a terrain without ground');
  require((minM ?? NaN) >= LEVEL_LOWEST_M - 0.1 && (maxM ?? NaN) <= LEVEL_HIGHEST_M + 0.1, 'levels no ground has');
  require([read.grid.cellM, read.grid.west, read.grid.south].every(Number.isFinite) && read.grid.cellM > 0, 'a terrain without a place');
}

/** What was taken must be computed without a figure that is none, and lose no water. */
function requireComputed(project: Project, grids: GridSource): void {
  const { derived } = derive(project, { registry, grids });
  require(!withFaults(derived).includes('NOT FINITE'), 'a figure that is none');
  require(Math.abs(derived.balance?.errorFraction ?? 0) < 1e-6, 'water lost');
  const faults = derived.uncomputed.filter((u) => u.why === 'fault');
  require(faults.length === 0, `a work that could not be computed: ${faults.map((f) => f.work).join()}`);
  for (const { why, work } of derived.uncomputed)
    require(why === 'needs' || !derived.stores.some((s) => s.id === work), 'computed on unknown ground');
}

function requireProject(name: string, bytes: Uint8Array): void {
  const { json, assets } = openProjectFile(name, bytes);
  const project = readProject(json, registry, name);
  const { terrain } = project;
  if (terrain?.kind === 'grid' && 'file' in terrain) return;
  requireComputed(project, (t) => {
    const asset = t.kind === 'asset' ? assets.get(t.sha256) : undefined;
    if (!asset)
      throw new UserError([
        { code: 'asset.missing', what: 'the terrain is not in the file', where: { file: name }, do: 'Export it again.' },
      ]);
    return gridFromBytes(asset, name);
  });
}

function requireCommands(name: string, bytes: Uint8Array): void {
  const list = parseJson(name, bytes);
  if (!Array.isArray(list))
    throw new UserError([{ code: 'commands.list', what: 'it is not a list of commands', where: { file: name }, do: 'Give a list.' }]);
  let history: History = startHistory(COMMANDS_ON);
  const start = canonicalJson(COMMANDS_ON);
  for (const command of list as Command[]) {
    const before = history.project;
    try {
      if (typeof command !== 'object' || command === null)
        throw new UserError([{ code: 'commands.shape', what: 'it is no command', where: {}, do: 'Give type and payload.' }]);
      history = execute(history, command, { registry });
      readProject(JSON.parse(JSON.stringify(history.project)), registry);
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      require(history.project === before, 'a refused command left a trace');
    }
  }
  while (history.past.length > 0) history = undo(history);
  require(canonicalJson(history.project) === start, 'undo does not come back');
  require(!('polluted' in {}) && Object.keys(Object.prototype).length === 0, 'every object was changed');
}

/** A refusal says what, where and what to do, in short and without words of the machine. */
function requireWords({ problems }: UserError, name: string): void {
  require(problems.length > 0 && problems.length <= MOST_LISTED + 1, `${problems.length} problems listed`);
  for (const p of problems) {
    require(p.code !== 'outlet.internal', `unforeseen in ${name}`);
    require(p.what.length > 3 && p.do.length > 5 && p.what.length + p.do.length < 1300, 'a message too long or too short');
    require(!/undefined|\[object|Error:|\bat \w+ \(/.test(
      `${p.what} ${p.do}`.replace(/["“][^"”]*["”]/g, ''),
    ), `words of the machine: ${p.what.slice(0, 90)}`);
  }
}

async function read(format: Format, name: string, bytes: Uint8Array): Promise<void> {
  if (format === 'project' || format === 'outlet') return requireProject(name, bytes);
  if (format === 'commands') return requireCommands(name, bytes);
  if (format === 'readings')
    return require(readReadings({ name, bytes }).every((r) => Number.isFinite(r.min) && Number.isFinite(r.mm)), 'a reading that is none');
  // A part of a band is taken as it is on the page: after it was looked over.
  if (format === 'picture') await overviewOf({ name, bytes }, { band: BAND });
  requireImported(await importFile({ name, bytes }, format === 'picture' ? { band: BAND, part: PART } : {}));
}
const BAND = 2;
const PART = { west: 410_100, south: 4_095_100, east: 410_700, north: 4_095_900 };

export async function judge(format: Format, name: string, bytes: Uint8Array): Promise<Judged> {
  try {
    await read(format, name, bytes);
    return { outcome: 'taken', why: '' };
  } catch (error) {
    if (error instanceof Unsound) return { outcome: 'unsound', why: error.message };
    if (!(error instanceof UserError))
      return { outcome: 'exception', why: error instanceof Error ? `${error.name}: ${error.message.slice(0, 120)}` : 'thrown' };
    try {
      requireWords(error, name);
      return { outcome: 'refused', why: error.problems[0].code };
    } catch (found) {
      return {
        outcome: error.problems[0]?.code === 'outlet.internal' ? 'exception' : 'unsound',
        why: found instanceof Error ? found.message : 'unsaid',
      };
    }
  }
}
