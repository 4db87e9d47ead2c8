import type { PegDraft } from '../contract/index.ts';
import { defineFormula } from '../formula/index.ts';

export const STAFF_READING = defineFormula(
  {
    id: 'survey.staff-reading',
    title: 'Staff reading for a design level',
    statement: 'r = HC − RL',
    symbols: {
      HC: { means: 'height of collimation of the instrument', unit: 'm', domain: 'finite' },
      RL: { means: 'design level', unit: 'm', domain: 'finite' },
    },
    result: { symbol: 'r', means: 'staff reading', unit: 'm' },
    source: { key: 'common-practice', locator: 'grade rod = height of instrument − design elevation' },
  },
  ({ HC, RL }) => HC - RL,
);

/** Longest levelling staff in common use [m]: common practice. */
export const STAFF_LENGTH_M = 5;

/** Whether a staff on the design level can be read at all from the instrument. */
export function isReadable(staffM: number): boolean {
  return staffM >= 0 && staffM <= STAFF_LENGTH_M;
}

export interface Peg {
  readonly work: string;
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly levelM: number;
  readonly groundM: number | null;
  /** Ground above the design level: positive to dig, negative to fill. */
  readonly cutM: number | null;
  /** Null until a height of collimation is given. */
  readonly staffM: number | null;
}

/** A peg with its cut and, for an instrument at `heightOfCollimationM`, its staff reading. */
export function finishPeg(work: string, draft: PegDraft, heightOfCollimationM: number | null): Peg {
  return {
    work,
    name: draft.name,
    x: draft.x,
    y: draft.y,
    levelM: draft.levelM,
    groundM: draft.groundM,
    cutM: draft.groundM === null ? null : draft.groundM - draft.levelM,
    staffM: heightOfCollimationM === null ? null : STAFF_READING.evaluate({ HC: heightOfCollimationM, RL: draft.levelM }),
  };
}
