import { strFromU8 } from 'fflate';

/** Text of a file with plain line ends: without its byte order mark, old and other machines' line ends turned into ours. */
export function textOf(bytes: Uint8Array): string {
  const isWide = bytes.length >= 2 && ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff));
  const text = isWide ? new TextDecoder(bytes[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes) : strFromU8(bytes);
  return text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
}

/** Lines looked at to see how a text is parted. */
const LOOKED_AT = 20;
/** A line of numbers parted by spaces alone: none begins or ends with a comma. */
const SPACED = /^\s*[-+]?\d[\d.,]*(?<![.,])(\s+[^\s,;](\S*[^\s,;])?){2,}\s*$/;

/** Cells of a line parted by spaces; a unit in brackets stays with the name before it. */
export const spacedCells = (line: string): string[] =>
  line
    .trim()
    .replace(/\s+(?=\()/g, '')
    .split(/\s+/);

/** Whether the lines of a text are parted by spaces: columns drawn with them, or written by an instrument. */
export function isSpaced(text: string): boolean {
  const lines = text.split('\n', LOOKED_AT + 1).slice(0, LOOKED_AT).filter((line) => line.trim() !== ''); // prettier-ignore
  const points = lines.length > 1 ? lines.slice(1) : lines;
  return points.length > 0 && points.every((line) => !/[;\t]/.test(line) && SPACED.test(line));
}
