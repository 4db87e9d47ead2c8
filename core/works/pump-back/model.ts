import type { WorkBase } from '../../contract/index.ts';

export const PUMP_DRIVES = ['sun', 'mains'] as const;

/** Roughness of a pipe's wall [m] (handbook 4.5). */
export const PIPE_WALLS = { plastic: 0.00001, steel: 0.000045, galvanised: 0.00015, concrete: 0.001 } as const;
export type PipeWall = keyof typeof PIPE_WALLS;

export interface PumpBack extends WorkBase {
  readonly kind: 'pump-back';
  /** Stores it takes from and lifts to. */
  readonly host: string;
  readonly to: string;
  readonly drive: (typeof PUMP_DRIVES)[number];
  readonly levels: {
    /** Level of the lower store under which it stops. */
    readonly stopM: number;
    /** Where the pipe ends. */
    readonly deliveryM: number;
  };
  readonly flowM3s: number;
  readonly pipe: { readonly lengthM: number; readonly diameterM: number; readonly wall: PipeWall };
  readonly efficiency: number;
  readonly sunHours: number;
  readonly panelShare: number;
}
