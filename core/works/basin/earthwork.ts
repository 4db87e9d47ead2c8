import type { WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';

/** What holds water behind an earth wall, in a pit, or in both, as its levels and sides have it. */
export interface Earthwork extends Pick<WorkBase, 'id' | 'name'> {
  /** Middle of the crest of its wall, across the valley. */
  readonly wall?: Line;
  /** Edge of its pit on the ground. */
  readonly pit?: Line;
  readonly levels: { readonly crestM: number; readonly floorM: number };
  readonly dimensions: {
    readonly topWidthM: number;
    readonly waterSlopeHV: number;
    readonly backSlopeHV: number;
    readonly keyDepthM: number;
    readonly keyWidthM: number;
    readonly stripM: number;
    readonly pitSlopeHV: number;
  };
  readonly settlementPercent: number;
  readonly seepageMmPerDay: number;
  readonly evaporationMmPerDay: number;
}
