import { MAX_CELLS, MAX_CELL_M } from '../terrain/index.ts';
import { type LevelUnit, asSaid, looksLikeDegrees, tooBig } from './grid-limits.ts';
import { type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { asItLies, laidFlat } from './lay-flat.ts';
import { isNoDataMark, onlyGround } from './levels.ts';
import { DEGREES, isFeetPrj, systemOfPrj } from './systems.ts';
import { textOf } from './text.ts';

const KEYS = ['ncols', 'nrows', 'xllcorner', 'xllcenter', 'yllcorner', 'yllcenter', 'cellsize', 'dx', 'dy', 'nodata_value'] as const;
type Key = (typeof KEYS)[number];

interface Header {
  readonly values: Partial<Record<Key, number>>;
  /** Offset of the first level in the text. */
  readonly dataAt: number;
}

function readHeader(file: string, text: string): Header {
  const values: Partial<Record<Key, number>> = {};
  let at = 0;
  let line = 1;
  for (;;) {
    const end = text.indexOf('\n', at);
    const row = text.slice(at, end < 0 ? undefined : end).trim();
    const [name, number, ...rest] = row.split(/\s+/);
    const key = KEYS.find((k) => k === (name ?? '').toLowerCase());
    if (key === undefined) {
      if (row !== '' && /^[a-z]/i.test(row) && !/^(nan|inf)/i.test(row)) {
        refuseFile(file, 'grid.header', {
          what: `line ${line} begins with "${name}", which is no header of a grid`,
          line,
          do: 'Expected: ncols, nrows, xllcorner, yllcorner, cellsize, NODATA_value.',
        });
      }
      if (row !== '' || end < 0) return { values, dataAt: at };
    } else {
      const value = Number(number);
      if (number === undefined || rest.length > 0 || !Number.isFinite(value)) {
        refuseFile(file, 'grid.header-value', {
          what: `${name} is "${row.slice(name.length).trim()}", not a number`,
          line,
          field: key,
          do: 'Correct this line of the header.',
        });
      }
      values[key] = value;
    }
    if (end < 0) return { values, dataAt: text.length };
    at = end + 1;
    line++;
  }
}

const lineAt = (text: string, offset: number): number => text.slice(0, offset).split('\n').length;

/** What is known of an ASCII grid beside its own text. */
export interface GridHow {
  /** The system the user gave. */
  readonly crs: string | null;
  /** Text of the .prj that came with it. */
  readonly prj?: string | undefined;
  readonly levelsIn?: LevelUnit | undefined;
}

interface Frame {
  readonly ncols: number;
  readonly nrows: number;
  readonly dx: number;
  readonly dy: number;
  readonly west: number;
  readonly south: number;
}

function frameIn({ values }: Header, name: string): Frame {
  const need = (key: Key): number =>
    values[key] ??
    refuseFile(name, 'grid.header-missing', {
      what: `the header has no ${key}`,
      field: key,
      do: 'Add it: ncols, nrows, xllcorner, yllcorner and cellsize are needed.',
    });
  const [ncols, nrows] = [need('ncols'), need('nrows')];
  const [dx, dy] = [values.dx ?? need('cellsize'), values.dy ?? need('cellsize')];
  const isCell = (side: number): boolean => side > 0 && side <= MAX_CELL_M;
  if (!Number.isInteger(ncols) || !Number.isInteger(nrows) || ncols < 2 || nrows < 2 || !isCell(dx) || !isCell(dy)) {
    refuseFile(name, 'grid.size', {
      what: `${ncols} columns, ${nrows} rows of ${dx === dy ? dx : `${dx} by ${dy}`} m cells make no grid`,
      field: 'ncols',
      do: `At least 2 x 2 cells of up to ${MAX_CELL_M} m are needed.`,
    });
  }
  if (ncols * nrows > MAX_CELLS) tooBig(name, ncols * nrows);
  return {
    ncols,
    nrows,
    dx,
    dy,
    west: values.xllcorner ?? need('xllcenter') - dx / 2,
    south: values.yllcorner ?? need('yllcenter') - dy / 2,
  };
}

/** The levels below the header, as many as it says. */
function levelsIn(
  text: string,
  dataAt: number,
  { ncols, nrows, name }: Pick<Frame, 'ncols' | 'nrows'> & { readonly name: string },
): Float64Array {
  const levels = new Float64Array(ncols * nrows);
  const token = /\S+/g;
  token.lastIndex = dataAt;
  let count = 0;
  for (let match = token.exec(text); match; match = token.exec(text)) {
    if (count >= levels.length) {
      refuseFile(name, 'grid.too-many', {
        what: `more levels than ${ncols} x ${nrows}`,
        line: lineAt(text, match.index),
        do: 'Check ncols and nrows against the rows of the file.',
      });
    }
    const value = Number(match[0]);
    const isMissing = /^[-+]?(nan|inf(inity)?)$/i.test(match[0]);
    if (!isMissing && Number.isNaN(value)) {
      refuseFile(name, 'grid.text', {
        what: `"${match[0].slice(0, 24)}" is not a level`,
        line: lineAt(text, match.index),
        do: 'Correct or remove this value; use the NODATA_value where there is none.',
      });
    }
    levels[count++] = isMissing ? NaN : value;
  }
  if (count < levels.length) {
    refuseFile(name, 'grid.truncated', {
      what: `it ends after ${count} of ${levels.length} levels`,
      line: lineAt(text, text.length),
      do: 'Copy or export the file again: part of it is missing.',
    });
  }
  return levels;
}

/** The mark for no data where the header names none. */
const USUAL_MARK = -9999;

/** A grid of levels as text. Its system is in the .prj beside it, or the caller's; else its places are local metres. */
export async function readAsciiGrid({ name, bytes }: InputFile, how: GridHow): Promise<ImportedTerrain> {
  const text = textOf(bytes);
  const header = readHeader(name, text);
  const frame = frameIn(header, name);
  const { ncols, nrows, dx, dy, west, south } = frame;
  const isDegrees = looksLikeDegrees({ cell: dx, west, south });
  const said = how.prj === undefined ? null : await systemOfPrj(how.prj, name);
  if (said && 'crs' in said && how.crs !== null && how.crs !== said.crs.code)
    refuseFile(name, 'crs.mismatch', {
      what: `its .prj says ${said.crs.code} (${said.crs.name}), but ${how.crs} was given`,
      field: 'crs',
      do: 'Leave the system as the file says, or convert the file.',
    });
  const notes: string[] = [];
  const levels = levelsIn(text, header.dataAt, { ...frame, name });
  const mark = header.values.nodata_value ?? USUAL_MARK;
  for (let i = 0; i < levels.length; i++) if (isNoDataMark(levels[i], mark)) levels[i] = NaN;
  asSaid(levels, { said: how.levelsIn, isPlanInFeet: how.prj !== undefined && isFeetPrj(how.prj), file: name, notes });
  onlyGround(levels, { file: name, noData: null, notes });
  const lattice = { ncols, nrows, x0: west + dx / 2, y0: south + (nrows - 0.5) * dy, dx, dy, levels };
  if ((said && 'from' in said) || (!said && isDegrees)) {
    if (!said) notes.push('Its places are degrees and it names no datum: WGS 84 was taken.');
    return laidFlat(lattice, { file: name, wanted: how.crs, from: said && 'from' in said ? said.from : DEGREES, notes });
  }
  const crs = said ? said.crs.code : how.crs;
  return asItLies(lattice, { file: name, crs, notes });
}
