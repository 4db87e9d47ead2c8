import { PEG_TOLERANCE_M, type PegDraft, type PegRole } from '../contract/index.ts';
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
  /** Its work, what it sets and which of those it is: the same as long as its work is drawn alike. */
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly role: PegRole;
  /** How near to its level what it sets must be [m]. */
  readonly toleranceM: number;
  readonly x: number;
  readonly y: number;
  readonly levelM: number;
  readonly groundM: number | null;
  /** How near that ground is known, two times in three [m]; null where nobody knows, left out until somebody has said of any survey. */
  readonly groundKnownM?: number | null;
  /** Ground above the design level: positive to dig, negative to fill. */
  readonly cutM: number | null;
  /** Null until a height of collimation is given. */
  readonly staffM: number | null;
}

/** Pegs of one work with their ids. */
export function finishPegs(work: string, drafts: readonly PegDraft[], heightOfCollimationM: number | null): Peg[] {
  const count = new Map<PegRole, number>();
  return drafts.map((draft) => {
    const before = count.get(draft.role);
    const number = before === undefined ? 1 : before + 1;
    count.set(draft.role, number);
    return finishPeg(`${work}:${draft.role}:${number}`, { work, draft }, heightOfCollimationM);
  });
}

/** The same peg read from an instrument at another height. */
export const readFrom = (peg: Peg, heightOfCollimationM: number | null): Peg => ({
  ...peg,
  staffM: staffOf(peg.levelM, heightOfCollimationM),
});

const staffOf = (levelM: number, heightOfCollimationM: number | null): number | null =>
  heightOfCollimationM === null ? null : STAFF_READING.evaluate({ HC: heightOfCollimationM, RL: levelM });

/** A peg with its cut and, for an instrument at `heightOfCollimationM`, its staff reading. */
function finishPeg(
  id: string,
  { work, draft }: { readonly work: string; readonly draft: PegDraft },
  heightOfCollimationM: number | null,
): Peg {
  return {
    id,
    work,
    name: draft.name,
    role: draft.role,
    toleranceM: PEG_TOLERANCE_M[draft.role],
    x: draft.x,
    y: draft.y,
    levelM: draft.levelM,
    groundM: draft.groundM,
    cutM: draft.groundM === null ? null : draft.groundM - draft.levelM,
    staffM: staffOf(draft.levelM, heightOfCollimationM),
  };
}
