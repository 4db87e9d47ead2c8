import type { WorkBase } from '../../contract/index.ts';

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
