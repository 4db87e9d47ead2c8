// World files: six numbers beside a picture that lay it on the ground.
import { type Laying, fromCorner } from '../geometry/index.ts';
import { refuseFile } from './imported.ts';

/** The six numbers of a world file, told of the corner of the first pixel rather than of its middle. @throws UserError where they are none. */
export function worldIn(text: string, file: string): Laying {
  const numbers = text
    .trim()
    .split(/\s+/)
    .map((word) => Number(word.replace(',', '.')));
  if (numbers.length !== 6 || !numbers.every(Number.isFinite))
    refuseFile(file, 'world.numbers', {
      what: `it holds ${numbers.length} words, not six numbers: across, two turns, down, and the place of the first pixel`,
      do: 'Export the picture again with its world file.',
    });
  const [a, d, b, e, x, y] = numbers;
  if (a * e - b * d === 0)
    refuseFile(file, 'world.flat', { what: 'its pixels cover no ground', do: 'Export the picture again with its world file.' });
  return fromCorner([a, b, x, d, e, y]);
}
