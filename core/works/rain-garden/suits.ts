// Where a rain garden suits.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { RATE, over, suited, told, under } from '../suiting.ts';

export const suitsGarden = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, rateMmPerHour, areaM2, aboveM2, houseM, driveBelow, purpose, shapes } = place;
  return suited(
    25,
    [
      { is: slope > 0.15, says: say`on ${amount(slope, 'slope')} basins are more bank than water` },
      {
        is: under(rateMmPerHour, 5),
        says: say`the ground takes in ${told(rateMmPerHour, 'intensity')}: water would stand in them for days`,
        ask: RATE,
      },
      { is: areaM2 <= 1000, worth: 22, says: 'the place is as small as a yard' },
      { is: areaM2 > 2000, worth: -25, says: 'over so much ground they are a drop in the bucket' },
      {
        is: houseM !== null && houseM <= 40,
        worth: 14,
        says: say`it lies ${told(houseM, 'distance')} from a building, whose roof and yard feed it`,
      },
      { is: houseM !== null && houseM < 3, worth: -30, says: 'it lies against a building, whose footing it would wet' },
      { is: driveBelow, worth: 12, says: 'what it holds does not run over the drive below' },
      { is: over(aboveM2, 3000), worth: -20, says: say`${amount(aboveM2, 'land')} above it drains to it: it would be washed out` },
      { is: over(rateMmPerHour, 14.99), worth: 8, says: say`it takes in ${told(rateMmPerHour, 'intensity')}` },
      { is: purpose === 'hold' || purpose === 'lead-off', worth: -15, says: 'it keeps water for a day, no longer' },
    ],
    { draw: shapes.down && { how: 'rain-garden', points: shapes.down } },
  );
};
