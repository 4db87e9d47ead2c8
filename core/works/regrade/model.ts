// Ground that is shaped by hand or machine: made level, let fall away, filled, taken off, or dished.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, type Point, closed } from '../../geometry/index.ts';
import type { Reshape } from '../../terrain/index.ts';
import { checkChoices, checkFields, checkLine, choice, option } from '../fields.ts';

export const SHAPES = ['plane', 'level', 'fill', 'cut', 'by', 'dish'] as const;
export const AFTER = ['lawn', 'paving', 'gravel', 'bed'] as const;

export interface Regrade extends WorkBase {
  readonly kind: 'regrade';
  readonly shape: (typeof SHAPES)[number];
  /** What is shaped: an area, or of a dish the line of its bed, from its upper to its lower end. */
  readonly ring?: Line;
  readonly line?: Line;
  readonly after: (typeof AFTER)[number];
  readonly services: 'asked' | 'not-asked';
  readonly levels: {
    /** Of level ground, of what is filled or cut to, and of a plane at its first corner. */
    readonly levelM: number;
    /** Of a dish's bed at its ends. */
    readonly startM: number;
    readonly endM: number;
  };
  /** How much higher ground is raised, or lowered where it is less than nothing. */
  readonly byM: number;
  /** How a plane falls, and where to: by the compass, from north round by east. */
  readonly fall: number;
  readonly towardsDeg: number;
  readonly dimensions: { readonly batterHV: number; readonly bedWidthM: number; readonly sideHV: number; readonly topsoilM: number };
  /** Lowest sill, vent or damp course near it. */
  readonly thresholdM?: number;
  readonly labour: { readonly m3PerDay: number };
}

const only = (...is: Regrade['shape'][]): FieldSpec['shownWhen'] => ({ path: 'shape', is });
const LEVEL = { kind: 'level', min: -500, max: 9000 } as const;

export const REGRADE_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.levelM', label: 'Level', ...LEVEL, help: 'Of a plane at its first corner; else all over, or down or up to it.', shownWhen: only('plane', 'level', 'fill', 'cut') },
  { path: 'levels.startM', label: 'Bed, upper end', ...LEVEL, help: 'Of the dish, in its middle.', shownWhen: only('dish') },
  { path: 'levels.endM', label: 'Bed, lower end', ...LEVEL, help: 'Where it lets its water go.', shownWhen: only('dish') },
  { path: 'byM', label: 'Raised by', kind: 'difference', min: -5, max: 5, help: 'Less than nothing lowers it.', shownWhen: only('by') },
  { path: 'fall', label: 'It falls', kind: 'slope', min: 0, max: 0.5, help: 'A lawn 2 % and more, paving 1 %; 5 % beside a wall.', shownWhen: only('plane') },
  { path: 'towardsDeg', label: 'Towards, by the compass', kind: 'number', min: 0, max: 360, help: 'In degrees: 0 is north, 90 east.', shownWhen: only('plane') },
  { path: 'dimensions.batterHV', label: 'Batter, out per 1 up', kind: 'number', min: 0.5, max: 20, help: 'Down or up to the ground beside it: 3 is mown, 4 is walked.', shownWhen: { path: 'shape', isNot: ['dish'] } },
  { path: 'dimensions.bedWidthM', label: 'Bed, wide', kind: 'length', min: 0, max: 20, help: 'Round: none.', shownWhen: only('dish') },
  { path: 'dimensions.sideHV', label: 'Sides, out per 1 up', kind: 'number', min: 1, max: 40, help: '4 is mown, 6 and more is not seen.', shownWhen: only('dish') },
  { path: 'dimensions.topsoilM', label: 'Topsoil put back', kind: 'difference', min: 0, max: 0.6, help: 'Stripped first, put back last: 100 to 150 mm under a lawn.' },
  { path: 'thresholdM', label: 'Lowest sill, vent or damp course near it', ...LEVEL, help: 'Water and earth stay 150 mm under it.', optional: { offer: 'You have levelled a sill', start: 100 } },
  { path: 'labour.m3PerDay', label: 'One person moves in a day', kind: 'volume', min: 0.1, max: 500, help: 'About 3 m³ by hand and barrow; 100 and more with a small machine.' },
]; // prettier-ignore

export const REGRADE_CHOICES: readonly ChoiceSpec[] = [
  choice('shape', 'Shaped to', [
    option('plane', 'a plane that falls'),
    option('level', 'one level'),
    option('fill', 'no lower than a level'),
    option('cut', 'no higher than a level'),
    option('by', 'as it is, raised or lowered'),
    option('dish', 'a dish along a line'),
  ]),
  choice('after', 'Then it is', [option('lawn', 'lawn'), option('paving', 'paving'), option('gravel', 'gravel'), option('bed', 'planted')]),
  choice('services', 'Buried cables and pipes', [option('asked', 'located and marked'), option('not-asked', 'not asked for yet')]),
];

export const isDish = ({ shape }: Pick<Regrade, 'shape'>): boolean => shape === 'dish';

/** Its outline, or the bed of a dish. */
export const drawnOf = ({ shape, ring = [], line = [] }: Pick<Regrade, 'shape' | 'ring' | 'line'>): Line =>
  shape === 'dish' ? line : closed(ring);

/** How much a plane falls to the east and to the north [m/m]. */
export function fallOf({ fall, towardsDeg }: Pick<Regrade, 'fall' | 'towardsDeg'>): Point {
  const turn = (towardsDeg * Math.PI) / 180;
  return [fall * Math.sin(turn), fall * Math.cos(turn)];
}

/** What it makes of the ground. */
export function reshapesOf(work: Regrade): readonly Reshape[] {
  const { shape, ring = [], line = [], levels, byM, dimensions } = work;
  const { batterHV, bedWidthM, sideHV } = dimensions;
  if (shape === 'dish') return [{ what: 'dish', line, startM: levels.startM, endM: levels.endM, bedWidthM, sideHV }];
  if (shape === 'plane') return [{ what: 'plane', ring, batterHV, at: ring[0], levelM: levels.levelM, fall: fallOf(work) }];
  if (shape === 'by') return [{ what: 'by', ring, batterHV, byM }];
  return [{ what: shape, ring, batterHV, levelM: levels.levelM }];
}

/** Everything wrong with one on its own. */
export function validateRegrade(work: Regrade): Problem[] {
  const shape = [...checkFields(work, REGRADE_FIELDS), ...checkChoices(work, REGRADE_CHOICES)];
  if (isDish(work)) return [...shape, ...checkLine(work, work.line)];
  const ring: unknown = work.ring;
  const outline = checkLine(work, ring).map((p) => ({ ...p, field: 'ring' }));
  if (outline.length > 0 || (Array.isArray(ring) && ring.length >= 3)) return [...shape, ...outline];
  return [
    ...shape,
    {
      code: 'regrade.ring',
      what: `the outline of "${work.name}" has fewer than three corners`,
      field: 'ring',
      do: 'Draw it again round what is to be shaped, or make it a dish along a line.',
    },
  ];
}
