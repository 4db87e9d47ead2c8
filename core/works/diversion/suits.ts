// Where a diversion drain suits.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { RATE, over, suited, told, under } from '../suiting.ts';

export const suitsDrain = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, rateMmPerHour, isBare, driveBelow, houseM, purpose, shapes } = place;
  return suited(
    22,
    [
      { is: slope > 0.3, says: say`on ${amount(slope, 'slope')} a drain is cut by its own water` },
      {
        is: under(rateMmPerHour, 4),
        worth: 40,
        says: say`the ground takes in ${told(rateMmPerHour, 'intensity')}: it must be led to where it may go`,
        ask: RATE,
      },
      { is: over(rateMmPerHour, 9.99), worth: -15, says: 'it would lead away what the ground could keep' },
      { is: driveBelow || (houseM !== null && houseM < 15), worth: 10, says: 'it keeps water off what lies below' },
      { is: isBare === true, worth: -10, says: 'bare ground fills it with silt' },
      { is: purpose === 'lead-off', worth: 25, says: 'it leads water to where it may go' },
      { is: purpose === 'soak' || purpose === 'grow', worth: -10, says: 'it keeps nothing' },
    ],
    { school: 'lead it safely away', draw: shapes.falling && { how: 'diversion', points: shapes.falling } },
  );
};
