// Where a pond dug into the ground suits.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { RATE, SOIL_DEPTH, over, suited, told, under } from '../suiting.ts';

export const suitsPond = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, rateMmPerHour, soilDepthM, gathersM2, machine, purpose, houseM, shapes } = place;
  return suited(
    18,
    [
      { is: slope > 0.12, says: say`on ${amount(slope, 'slope')} a dug pond is all bank` },
      { is: under(soilDepthM, 1.2), says: say`${told(soilDepthM, 'length')} of soil is too little to dig one in`, ask: SOIL_DEPTH },
      {
        is: under(rateMmPerHour, 4),
        worth: 22,
        says: say`ground that takes in ${told(rateMmPerHour, 'intensity')} holds water`,
        ask: RATE,
      },
      { is: over(rateMmPerHour, 15), worth: -30, says: say`ground that takes in ${told(rateMmPerHour, 'intensity')} leaks` },
      { is: over(gathersM2, 4999), worth: 8, says: say`${amount(gathersM2, 'land')} drains to its lowest place` },
      { is: machine === 'no', worth: -15, says: 'by hand it is months of digging' },
      { is: houseM !== null && houseM < 15, worth: -15, says: 'open water near a house asks for a fence' },
      { is: purpose === 'hold', worth: 40, says: 'it holds water for months' },
    ],
    { draw: shapes.low && { how: 'pit', points: shapes.low } },
  );
};
