import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { SEED_AT_ONCE, inOrder, line } from '../making.ts';
import type { LevelSill } from './model.ts';

export const quantitiesOf = ({ dimensions: { lengthM, crestWidthM } }: LevelSill): QuantityLine[] => [
  line({ item: 'turf', label: 'Crest to turf', kind: 'area', from: 'length by its level width' }, lengthM * crestWidthM, 'surface'),
];

export const stepsOf = ({ levels, dimensions }: LevelSill): BuildStep[] =>
  inOrder(
    {
      id: 'peg',
      does: say`Set three pegs along ${amount(dimensions.lengthM, 'length')} at ${amount(levels.sillM, 'reading')}.`,
      levels: [{ name: 'sill', levelM: levels.sillM }],
    },
    {
      id: 'cut',
      does: say`Shave natural ground to its level, ${amount(dimensions.crestWidthM, 'length')} wide along the flow; never build it up.`,
      hold: 'Level along the crest: 10 mm at the most from end to end.',
    },
    {
      id: 'cover',
      does: 'Turf it, or seed, mulch and pin a mat down; carry it well past both ends.',
      cautions: [SEED_AT_ONCE, 'Keep stock and wheels off until it is rooted.'],
    },
  );
