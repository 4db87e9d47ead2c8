import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { SEED_AT_ONCE, inOrder, line } from '../making.ts';
import { type LevelSill, isGrassed } from './model.ts';

export const quantitiesOf = (sill: LevelSill): QuantityLine[] => {
  const { lengthM, crestWidthM } = sill.dimensions;
  return isGrassed(sill)
    ? [line({ item: 'turf', label: 'Crest to turf', kind: 'area', from: 'length by its level width' }, lengthM * crestWidthM, 'surface')]
    : [line({ item: 'lip', label: 'Lip of rock, timber or concrete', kind: 'length', from: 'length of the sill' }, lengthM, 'made')];
};

const TURFED = {
  id: 'cover',
  does: 'Turf it, or seed, mulch and pin a mat down; carry it well past both ends.',
  cautions: [SEED_AT_ONCE, 'Keep stock and wheels off until it is rooted.'],
};
const LIPPED = {
  id: 'lip',
  does: 'Bed the lip level on firm ground, keyed into both ends and a hand down, with a step below it that stands clear of the grass.',
  hold: 'No water finds its way under it: fill one end and look.',
  cautions: ['Lay stone under the step: falling water digs there first.'],
};

export const stepsOf = (sill: LevelSill): BuildStep[] => {
  const { levels, dimensions } = sill;
  return inOrder(
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
    isGrassed(sill) ? TURFED : LIPPED,
  );
};
