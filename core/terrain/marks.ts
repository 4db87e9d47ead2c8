// A survey brought to the zero of a ground by marks that are known in both.
import type { Point } from '../geometry/index.ts';
import type { Grid } from './grid.ts';
import { levelAt } from './sample.ts';

/** A place known in both; a level nobody gave is read from the ground, or from the survey, where the mark stands. */
export interface Mark {
  readonly name: string;
  readonly at: Point;
  readonly groundM: number | null;
  readonly surveyM: number | null;
}

/** A mark with both its levels, and how far it is off once the survey is shifted: the ground above the survey [m]. */
export interface Held extends Mark {
  readonly groundM: number;
  readonly surveyM: number;
  readonly offM: number;
}

export interface MarksShift {
  /** To be added to all levels of the survey [m]. */
  readonly shiftM: number;
  readonly held: readonly Held[];
  /** How far marks lie from that, two times in three [m]; null of one alone: nothing tells it. */
  readonly spreadM: number | null;
  /** The mark that agrees with none of the others, where they agree among themselves; null where there is none. */
  readonly odd: Held | null;
  /** Marks that stand on no ground, or on none of the survey, and whose level there nobody gave. */
  readonly lacking: readonly Mark[];
}

/** A mark is odd where it is off the mean of the others by so many times what they stray, and by so much besides [m]. */
const [ODD_TIMES, ODD_M] = [3, 0.02];

const meanOf = (list: readonly number[]): number => list.reduce((a, v) => a + v, 0) / list.length;
/** Standard deviation of a sample; 0 of one. */
function strayOf(list: readonly number[]): number {
  const mean = meanOf(list);
  return list.length < 2 ? 0 : Math.sqrt(list.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (list.length - 1));
}

/**
 * The shift that brings a survey nearest to a ground at its marks: the mean of what they differ by, with what is left at each of them
 * (the least-squares fit of one constant). NaN without any mark that has both levels.
 */
export function shiftByMarks(marks: readonly Mark[], ground: Grid, survey: Grid): MarksShift {
  const both = marks.map((mark) => ({ ...mark, groundM: mark.groundM ?? levelAt(ground, mark.at), surveyM: mark.surveyM ?? levelAt(survey, mark.at) }));
  const isKnown = ({ groundM, surveyM }: (typeof both)[number]): boolean => !Number.isNaN(groundM) && !Number.isNaN(surveyM);
  const known = both.filter(isKnown);
  const differ = known.map(({ groundM, surveyM }) => groundM - surveyM);
  const shiftM = meanOf(differ);
  const held = known.map((mark, k): Held => ({ ...mark, offM: differ[k] - shiftM }));
  const strays = differ.map((d, k) => {
    const others = differ.filter((_, other) => other !== k);
    return others.length < 2 ? 0 : Math.abs(d - meanOf(others)) - ODD_TIMES * strayOf(others) - ODD_M;
  });
  const most = strays.indexOf(Math.max(...strays));
  return {
    shiftM,
    held,
    spreadM: differ.length > 1 ? strayOf(differ) : null,
    odd: strays[most] > 0 ? held[most] : null,
    lacking: marks.filter((_, k) => !isKnown(both[k])),
  };
} // prettier-ignore
