import type { WorkBase } from '../../contract/index.ts';

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
