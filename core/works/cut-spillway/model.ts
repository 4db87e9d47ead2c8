import type { FieldSpec, WorkBase } from '../../contract/index.ts';
import type { FirstWayOut } from '../beginning.ts';
import { AT_FIELD } from '../on-host.ts';

export interface CutSpillway extends WorkBase {
  readonly kind: 'cut-spillway';
  readonly host: string;
  readonly atM: number;
  readonly levels: { readonly sillM: number };
  readonly dimensions: {
    readonly bottomWidthM: number;
    readonly sideSlopeHV: number;
    readonly inletLengthM: number;
    readonly controlLengthM: number;
    /** Median stone on its slope; 0 where grass must stand. */
    readonly stoneM: number;
  };
}

export const CUT_FIELDS: readonly FieldSpec[] = [
  {
    path: 'levels.sillM',
    label: 'Level of its control',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'The level stretch water begins to run over.',
  },
  {
    path: 'dimensions.bottomWidthM',
    label: 'Bottom width',
    kind: 'length',
    min: 0.5,
    max: 100,
    help: 'Wide and shallow: grass stands thin water.',
  },
  { path: 'dimensions.sideSlopeHV', label: 'Sides, out per 1 up', kind: 'number', min: 1, max: 10, help: '3, so that it can be mown.' },
  {
    path: 'dimensions.inletLengthM',
    label: 'Length from the pond',
    kind: 'length',
    min: 0,
    max: 200,
    help: 'Grass there takes head before the control does.',
  },
  {
    path: 'dimensions.controlLengthM',
    label: 'Level length',
    kind: 'length',
    min: 0.5,
    max: 60,
    help: 'At least 6 m level, along the flow.',
  },
  { path: 'dimensions.stoneM', label: 'Stone on its slope', kind: 'length', min: 0, max: 1, help: 'Median size; 0 where it is grass.' },
  AT_FIELD,
];

/** A spillway to begin with: common practice, to be sized by its checks. */
export const newCut = ({ sillM, ...first }: FirstWayOut): CutSpillway => ({
  ...first,
  kind: 'cut-spillway',
  levels: { sillM },
  dimensions: { bottomWidthM: 4, sideSlopeHV: 3, inletLengthM: 6, controlLengthM: 6, stoneM: 0 },
});
