// Water that soaked in and comes out again below: a share of it, after some time, where somebody thinks it does. A guess, and told as one.
import type { FieldSpec, Ref, ReferenceSpec, Store } from '../contract/index.ts';

export interface ComesBack {
  readonly comesBackPercent?: number;
  readonly comesBackDays?: number;
  /** The store it comes out into; left out, somewhere nobody follows it. */
  readonly backTo?: string;
}

export const COMES_BACK_FIELDS: readonly FieldSpec[] = [
  {
    path: 'comesBackPercent',
    label: 'Comes out again below',
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'What you think of it does: a guess, and told as one.',
    optional: { offer: 'You think some of it comes out again below', start: 20 },
  },
  {
    path: 'comesBackDays',
    label: 'After',
    kind: 'days',
    min: 0,
    max: 4000,
    help: 'As you think: a guess.',
    optional: { offer: 'You think you know when', start: 60 },
  },
];

export const COMES_BACK_REFERENCE: ReferenceSpec = {
  path: 'backTo',
  title: 'Where it comes out again',
  label: 'Comes out at',
  none: 'no store: in a wet place or a creek',
  shownWhen: { path: 'comesBackPercent', isNot: [undefined] },
};

export const backRefs = ({ backTo }: ComesBack): readonly Ref[] =>
  backTo === undefined ? [] : [{ role: 'back', id: backTo, path: 'backTo', whenGone: 'lets-go' }];

/** What of its soaked water comes back, for the days; nothing while share or time is not said. */
export const comesBackOf = ({ comesBackPercent, comesBackDays, backTo }: ComesBack): Pick<Store, 'comesBack'> =>
  comesBackPercent === undefined || comesBackDays === undefined
    ? {}
    : { comesBack: { share: comesBackPercent / 100, lagDays: Math.round(comesBackDays), to: backTo ?? null } };
