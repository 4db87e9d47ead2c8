import type { PlacedWork, Store } from '../contract/index.ts';
import { lineLength, pointAlong } from '../geometry/index.ts';
import { type Surface, groundAt } from './surfaces.ts';

/** How many places of a work its ground is asked at. */
const PLACES = 24;

/** The ground under a work, along its line, since it lies in several zones at times. */
export interface GroundUnder {
  /** Mean rate it takes in water at [mm/h]. */
  readonly rateMmPerHour: number;
  /** Whether every part of it was tested. */
  readonly isTested: boolean;
}

export function groundUnder(
  stores: readonly Store[],
  works: readonly { readonly bound: { readonly work: { readonly id: string } }; readonly placed: PlacedWork }[],
  surfaces: readonly Surface[],
): Map<string, GroundUnder> {
  return new Map(
    stores.flatMap((store): [string, GroundUnder][] => {
      const host = works.find((w) => w.bound.work.id === store.work)?.placed.host;
      if (!host) return [];
      const length = lineLength(host.line);
      const soils = Array.from({ length: PLACES }, (_, k) =>
        groundAt(surfaces, pointAlong(host.line, ((k + 0.5) / PLACES) * length).point),
      );
      const rateMmPerHour = soils.reduce((a, s) => a + s.infiltrationMmPerHour, 0) / PLACES;
      return [[store.work, { rateMmPerHour, isTested: soils.every((s) => s.soil.rateFrom !== undefined) }]];
    }),
  );
}
