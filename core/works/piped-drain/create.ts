// A drain to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { PipedDrain } from './model.ts';

export const newDrain = (
  id: string,
  name: string,
  first: Pick<PipedDrain, 'line' | 'basins' | 'levels'> & Partial<Pick<PipedDrain, 'into' | 'ends'>>,
): PipedDrain => ({
  id,
  kind: 'piped-drain',
  name,
  status: 'planned',
  line: first.line,
  basins: first.basins,
  ...(first.into === undefined ? {} : { into: first.into }),
  ends: first.ends ?? 'daylight',
  wall: 'smooth',
  over: 'grass',
  mouth: 'open',
  asked: 'not-asked',
  services: 'not-asked',
  levels: first.levels,
  dimensions: { setM: 0.02, openShare: 0.4, closedPercent: 50, stoneM: 0 },
  found: {},
  labour: { mPerDay: 8 },
});

export const DRAIN_SAMPLE = newDrain('piped-drain', 'Drain', {
  line: [[0, 0], [20, 0]],
  basins: [{ atM: 0, invertM: 99.4, pipeM: 0.1, grateLongM: 0.3, grateWideM: 0.3, sumpM: 0.15 }],
  levels: { outletM: 99 },
}); // prettier-ignore

const FALLS = 'Click from its upper end to where it may end, a basin at every corner; end it on another drain or a store to lead it there.';

export const DRAIN_DRAWS: readonly DrawSpec[] = [
  { id: 'piped-drain', name: 'Drain with basins', what: 'line', least: 2, hint: `${FALLS} Double-click to end.`, seesStores: true },
  { id: 'street-drain', name: 'Drain with basins to the street', what: 'line', least: 2, hint: `${FALLS} Double-click to end.`, seesStores: true },
  { id: 'closed-drain', name: 'Drain from a downspout', what: 'line', least: 2, hint: `${FALLS.replace('a basin', 'a joint under a lid')} Double-click to end.`, seesStores: true },
]; // prettier-ignore
