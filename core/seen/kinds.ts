// Things seen in the field that no map shows, and what each does to the way water runs.
import type { FieldSpec } from '../contract/index.ts';

/**
 * What a seen thing does to the surface:
 * bank: stands in the way · ditch: carries along · led: goes in at one end and out at the other · downspout: takes a building's
 * water to a point · spring: adds water · note: changes nothing but can be held against what is computed.
 */
export type SeenEffect = 'bank' | 'ditch' | 'led' | 'downspout' | 'spring' | 'note';

export interface SeenKind {
  readonly kind: string;
  readonly title: string;
  readonly shape: 'line' | 'point';
  readonly effect: SeenEffect;
  readonly fields: readonly FieldSpec[];
  /** Values a new one begins with: common practice, to be replaced by what is measured. */
  readonly start: Readonly<Record<string, number>>;
  readonly says: string;
}

const height = (max: number): FieldSpec => ({
  path: 'heightM',
  label: 'Height above the ground',
  kind: 'difference',
  min: 0.01,
  max,
  help: 'How high water must rise on its uphill side to go over.',
});
const depth: FieldSpec = {
  path: 'depthM',
  label: 'Depth below the ground',
  kind: 'difference',
  min: 0.01,
  max: 5,
  help: 'How deep its bed lies under the ground beside it.',
};

/** How deep what is buried lies nobody knows until it is located. */
const LOCATED = { offer: 'It was located, and its depth told', start: 0.5 } as const;

export const SEEN_KINDS: readonly SeenKind[] = [
  {
    kind: 'windrow',
    title: 'Windrow',
    shape: 'line',
    effect: 'bank',
    fields: [height(3)],
    start: { heightM: 0.15 },
    says: 'A low ridge left by a grader or plough. It turns water as surely as a wall.',
  },
  {
    kind: 'bank',
    title: 'Bank',
    shape: 'line',
    effect: 'bank',
    fields: [height(10)],
    start: { heightM: 0.5 },
    says: 'A neighbour’s bank or any earth ridge.',
  },
  {
    kind: 'wall',
    title: 'Wall',
    shape: 'line',
    effect: 'bank',
    fields: [height(20)],
    start: { heightM: 1 },
    says: 'A wall without weep holes.',
  },
  {
    kind: 'kerb',
    title: 'Kerb',
    shape: 'line',
    effect: 'bank',
    fields: [height(1)],
    start: { heightM: 0.1 },
    says: 'A kerb or a raised edge.',
  },
  {
    kind: 'ditch',
    title: 'Ditch',
    shape: 'line',
    effect: 'ditch',
    fields: [depth],
    start: { depthM: 0.3 },
    says: 'An existing ditch or swale. Note which end is wet.',
  },
  {
    kind: 'water-track',
    title: 'Track that carries water',
    shape: 'line',
    effect: 'ditch',
    fields: [{ ...depth, label: 'Depth of its ruts' }],
    start: { depthM: 0.08 },
    says: 'Wheel ruts and sunken tracks take water along the hill.',
  },
  {
    kind: 'culvert',
    title: 'Culvert',
    shape: 'line',
    effect: 'led',
    fields: [],
    start: {},
    says: 'From where water goes in to where it comes out. Taken as carrying all that reaches it.',
  },
  {
    kind: 'pipe',
    title: 'Pipe',
    shape: 'line',
    effect: 'led',
    fields: [],
    start: {},
    says: 'From inlet to outlet. Taken as carrying all that reaches its inlet.',
  },
  {
    kind: 'downspout',
    title: 'Downspout',
    shape: 'point',
    effect: 'downspout',
    fields: [],
    start: {},
    says: 'Where the nearest roof lets its water out; several share the roof by nearness.',
  },
  {
    kind: 'spring',
    title: 'Spring',
    shape: 'point',
    effect: 'spring',
    fields: [{ path: 'flowM3s', label: 'Flow', kind: 'flow', min: 0, max: 5, help: 'Time a bucket: litres over seconds.' }],
    start: { flowM3s: 0.0005 },
    says: 'Water that comes whether it rains or not.',
  },
  {
    kind: 'buried-cable',
    title: 'Buried cable',
    shape: 'line',
    effect: 'note',
    fields: [
      { ...depth, label: 'Lies under the ground', help: 'As it was located; deeper where nobody dug is a guess.', optional: LOCATED },
    ],
    start: {},
    says: 'Power, telephone or the line of an air conditioner, as it was located and marked.',
  },
  {
    kind: 'buried-pipe',
    title: 'Buried water or gas pipe',
    shape: 'line',
    effect: 'note',
    fields: [
      {
        ...depth,
        label: 'Lies under the ground',
        help: 'Its middle, as it was located; irrigation 0.2 to 0.4 m, mains 0.8 m and more.',
        optional: LOCATED,
      },
    ],
    start: {},
    says: 'Irrigation, mains or gas, as it was located and marked.',
  },
  {
    kind: 'debris-line',
    title: 'Debris line',
    shape: 'line',
    effect: 'note',
    fields: [{ ...height(10), label: 'Height of the mark above the ground', min: 0, help: 'Straw, silt or stain left by high water.' }],
    start: { heightM: 0.1 },
    says: 'Where high water left its mark.',
  },
  {
    kind: 'flow-arrow',
    title: 'Flow seen',
    shape: 'line',
    effect: 'note',
    fields: [],
    start: {},
    says: 'Which way water was seen to run, from where to where.',
  },
];

export function seenKind(kind: string): SeenKind | undefined {
  return SEEN_KINDS.find((k) => k.kind === kind);
}
