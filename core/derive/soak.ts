import type { PlacedWork, Site, Store } from '../contract/index.ts';
import { lineLength, pointAlong } from '../geometry/index.ts';

/** How many places of a work its ground is asked at. */
const PLACES = 24;

/** Mean rate at which the ground under each store takes in water [mm/h]: along its line, since it lies in several zones at times. */
export function soakRates(
  stores: readonly Store[],
  works: readonly { readonly bound: { readonly work: { readonly id: string } }; readonly placed: PlacedWork }[],
  site: Pick<Site, 'soilAt'>,
): Map<string, number> {
  return new Map(
    stores.flatMap((store): [string, number][] => {
      const host = works.find((w) => w.bound.work.id === store.work)?.placed.host;
      if (!host) return [];
      const length = lineLength(host.line);
      let sum = 0;
      for (let k = 0; k < PLACES; k++) sum += site.soilAt(pointAlong(host.line, ((k + 0.5) / PLACES) * length).point).infiltrationMmPerHour;
      return [[store.work, sum / PLACES]];
    }),
  );
}
