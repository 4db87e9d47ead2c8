// A swale whose lip lies at level 0, so that differences of levels are exact, and facts about it.
import type { Outlet } from '../contract/index.ts';
import { lineLength, pointAlong } from '../geometry/index.ts';
import type { SwaleFacts } from '../works/swale/place-checks.ts';
import { highestOn, waterLine } from '../works/swale/water-line.ts';
import { type Swale, measureLip, storeOf } from '../works/swale/index.ts';
import { gridOf } from './grids.ts';
import { SWALE } from './projects.ts';
import { factsOf, siteOf, stormOf } from './rules.ts';

export const site = siteOf(gridOf((_x, y) => 0.1 * (y - 101), { cells: 101, cellM: 2 }));
export const SWALE0: Swale = { ...SWALE, levels: { floorM: -0.35, bankCrestM: 0.35 } };
const flat = { ...measureLip(SWALE0.line, site) };
/** The lip exactly level, whatever sampling a plane makes of it. */
export const ground = { ...flat, groundM: flat.groundM.map(() => 0), meanGroundM: 0 };

export const sill = (levelM: number, change: Partial<Outlet> = {}): Outlet => ({
  id: `s${levelM}`,
  role: 'way',
  work: 's',
  name: 'Sill',
  kind: 'sill',
  levelM,
  dischargeAt: [140, 96],
  flowAt: () => 0,
  ...change,
});
export const company = { host: null, guests: [], siblings: [], hostFacts: null };
export function facts(change: Partial<SwaleFacts> = {}, swale: Partial<Swale> = {}): SwaleFacts {
  const one = { ...SWALE0, ...swale };
  return { ...factsOf(site, { store: storeOf(one, ground, [sill(0)]), storm: stormOf() }), swale: one, ground, company, ...change };
}

/** Water 0.35 m deep in a swale that lets out so much over sills at places along it, as much over each. */
export const tilting = (atM: readonly number[], flowM3s: number): SwaleFacts => {
  const sills = atM.map((at) =>
    sill(0, { id: `s${at}`, dischargeAt: pointAlong(SWALE0.line, at).point, flowAt: () => flowM3s / atM.length }),
  );
  return facts({ store: storeOf(SWALE0, ground, sills), storm: stormOf({ peakLevelM: 0 }) });
};
export const LENGTH = lineLength(SWALE0.line);
/** The flow by which the far end rises so much, by halving. */
export function flowFor(riseM: number): number {
  let [lo, hi] = [0, 3];
  for (let k = 0; k < 60; k++) {
    const middle = (lo + hi) / 2;
    const { riseM: rises } = highestOn(waterLine(SWALE0, { lengthM: LENGTH, leaving: [{ atM: 20, flowM3s: middle }], levelM: 0 }));
    if (rises < riseM) lo = middle;
    else hi = middle;
  }
  return lo;
}
