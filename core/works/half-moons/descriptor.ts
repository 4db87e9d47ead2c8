// Half-moons and planting pits: what they are, without what works them out.
import type { Descriptor } from '../../contract/index.ts';
import { MOONS_DRAWS, MOONS_SAMPLE } from './create.ts';
import { storeIdOf } from '../series.ts';
import { BREACHES, type HalfMoons, MOONS_CHOICES, MOONS_FIELDS, shareCaught, validateMoons } from './model.ts';

/** Far more than ever comes to a row [m3/s]: up to there the share is straight. */
const MOST_M3S = 1000;

export const halfMoonsDescriptor: Descriptor<HalfMoons> = {
  kind: 'half-moons',
  title: 'Half-moons',
  titleOf: ({ form }) => (form === 'pit' ? 'Planting pits' : 'Half-moons'),
  family: 'store',
  sample: MOONS_SAMPLE,
  fields: MOONS_FIELDS,
  choices: MOONS_CHOICES,
  lists: [BREACHES],
  validate: validateMoons,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: MOONS_DRAWS,
  footprint: ({ rows }) => rows,
  // Of what comes to a row each basin meets its own width; the rest runs through the gaps.
  intakes: (work) =>
    work.rows.map((line, k) => {
      const share = shareCaught(work, k);
      return {
        store: storeIdOf(work.id, k),
        line,
        takes: [
          [0, 0],
          [MOST_M3S, MOST_M3S * share],
        ],
      };
    }),
  groundKey: (work) => work.rows,
};
