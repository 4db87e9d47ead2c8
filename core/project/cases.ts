// Cases: what might go wrong, kept with the project and worked out like the storm itself.
import { HAZARDS } from '../contract/index.ts';
import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M } from '../terrain/index.ts';
import { told } from '../units/index.ts';
import { idFault } from './ids.ts';
import type { UserProblem } from './problem.ts';

export const CASE_GROUNDS = ['now', 'healed', 'bare'] as const;

/** A stretch of bank or wall lower than designed. */
export interface LowBank {
  readonly work: string;
  readonly lengthM: number;
  readonly byM: number;
}

export interface Case {
  readonly id: string;
  readonly name: string;
  /** Share of an outlet's opening that is closed, by the work that makes it [%]. */
  readonly blockedPercent?: Readonly<Record<string, number>>;
  /** Ways out not cut yet. */
  readonly uncut?: readonly string[];
  readonly lowBanks?: readonly LowBank[];
  /** Share of what a store holds that silt has taken [%]. */
  readonly siltedPercent?: Readonly<Record<string, number>>;
  /** Whether all stores stand full when the storm begins. */
  readonly startsFull?: boolean;
  /** A second storm like the first, so long after it began [h]. */
  readonly againAfterH?: number;
  readonly ground?: (typeof CASE_GROUNDS)[number];
  /** More from above than the ground sheds, by store [%]. */
  readonly morePercent?: Readonly<Record<string, number>>;
  /** More rain than in the design storm [%]. */
  readonly stormPercent?: number;
}

export const MOST_CASES = 40;

const isShare = (v: unknown, most: number): boolean => typeof v === 'number' && v >= 0 && v <= most;
const isText = (v: unknown): v is string => typeof v === 'string' && v !== '';

/** What is wrong with one case; works it names may have been removed since, and are then passed over. */
function problemsIn(given: unknown, field: string): UserProblem[] {
  const problem = (member: string, what: string, hint: string): UserProblem[] => [
    { code: 'case.member', what: `${what}`, where: { field: member === '' ? field : `${field}.${member}` }, do: hint },
  ];
  if (typeof given !== 'object' || given === null || Array.isArray(given))
    return problem('', `a case is ${told(given)}`, 'Give an object with id and name.');
  const one = given as Readonly<Record<string, unknown>>;
  const found: UserProblem[] = [];
  const fault = idFault(one.id);
  if (fault !== null) found.push(...problem('id', `the id of a case, ${told(one.id)}, ${fault}`, 'Give it letters, digits and dashes.'));
  if (!isText(one.name)) found.push(...problem('name', `name of a case is ${told(one.name)}`, 'Give it in words.'));
  for (const [member, most] of [
    ['blockedPercent', 100],
    ['siltedPercent', 95],
    ['morePercent', 1000],
  ] as const) {
    const shares = one[member];
    if (shares === undefined) continue;
    const isSound =
      typeof shares === 'object' && shares !== null && !Array.isArray(shares) && Object.values(shares).every((v) => isShare(v, most));
    if (!isSound) found.push(...problem(member, `${member} is ${told(shares)}`, `Give 0 to ${most} by the id of each work.`));
  }
  const { uncut, lowBanks, startsFull, againAfterH, ground, stormPercent } = one;
  if (uncut !== undefined && !(Array.isArray(uncut) && uncut.every(isText)))
    found.push(...problem('uncut', `uncut is ${told(uncut)}`, 'Give a list of ids.'));
  const isLow = (b: unknown): boolean => {
    const low = b as Partial<LowBank> | null;
    return typeof low === 'object' && low !== null && isText(low.work) && isShare(low.lengthM, 1000) && isShare(low.byM, 20);
  };
  if (lowBanks !== undefined && !(Array.isArray(lowBanks) && lowBanks.every(isLow))) {
    found.push(...problem('lowBanks', `lowBanks is ${told(lowBanks)}`, 'Give a list of work, lengthM and byM.'));
  }
  if (startsFull !== undefined && typeof startsFull !== 'boolean')
    found.push(...problem('startsFull', `startsFull is ${told(startsFull)}`, 'Give true or false.'));
  if (againAfterH !== undefined && !(isShare(againAfterH, 240) && (againAfterH as number) > 0)) {
    found.push(...problem('againAfterH', `againAfterH is ${told(againAfterH)}`, 'Give hours up to 240.'));
  }
  if (ground !== undefined && !CASE_GROUNDS.includes(ground as never))
    found.push(...problem('ground', `ground is ${told(ground)}`, `Choose one of ${CASE_GROUNDS.join(', ')}.`));
  if (stormPercent !== undefined && !(typeof stormPercent === 'number' && stormPercent >= -90 && stormPercent <= 1000)) {
    found.push(...problem('stormPercent', `stormPercent is ${told(stormPercent)}`, 'Give -90 to 1000.'));
  }
  return found;
}

/** What is wrong with the cases of a project. */
export function caseProblems(cases: unknown): UserProblem[] {
  if (cases === undefined) return [];
  if (!Array.isArray(cases) || cases.length > MOST_CASES) {
    return [{ code: 'case.list', what: `cases are no list of at most ${MOST_CASES}`, where: { field: 'cases' }, do: 'Give a list.' }];
  }
  const own = cases.flatMap((one, k) => problemsIn(one, `cases.${k}`));
  const ids = cases.map((c) => (c as { id?: unknown } | null)?.id);
  const twice = ids.find((id, k) => ids.indexOf(id) !== k);
  if (own.length === 0 && twice !== undefined) {
    own.push({
      code: 'case.twice',
      what: `two cases have the id ${told(twice)}`,
      where: { field: 'cases' },
      do: 'Give each an id of its own.',
    });
  }
  return own;
}

/** Whether a value says something sound by name, or nothing at all. */
const isByName = (value: unknown, isSound: (v: unknown) => boolean): boolean =>
  value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value) && Object.values(value).every(isSound));

/** What is wrong with the ways the user laid down for water. */
export const linkProblems = (links: unknown, field: string): UserProblem[] =>
  isByName(links, isText)
    ? []
    : [{ code: 'links.member', what: `links are ${told(links)}`, where: { field }, do: 'Give where each outlet leads, by its id.' }];

const isLevel = (v: unknown): boolean => typeof v === 'number' && v >= LEVEL_LOWEST_M && v <= LEVEL_HIGHEST_M;

/** What is wrong with the levels stores are found at. */
export const startProblems = (starts: unknown, field: string): UserProblem[] =>
  isByName(starts, isLevel)
    ? []
    : [
        {
          code: 'starts.member',
          what: `levels stores are found at are ${told(starts)}`,
          where: { field },
          do: `Give each store's level in metres, from ${LEVEL_LOWEST_M} to ${LEVEL_HIGHEST_M}.`,
        },
      ];

const isHazard = (v: unknown): boolean => (HAZARDS as readonly unknown[]).includes(v);

/** What is wrong with who is said to lie below stores. */
export const hazardProblems = (hazards: unknown, field: string): UserProblem[] =>
  isByName(hazards, isHazard)
    ? []
    : [
        {
          code: 'hazards.member',
          what: `who lies below stores is ${told(hazards)}`,
          where: { field },
          do: `Give one of ${HAZARDS.join(', ')} by each store's id.`,
        },
      ];
