// A reach to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Reach } from './model.ts';

export const newReach = (id: string, name: string, first: Pick<Reach, 'line' | 'sections' | 'runs'>): Reach => ({
  id,
  kind: 'reach',
  name,
  status: 'existing',
  line: first.line,
  runs: first.runs,
  known: 'terrain',
  rough: 'unknown',
  bedIs: 'unknown',
  sections: first.sections,
  labour: { m3PerDay: 3 },
});

const across = { bedWidthM: 1, leftOutM: 1, leftHighM: 1, rightOutM: 1, rightHighM: 1 };

export const REACH_SAMPLE = newReach('reach', 'Channel', {
  line: [[0, 0], [50, 0]],
  runs: 'gully',
  sections: [{ atM: 0, bedM: 100, ...across }, { atM: 50, bedM: 99, ...across }],
}); // prettier-ignore

const HINT = 'Draw it down the bed, from its upper end to where it leaves; double-click to end.';

export const REACH_DRAWS: readonly DrawSpec[] = [
  { id: 'gully-reach', name: 'Gully, as it is', what: 'line', least: 2, hint: HINT },
  { id: 'creek-reach', name: 'Creek, as it is', what: 'line', least: 2, hint: HINT },
  { id: 'ditch-reach', name: 'Ditch, as it is', what: 'line', least: 2, hint: HINT },
];
