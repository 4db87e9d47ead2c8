// Where a ripping pattern suits.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { MACHINE, RATE, SOIL_DEPTH, isOne, over, suited, told, under } from '../suiting.ts';

export const suitsRipping = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, soilDepthM, rateMmPerHour, machine, isBare, areaM2, purpose, shapes } = place;
  return suited(
    34,
    [
      { is: isOne(machine, 'no'), says: 'no machine comes there', ask: MACHINE },
      { is: slope > 0.25, says: say`a tractor turns over across ${amount(slope, 'slope')}` },
      { is: under(soilDepthM, 0.25), says: say`a shank strikes rock under ${told(soilDepthM, 'length')} of soil`, ask: SOIL_DEPTH },
      { is: machine === 'yes', worth: 8, says: 'a machine is there' },
      { is: isBare === true, worth: -30, says: 'without roots to follow, slots fall shut in a season' },
      {
        is: isBare === null || rateMmPerHour === null ? null : !isBare && rateMmPerHour >= 4 && rateMmPerHour < 12,
        worth: 20,
        says: say`it takes in only ${told(rateMmPerHour, 'intensity')} though something grows: it may be trodden hard`,
        ask: RATE,
      },
      { is: under(rateMmPerHour, 4), worth: -15, says: 'ground so tight is hardly ever dry enough to break' },
      { is: slope <= 0.12, worth: 6, says: say`${amount(slope, 'slope')} can be driven across` },
      { is: slope > 0.15, worth: -20, says: say`${amount(slope, 'slope')} is risky across` },
      { is: over(soilDepthM, 0.5), worth: 6, says: 'its soil is deep enough to be opened' },
      { is: areaM2 >= 8000, worth: 12, says: 'a large field is done in hours' },
      { is: areaM2 < 1500, worth: -25, says: 'a machine cannot turn in so small a place' },
      { is: purpose === 'hold', worth: -25, says: 'slots hold no water' },
      { is: purpose === 'soak' || purpose === 'slow', worth: 5, says: 'water spreads along the slots instead of gathering' },
    ],
    { school: 'pattern ripping from valley to ridge', draw: { how: 'ripping', points: shapes.own } },
  );
};
