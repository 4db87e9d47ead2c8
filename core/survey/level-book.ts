// A level book as it is booked in the field: what its lines hold, and what keeps one from being reduced.
import type { Point } from '../geometry/index.ts';
import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M } from '../terrain/index.ts';
import { told } from '../units/index.ts';

/** What levels are read with: staff and level, a hose full of water, a frame of two legs stepped along. */
export const BOOK_TOOLS = ['level', 'water-tube', 'a-frame'] as const;
export type BookTool = (typeof BOOK_TOOLS)[number];

/** How it is told where a reading was taken: by coordinates, along and beside a line, by two tapes, by an angle and a tape. */
export const PLACINGS = ['xy', 'offset', 'distances', 'angle'] as const;
export type Placing = (typeof PLACINGS)[number];

/**
 * Figures a line may hold. Level: back-, inter- and fore-sight; water tube: the depth at the end behind (`backM`) and ahead (`foreM`);
 * A-frame: how much higher than the place before, and over how many steps. `knownM` is a level known before; `p` and `q` tell where.
 */
export const BOOK_FIGURES = ['p', 'q', 'backM', 'interM', 'foreM', 'riseM', 'steps', 'knownM'] as const;
export type BookFigure = (typeof BOOK_FIGURES)[number];

/** A line of the book; what was not read is left out. A place without `p` and `q` carries levels on and is no ground. */
export type BookLine = { readonly [F in BookFigure]?: number } & {
  readonly name: string;
  /** Name of the place it was levelled from with tube or frame; left out, that of the line before. */
  readonly from?: string;
  readonly note?: string;
};

export interface LevelBook {
  readonly id: string;
  readonly name: string;
  readonly tool: BookTool;
  readonly placing: Placing;
  /** Marks A and B that tapes and angles go out from [m]; left out, A is at nought and B lies on the way of x. */
  readonly baseM?: readonly [Point, Point];
  /** On which side of the way from A to B places lie that are told by two tapes. */
  readonly side: 'left' | 'right';
  readonly lines: readonly BookLine[];
}

/** What is wrong with a line, by its place in the book. */
export interface BookProblem {
  readonly line: number;
  readonly what: string;
  readonly do: string;
}

type Wrong = Omit<BookProblem, 'line'> | null;

/** No staff, tube or frame tells more at once [m]. */
export const FARTHEST_READ_M = 100;
/** Lines a book has at most: more are a survey, not a notebook. */
export const MOST_BOOK_LINES = 2000;

/** What no reading can be. */
function wrongWithSize({ backM, interM, foreM, riseM, knownM }: BookLine): Wrong {
  const far = [backM, interM, foreM, riseM].find((m) => m !== undefined && !(Math.abs(m) <= FARTHEST_READ_M));
  if (far !== undefined) return { what: `${told(far)} m is more than can be read at once`, do: 'Correct it: readings are in metres.' };
  return knownM !== undefined && !(knownM >= LEVEL_LOWEST_M && knownM <= LEVEL_HIGHEST_M)
    ? { what: `${told(knownM)} m is no level of any ground`, do: 'Correct it: levels are in metres.' }
    : null;
}

const has = (figure: number | undefined): boolean => figure !== undefined;

/** Lines up to the last on which anything was read, or a level is known: those after it are yet to be read. */
export function bookedLines(lines: readonly BookLine[]): readonly BookLine[] {
  const isBooked = ({ backM, interM, foreM, riseM, knownM }: BookLine): boolean => [backM, interM, foreM, riseM, knownM].some(has);
  let count = lines.length;
  while (count > 0 && !isBooked(lines[count - 1])) count--;
  return lines.slice(0, count);
}

/** What keeps a line read by staff and level from being reduced. */
function wrongWithSights({ backM, interM, foreM }: BookLine, line: number): Wrong {
  if (line === 0)
    return !has(backM) || has(interM) || has(foreM)
      ? { what: 'the first line has no back-sight alone', do: 'Begin with the back-sight on the known level.' }
      : null;
  if (has(interM) && has(foreM))
    return {
      what: 'it has an inter-sight and a fore-sight',
      do: 'Keep one: a fore-sight where the instrument moves on, else an inter-sight.',
    };
  if (!has(interM) && !has(foreM))
    return has(backM)
      ? {
          what: 'the instrument moved to it without a fore-sight: the level is lost',
          do: 'Give the fore-sight that was read there before the instrument moved.',
        }
      : { what: 'nothing was read on it', do: 'Give its reading, or take the line out.' };
  return has(interM) && has(backM)
    ? { what: 'it has an inter-sight and a back-sight', do: 'Where the instrument moves on, book a fore-sight.' }
    : null;
}

/** The line a leg of tube or frame goes out from; -1 where none above bears the name. */
export function lineFrom(lines: readonly BookLine[], line: number): number {
  const { from } = lines[line];
  if (from === undefined) return line - 1;
  for (let k = line - 1; k >= 0; k--) if (lines[k].name === from) return k;
  return -1;
}

/** What keeps a line of a water tube or an A-frame from being reduced. */
function wrongWithLeg(lines: readonly BookLine[], line: number, tool: BookTool): Wrong {
  if (line === 0) return null;
  const { backM, foreM, riseM, steps, from } = lines[line];
  if (lineFrom(lines, line) < 0)
    return { what: `no line above is called "${from ?? ''}"`, do: 'Name the place it was levelled from as its own line does.' };
  if (tool === 'water-tube')
    return has(backM) && has(foreM)
      ? null
      : { what: 'one end of the tube was not read', do: 'Give the water on both staves, behind and ahead, read at one time.' };
  if (!has(riseM))
    return { what: 'it has no rise', do: 'Give how much higher it is than the place before; less than nothing where it falls.' };
  const count = 'Count how often the frame was set down on the way: 1 or more.';
  if (steps === undefined) return { what: 'it is not told over how many steps', do: count };
  return Number.isInteger(steps) && steps >= 1 ? null : { what: `${steps} is no number of steps`, do: count };
}

/** Everything that keeps a book from being reduced; places apart (`placeProblems`). */
export function bookProblems({ lines, tool }: Pick<LevelBook, 'lines' | 'tool'>): BookProblem[] {
  const found = lines.flatMap((one, line): BookProblem[] => {
    const wrong = wrongWithSize(one) ?? (tool === 'level' ? wrongWithSights(one, line) : wrongWithLeg(lines, line, tool));
    return wrong ? [{ line, ...wrong }] : [];
  });
  const starts = lines.length === 0 || has(lines[0].knownM);
  const unknown = { line: 0, what: 'the book begins at no known level', do: 'Give the level of the first place: 100.00, if it is a peg of your own.' };
  return starts ? found : [unknown, ...found.filter((p) => p.line !== 0)];
} // prettier-ignore
