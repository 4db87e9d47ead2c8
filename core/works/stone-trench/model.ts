import type { FieldSpec, WorkBase } from '../../contract/index.ts';
import { type FirstWayOut, mm } from '../beginning.ts';
import { AT_FIELD } from '../on-host.ts';

export interface StoneTrench extends WorkBase {
  readonly kind: 'stone-trench';
  readonly host: string;
  readonly atM: number;
  readonly levels: {
    /** Dug floor at its outer end. */
    readonly floorM: number;
    /** Where water begins to pass: the lip the stone stands on. */
    readonly sillM: number;
    /** Top of the stone: more runs over it. */
    readonly rockTopM: number;
  };
  readonly dimensions: { readonly widthM: number; readonly lengthM: number; readonly stoneM: number };
}

export const TRENCH_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.floorM', label: 'Dug floor', kind: 'level', min: -500, max: 9000, help: 'Bottom of the trench at its outer end.' },
  {
    path: 'levels.sillM',
    label: 'Spill level',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'The lip in the pond’s side: water begins to seep here.',
  },
  { path: 'levels.rockTopM', label: 'Top of the stone', kind: 'level', min: -500, max: 9000, help: 'Above it water runs over the stone.' },
  { path: 'dimensions.widthM', label: 'Width', kind: 'length', min: 0.3, max: 30, help: 'A bucket’s width, or several.' },
  {
    path: 'dimensions.lengthM',
    label: 'Length along the flow',
    kind: 'length',
    min: 1,
    max: 100,
    help: 'Out onto your own land, falling away from the pond.',
  },
  {
    path: 'dimensions.stoneM',
    label: 'Median stone',
    kind: 'length',
    min: 0.02,
    max: 1,
    help: 'Clean, sharp stone; the larger the more passes through.',
  },
  AT_FIELD,
];

/** A trench to begin with: common practice, to be sized by its checks. */
export const newTrench = ({ sillM, ...first }: FirstWayOut): StoneTrench => ({
  ...first,
  kind: 'stone-trench',
  levels: { floorM: mm(sillM - 0.3), sillM, rockTopM: mm(sillM + 0.3) },
  dimensions: { widthM: 1.5, lengthM: 8, stoneM: 0.15 },
});
