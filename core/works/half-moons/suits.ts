// Where half-moons suit.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { SOIL_DEPTH, isOne, suited, told, under } from '../suiting.ts';

export const suitsMoons = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, soilDepthM, rateMmPerHour, stone, isBare, purpose, shapes } = place;
  return suited(
    30,
    [
      { is: slope > 0.08, says: say`on ${amount(slope, 'slope')} their bunds are high and break` },
      { is: under(soilDepthM, 0.3), says: say`${told(soilDepthM, 'length')} of soil is too little to dig a basin in`, ask: SOIL_DEPTH },
      {
        is: isBare,
        worth: 35,
        says: 'bare ground sheds its rain: each basin gathers some of it for what is planted in it',
        ask: 'Describe the ground: what grows on it.',
      },
      { is: isBare === false, worth: -20, says: 'something grows there: digging so much of it up loses more than it brings' },
      { is: isOne(stone, 'none'), worth: 6, says: 'they need no stone' },
      { is: slope <= 0.03, worth: 8, says: say`${amount(slope, 'slope')} is gentle enough` },
      { is: slope > 0.05, worth: -12, says: say`on ${amount(slope, 'slope')} only small ones stand` },
      {
        is: isBare === true ? under(rateMmPerHour, 10) : false,
        worth: 6,
        says: 'its crust keeps water out, and is broken where they are dug',
      },
      { is: purpose === 'grow', worth: 8, says: 'each carries a tree or a handful of grain' },
      { is: purpose === 'hold', worth: -20, says: 'they hold water for days, not for months' },
    ],
    { school: 'many small basins', draw: { how: 'half-moons', points: shapes.own } },
  );
};
