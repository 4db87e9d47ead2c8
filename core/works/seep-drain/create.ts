// A seepage drain to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { SeepDrain } from './model.ts';

export const newSeepDrain = (
  id: string,
  name: string,
  first: Pick<SeepDrain, 'line' | 'levels' | 'purpose'> & Partial<Pick<SeepDrain, 'into'>>,
): SeepDrain => ({
  id,
  kind: 'seep-drain',
  name,
  status: 'planned',
  line: first.line,
  ...(first.into === undefined ? {} : { into: first.into }),
  purpose: first.purpose,
  wrap: 'gravel',
  soil: 'not-known',
  top: 'earth',
  downspouts: 'not-said',
  mouth: 'open',
  asked: 'not-asked',
  services: 'not-asked',
  levels: first.levels,
  dimensions: { widthM: 0.3, pipeM: 0.1, overM: 0.2, underM: 0.05 },
  labour: { mPerDay: 6 },
});

export const SEEP_SAMPLE = newSeepDrain('seep-drain', 'Seepage drain', {
  line: [[0, 0], [20, 0]],
  purpose: 'yard',
  levels: { upperM: 99.5, outletM: 99.4 },
}); // prettier-ignore

const HINT = 'Click from its upper end to where it may end; end it on a drain to lead it there. Double-click to end.';

export const SEEP_DRAWS: readonly DrawSpec[] = [
  { id: 'seep-drain', name: 'Seepage drain for wet ground', what: 'line', least: 2, hint: HINT, seesStores: true },
  { id: 'wall-drain', name: 'Seepage drain behind a wall', what: 'line', least: 2, hint: HINT, seesStores: true },
  { id: 'slope-drain', name: 'Seepage drain across a slope', what: 'line', least: 2, hint: HINT, seesStores: true },
];
