import { MAX_CELLS, MAX_CELL_M, gridFromLevels } from '../terrain/index.ts';
import { type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { onlyGround } from './levels.ts';
import { textOf } from './text.ts';

const KEYS = ['ncols', 'nrows', 'xllcorner', 'xllcenter', 'yllcorner', 'yllcenter', 'cellsize', 'nodata_value'] as const;
type Key = (typeof KEYS)[number];

export function tooBig(file: string, cells: number): never {
  return refuseFile(file, 'terrain.too-big', {
    what: `it has ${cells.toLocaleString('en')} cells; the limit is ${MAX_CELLS.toLocaleString('en')}`,
    do: 'Cut out your land and what drains to it, or use larger cells.',
  });
}

/** Refuses coordinates that can only be degrees: a cell or an extent far too small for metres, inside the range of degrees. */
export function refuseDegrees(file: string, frame: { cell: number; west: number; south: number }): void {
  if (frame.cell < 0.02 && Math.abs(frame.west) <= 360 && Math.abs(frame.south) <= 90) {
    refuseFile(file, 'crs.degrees', {
      what: `cells of ${frame.cell} at ${frame.west}, ${frame.south} are degrees, not metres`,
      do: 'Convert the file to a projected system in metres, such as the UTM zone of your land.',
    });
  }
}

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

/** An ESRI ASCII grid. Its system is not in the file: the caller's, or local metres. */
export function readAsciiGrid({ name, bytes }: InputFile, crs: string | null): ImportedTerrain {
  const text = textOf(bytes);
  const { values, dataAt } = readHeader(name, text);
  const need = (key: Key): number =>
    values[key] ??
    refuseFile(name, 'grid.header-missing', {
      what: `the header has no ${key}`,
      field: key,
      do: 'Add it: ncols, nrows, xllcorner, yllcorner and cellsize are needed.',
    });
  const [ncols, nrows, cellM] = [need('ncols'), need('nrows'), need('cellsize')];
  if (!Number.isInteger(ncols) || !Number.isInteger(nrows) || ncols < 2 || nrows < 2 || !(cellM > 0 && cellM <= MAX_CELL_M)) {
    refuseFile(name, 'grid.size', {
      what: `${ncols} columns, ${nrows} rows of ${cellM} m cells make no grid`,
      field: 'ncols',
      do: `At least 2 x 2 cells of up to ${MAX_CELL_M} m are needed.`,
    });
  }
  if (ncols * nrows > MAX_CELLS) tooBig(name, ncols * nrows);
  const west = values.xllcorner ?? need('xllcenter') - cellM / 2;
  const south = values.yllcorner ?? need('yllcenter') - cellM / 2;
  refuseDegrees(name, { cell: cellM, west, south });
  const notes =
    crs === null ? ['The file names no coordinate system: positions are taken as local metres, and geographic exports are off.'] : [];
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
  onlyGround(levels, { file: name, noData: values.nodata_value ?? -9999, notes });
  return { kind: 'terrain', grid: gridFromLevels({ ncols, nrows, cellM, west, south }, levels), crs, source: name, notes };
}
