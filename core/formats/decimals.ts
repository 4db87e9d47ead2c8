// One mark for decimals a file, found from all its numbers: "1,204" alone may be 1204 or 1.204, and a level taken wrong is a wall wrong.
import { refuseFile } from './imported.ts';

export type DecimalMark = '.' | ',';

/** A number as it stands in a cell: sign, digits with marks, exponent, and a unit or sign behind it. */
const NUMBER = /^([-+]?)(\d[\d.,]*|[.,]\d+)(e[-+]?\d+)?(\s*-?[a-z]*\.?:?)$/i;
const GROUPED = { '.': /^\d{1,3}(\.\d{3})+$/, ',': /^\d{1,3}(,\d{3})+$/ } as const;
const other = (mark: DecimalMark): DecimalMark => (mark === '.' ? ',' : '.');

/** What one number says of the mark: a mark for decimals, one of two, or nothing. */
type Says = { readonly is: DecimalMark | 'either'; readonly has: DecimalMark } | null;

function saidBy(digits: string): Says {
  const [dots, commas] = [digits.split('.').length - 1, digits.split(',').length - 1];
  if (dots + commas === 0) return null;
  if (dots > 0 && commas > 0) {
    const last: DecimalMark = digits.lastIndexOf('.') > digits.lastIndexOf(',') ? '.' : ',';
    const [whole] = digits.split(last);
    return digits.split(last).length === 2 && GROUPED[other(last)].test(whole) ? { is: last, has: last } : null;
  }
  const mark: DecimalMark = dots > 0 ? '.' : ',';
  if (dots + commas > 1) return GROUPED[mark].test(digits) ? { is: other(mark), has: mark } : null;
  return GROUPED[mark].test(digits) && !digits.startsWith('0') ? { is: 'either', has: mark } : { is: mark, has: mark };
}

interface Cell {
  readonly text: string;
  readonly line: number;
}

interface Found {
  readonly mark: DecimalMark;
  /** A number whose other mark was read as standing between thousands. */
  readonly thousands: Cell | null;
}

/**
 * The mark a file's numbers have. @throws UserError with the line where two marks stand in one file, or where nothing tells a
 * decimal comma from one between thousands; `said` is the user's word.
 */
export function decimalMarkOf(cells: Iterable<Cell>, file: string, said: DecimalMark | undefined): Found {
  const sure = new Map<DecimalMark, Cell>();
  const either = new Map<DecimalMark, Cell>();
  for (const cell of cells) {
    const digits = NUMBER.exec(cell.text)?.[2];
    const says = digits === undefined ? null : saidBy(digits);
    if (!says) continue;
    if (says.is !== 'either' && !sure.has(says.is)) sure.set(says.is, cell);
    if (says.is === 'either' && !either.has(says.has)) either.set(says.has, cell);
  }
  if (said !== undefined) return { mark: said, thousands: null };
  const [point, comma] = [sure.get('.'), sure.get(',')];
  if (point && comma) {
    const later = point.line > comma.line ? point : comma;
    return refuseFile(file, 'number.mixed', {
      what: `"${point.text}" has a point for decimals and "${comma.text}" a comma`,
      line: later.line,
      do: 'Write all numbers of the file alike.',
    });
  }
  if (point || comma) {
    const mark = point ? '.' : ',';
    return { mark, thousands: either.get(other(mark)) ?? null };
  }
  const doubtful = either.get(',');
  if (doubtful) {
    return refuseFile(file, 'number.doubtful', {
      what: `"${doubtful.text}" may be ${doubtful.text.replace(',', '.')} or ${doubtful.text.replace(',', '')}: nothing in the file tells which`,
      line: doubtful.line,
      do: 'Say whether the comma is the mark of decimals or stands between thousands.',
    });
  }
  return { mark: '.', thousands: null };
}

/** A cell with its number written plainly, with a point for decimals; other cells as they are. */
export function plainNumber(text: string, mark: DecimalMark): string {
  const match = NUMBER.exec(text);
  if (!match || !/[.,]/.test(match[2])) return text;
  const [, sign, digits, exponent = '', rest] = match;
  const parts = digits.split(mark);
  const whole = parts[0];
  const isGrouped = GROUPED[other(mark)].test(whole);
  if (parts.length > 2 || (parts[1] ?? '').includes(other(mark)) || (whole.includes(other(mark)) && !isGrouped)) return text;
  return `${sign}${whole.replaceAll(other(mark), '')}${parts.length === 2 ? `.${parts[1]}` : ''}${exponent}${rest}`;
}
