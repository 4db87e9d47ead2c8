import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { told } from '../../units/index.ts';
import { checkFields } from '../fields.ts';

const CRESTS = ['grass', 'hard'] as const;

/** A level crest over which water leaves its host as an even sheet. */
export interface LevelSill extends WorkBase {
  readonly kind: 'level-sill';
  readonly host: string;
  /** Distance of its middle along the host's line. */
  readonly atM: number;
  readonly levels: { readonly sillM: number };
  readonly dimensions: { readonly lengthM: number; readonly crestWidthM: number };
  /** What it is made of; left out, of grass. A hard lip of rock, timber or concrete stands clear of the grass below it. */
  readonly crest?: (typeof CRESTS)[number];
  /** Lowest and highest reading along the finished crest. */
  readonly asFound?: { readonly lowM: number; readonly highM: number };
}

/** First dimensions of a sill: common practice, to be sized by its checks. */
const START = { lengthM: 6, crestWidthM: 1.2 } as const;

/** A sill to begin with, at a level and a place along its host. */
export const newSill = ({
  sillM,
  ...rest
}: Pick<LevelSill, 'id' | 'name' | 'host' | 'atM'> & {
  readonly sillM: number;
  readonly dimensions?: LevelSill['dimensions'];
}): LevelSill => ({ kind: 'level-sill', status: 'planned', levels: { sillM }, dimensions: START, ...rest });

export const SILL_SAMPLE: LevelSill = newSill({ id: 'sill', name: 'Level sill', host: 'store', atM: 10, sillM: 101 });

export const SILL_FIELDS: readonly FieldSpec[] = [
  {
    path: 'levels.sillM',
    label: 'Sill level',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'Where water leaves: the level everything else is set from.',
  },
  {
    path: 'dimensions.lengthM',
    label: 'Sill length',
    kind: 'length',
    min: 0.3,
    max: 200,
    help: 'Length along the contour over which water leaves.',
  },
  {
    path: 'dimensions.crestWidthM',
    label: 'Level width along the flow',
    kind: 'length',
    min: 0.2,
    max: 10,
    help: 'At least 1 m, so that the sheet is even.',
  },
  {
    path: 'atM',
    label: 'Place along the swale',
    kind: 'length',
    min: 0,
    max: 20000,
    help: 'Middle of the sill, from the start of the line.',
  },
];

export const SILL_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'crest',
    label: 'Its crest is',
    usual: 'grass',
    options: [
      { id: 'grass', name: 'grass, level with the ground below' },
      { id: 'hard', name: 'rock, timber or concrete, with a step below' },
    ],
    help: 'Grass below it holds the sheet up: a grass crest passes less at the same water.',
  },
];

/** Whether grass below it holds up what passes it. */
export const isGrassed = ({ crest = 'grass' }: Pick<LevelSill, 'crest'>): boolean => crest === 'grass';

/** Everything wrong with one sill on its own; whether its host exists is the document's business. */
export function validateSill(sill: LevelSill): Problem[] {
  const problems = checkFields(sill, SILL_FIELDS);
  if (typeof sill.host !== 'string' || sill.host === '') {
    problems.push({
      code: 'sill.host',
      what: `"${sill.name}" belongs to no swale`,
      field: 'host',
      do: 'Give the id of the work it lets water out of.',
    });
  }
  if (sill.crest !== undefined && !CRESTS.includes(sill.crest)) {
    problems.push({
      code: 'sill.crest',
      what: `the crest of "${sill.name}" is of ${told(sill.crest)}`,
      field: 'crest',
      do: `Choose one of ${CRESTS.join(', ')}.`,
    });
  }
  const found = sill.asFound;
  if (found && !(Number.isFinite(found.lowM) && Number.isFinite(found.highM) && found.lowM <= found.highM)) {
    problems.push({
      code: 'sill.as-found',
      what: `"${sill.name}": lowest reading ${found.lowM} and highest ${found.highM} do not make a range`,
      field: 'asFound',
      do: 'Give the lowest and the highest level read along the crest.',
    });
  }
  return problems;
}
