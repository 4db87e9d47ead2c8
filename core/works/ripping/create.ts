// A ripping pattern to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { Ripping } from './model.ts';

export const newRipping = (
  id: string,
  name: string,
  on: { readonly line: Line; readonly ring?: Line; readonly reachM: number },
): Ripping => ({
  id,
  kind: 'ripping',
  name,
  status: 'planned',
  line: on.line,
  ...(on.ring === undefined ? {} : { ring: on.ring }),
  soil: 'not-looked',
  texture: 'unknown',
  services: 'not-asked',
  dimensions: { spacingM: 0.8, depthM: 0.2, pointM: 0.05, upM: on.reachM, downM: on.reachM, season: 1 },
  restDays: 60,
  machine: { shanks: 3, speedKmh: 4, litresAnHour: 9 },
});

export const RIPPING_SAMPLE = newRipping('ripping', 'Ripping', { line: [[0, 0], [40, 0]], reachM: 10 }); // prettier-ignore

export const RIPPING_DRAWS: readonly DrawSpec[] = [
  {
    id: 'ripping',
    name: 'Ripping over a field',
    what: 'ring',
    least: 3,
    hint: 'Click round the field, double-click to close: its key line is the contour through its middle, all others keep beside it.',
  },
  {
    id: 'rip-line',
    name: 'Ripping beside a key line',
    what: 'line',
    least: 2,
    hint: 'Click along the key line, from the valley’s key point out to the ridge; double-click to end. It stays as you draw it.',
  },
];
