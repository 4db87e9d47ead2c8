import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { mm } from '../beginning.ts';
import { COMES_BACK_FIELDS, type ComesBack } from '../comes-back.ts';
import { checkFields, checkLine } from '../fields.ts';

export const SWALE_PURPOSES = ['soak', 'hold', 'convey', 'spillway'] as const;
export type SwalePurpose = (typeof SWALE_PURPOSES)[number];

/** A stretch of bank found lower than designed: a slump, a crossing, settlement. */
export interface LowPlace {
  readonly atM: number;
  readonly lengthM: number;
  readonly levelM: number;
}

/** A level ditch with a bank on its downhill side. The line is its downhill lip on natural ground. */
export interface Swale extends WorkBase, ComesBack {
  readonly kind: 'swale';
  readonly purpose: SwalePurpose;
  readonly line: Line;
  readonly levels: { readonly floorM: number; readonly bankCrestM: number };
  readonly dimensions: {
    readonly floorWidthM: number;
    readonly sideSlopeHV: number;
    readonly bankTopM: number;
    readonly bankSlopeHV: number;
  };
  readonly lowPlaces?: readonly LowPlace[];
  /** The pond or swale one of its ends opens into: both fill and empty each other. */
  readonly joins?: { readonly store: string; readonly end: 'start' | 'end' };
  /** A stretch of bank on natural ground that is meant to go first. */
  readonly fuse?: { readonly fromM: number; readonly toM: number; readonly crestM: number };
}

export const SWALE_FIELDS: readonly FieldSpec[] = [
  {
    path: 'levels.floorM',
    label: 'Floor level',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'The level bottom of the ditch, the same all along.',
  },
  {
    path: 'levels.bankCrestM',
    label: 'Bank crest level',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'Top of the bank after it has settled.',
  },
  { path: 'dimensions.floorWidthM', label: 'Floor width', kind: 'length', min: 0.2, max: 20, help: 'Width of the level bottom.' },
  {
    path: 'dimensions.sideSlopeHV',
    label: 'Ditch sides, out per 1 up',
    kind: 'number',
    min: 0,
    max: 6,
    help: '1.5 means 1.5 out for each 1 up.',
  },
  {
    path: 'dimensions.bankTopM',
    label: 'Bank top width',
    kind: 'length',
    min: 0.2,
    max: 6,
    help: 'Flat top of the bank: 0.5 m, or 0.6 m if it is walked.',
  },
  {
    path: 'dimensions.bankSlopeHV',
    label: 'Bank sides, out per 1 up',
    kind: 'number',
    min: 0.5,
    max: 6,
    help: '2 for a machine-made bank; 1 to 1.5 by hand.',
  },
  ...COMES_BACK_FIELDS,
];

export const SWALE_CHOICES: readonly ChoiceSpec[] = [
  { path: 'purpose', label: 'Purpose', options: SWALE_PURPOSES.map((id) => ({ id, name: id === 'spillway' ? 'be a spillway' : id })) },
];

/** The bank as found, walked with a level. */
export const LOW_PLACES: ListSpec = {
  path: 'lowPlaces',
  title: 'Bank as found',
  words: {
    none: 'No low place noted. Walk the bank with a level after its first season.',
    add: 'Add a low place',
    remove: 'Mended: take it away',
  },
  fields: [
    { path: 'atM', label: 'Low place at', kind: 'length', min: 0, max: 20_000, help: 'From the start of the line.' },
    { path: 'lengthM', label: 'Along the bank', kind: 'length', min: 0.1, max: 20_000, help: 'How long it is.' },
    { path: 'levelM', label: 'Its level', kind: 'level', min: -500, max: 9000, help: 'The lowest of it.' },
  ],
  start: ({ levels }: Swale) => ({ atM: 20, lengthM: 5, levelM: mm(levels.bankCrestM - 0.1) }),
};

function joinProblems({ name, joins, fuse }: Swale): Problem[] {
  const problems: Problem[] = [];
  if (joins !== undefined && !(typeof joins?.store === 'string' && joins.store !== '' && (joins.end === 'start' || joins.end === 'end'))) {
    problems.push({
      code: 'swale.joins',
      what: `"${name}" does not say which work it opens into, and by which end`,
      field: 'joins',
      do: 'Name the work, and "start" or "end".',
    });
  }
  const isStretch =
    fuse === undefined ||
    ([fuse?.fromM, fuse?.toM, fuse?.crestM].every((v) => Number.isFinite(v)) && fuse.fromM >= 0 && fuse.toM > fuse.fromM);
  if (!isStretch) {
    problems.push({
      code: 'swale.fuse',
      what: `the fuse of "${name}" is no stretch of its bank`,
      field: 'fuse',
      do: 'Give where it begins and ends along the bank, and its crest.',
    });
  }
  return problems;
}

/** Everything wrong with one swale on its own. */
export function validateSwale(swale: Swale): Problem[] {
  const problems = [...checkFields(swale, SWALE_FIELDS), ...checkLine(swale, swale.line)];
  if (!SWALE_PURPOSES.includes(swale.purpose)) {
    problems.push({
      code: 'swale.purpose',
      what: `purpose of "${swale.name}" is ${told(swale.purpose)}`,
      field: 'purpose',
      do: `Choose one of ${SWALE_PURPOSES.join(', ')}.`,
    });
  }
  if (problems.length === 0 && swale.levels.bankCrestM <= swale.levels.floorM) {
    problems.push({
      code: 'swale.levels-order',
      what: say`the bank crest of "${swale.name}" (${amount(swale.levels.bankCrestM, 'reading')}) is not above its floor (${amount(swale.levels.floorM, 'reading')})`,
      field: 'levels.bankCrestM',
      do: 'Raise the bank crest or lower the floor.',
    });
  }
  problems.push(...joinProblems(swale));
  for (const [i, low] of (swale.lowPlaces ?? []).entries()) {
    const isSound = [low.atM, low.lengthM, low.levelM].every((v) => Number.isFinite(v)) && low.lengthM > 0 && low.atM >= 0;
    if (!isSound) {
      problems.push({
        code: 'swale.low-place',
        what: `low place ${i + 1} of "${swale.name}" has no sound place, length and level`,
        field: `lowPlaces.${i}`,
        do: 'Give where along the bank, how long and at what level.',
      });
    }
  }
  return problems;
}
