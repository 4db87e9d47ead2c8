// A roof to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import { type Line, closed, distance, lineLength } from '../../geometry/index.ts';
import type { Roof } from './model.ts';

/** A downpipe to so much of gutter at first, and gutters along the two long sides [m]: common practice. */
const A_DOWNPIPE_M = 12;
const CENTIMETRE = 100;

/** The two longest sides: the eaves of most roofs. */
function eavesOf(ring: Line): number {
  const around = closed(ring);
  const sides = ring.map((_, k) => distance(around[k], around[k + 1])).sort((a, b) => b - a);
  return Math.min(lineLength(around), sides[0] + (sides.length > 3 ? sides[1] : 0));
}

export function newRoof(id: string, name: string, { ring }: { readonly ring: Line }): Roof {
  const gutterLengthM = Math.max(0.5, Math.round(CENTIMETRE * eavesOf(ring)) / CENTIMETRE);
  return {
    id,
    kind: 'roof',
    name,
    status: 'existing',
    ring,
    covering: 'metal',
    gutter: 'half-round',
    risk: 'eaves',
    screen: 'none',
    dimensions: {
      eavesM: 2.7,
      riseM: 1.2,
      gutterM: 0.125,
      gutterLengthM,
      downpipes: Math.max(1, Math.ceil(gutterLengthM / A_DOWNPIPE_M)),
      downpipeM: 0.09,
      firstFlushMm: 1,
    },
    labour: { mPerDay: 15 },
  };
}

/** Sheet on posts or blocks, put up for its rain alone: low, one slope, one gutter along its lower side. */
export function newSheet(id: string, name: string, ring: Line): Roof {
  const first = newRoof(id, name, { ring });
  const around = closed(ring);
  const longest = Math.max(...ring.map((_, k) => distance(around[k], around[k + 1])));
  const gutterLengthM = Math.max(0.5, Math.round(CENTIMETRE * longest) / CENTIMETRE);
  const { dimensions } = first;
  return {
    ...first,
    status: 'planned',
    dimensions: { ...dimensions, eavesM: 0.5, riseM: 0.4, gutterLengthM, downpipes: Math.max(1, Math.ceil(gutterLengthM / A_DOWNPIPE_M)) },
  };
}

export const ROOF_SAMPLE = newRoof('roof', 'Roof', { ring: [[0, 0], [12, 0], [12, 8], [0, 8]] }); // prettier-ignore

export const ROOF_DRAWS: readonly DrawSpec[] = [
  {
    id: 'roof',
    name: 'Roof that is caught',
    what: 'ring',
    least: 3,
    hint: 'Click its corners from above, overhang and all; double-click to end. One plane, or all that runs to the same gutters.',
  },
  {
    id: 'sheet-on-blocks',
    name: 'Sheet on blocks, for its rain alone',
    what: 'ring',
    least: 3,
    hint: 'Click its corners from above; double-click to end. Low and open to the sky: as near to its tank, and higher, as the ground allows.',
  },
  {
    id: 'roof-of-building',
    name: 'Roof of a building',
    what: 'point',
    least: 1,
    most: 1,
    isInside: true,
    hint: 'Click into a building that is drawn.',
  },
];
