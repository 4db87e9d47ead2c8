// Where swales in a set suit.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { MACHINE, RATE, SOIL_DEPTH, isOne, over, suited, told, under } from '../suiting.ts';

export const suitsSwales = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, soilDepthM, rateMmPerHour, machine, isBare, areaM2, purpose, shapes } = place;
  return suited(
    40,
    [
      { is: slope > 0.2, says: say`on ${amount(slope, 'slope')} banks slide` },
      { is: under(soilDepthM, 0.5), says: say`no soil depth, no swale: ${told(soilDepthM, 'length')}`, ask: SOIL_DEPTH },
      {
        is: under(rateMmPerHour, 3),
        says: say`the ground takes in ${told(rateMmPerHour, 'intensity')}: water would stand in them for days`,
        ask: RATE,
      },
      { is: over(soilDepthM, 0.99), worth: 18, says: say`${told(soilDepthM, 'length')} of soil to dig in and to store water` },
      { is: over(rateMmPerHour, 9.99), worth: 14, says: say`it takes in ${told(rateMmPerHour, 'intensity')}` },
      { is: under(rateMmPerHour, 8), worth: -12, says: say`it takes in only ${told(rateMmPerHour, 'intensity')}` },
      { is: isOne(machine, 'yes'), worth: 6, says: 'a machine digs them in a day', ask: MACHINE },
      { is: machine === 'no', worth: -8, says: 'by hand they are weeks of digging' },
      { is: slope >= 0.02 && slope <= 0.12, worth: 8, says: say`${amount(slope, 'slope')} is what they are made for` },
      { is: slope < 0.01, worth: -20, says: 'on ground so flat nothing runs into them' },
      { is: slope > 0.15, worth: -20, says: say`on ${amount(slope, 'slope')} they hold little for their banks` },
      { is: isBare === true, worth: -12, says: 'bare ground silts them up within a few storms' },
      { is: areaM2 < 600, worth: -25, says: 'the place is too small for them' },
      { is: purpose === 'soak' || purpose === 'grow', worth: 8, says: 'what they hold feeds a row of trees below each' },
      { is: purpose === 'lead-off', worth: -20, says: 'they keep water, and do not lead it away' },
    ],
    { school: 'level swales with trees', draw: { how: 'swales-interval', points: shapes.own } },
  );
};
