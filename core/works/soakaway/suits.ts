// Where a soak trench suits.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { RATE, SOIL_DEPTH, over, suited, told, under } from '../suiting.ts';

export const suitsSoak = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, rateMmPerHour, soilDepthM, areaM2, houseM, isBare, purpose, shapes } = place;
  return suited(
    20,
    [
      { is: under(rateMmPerHour, 7), says: say`the ground takes in ${told(rateMmPerHour, 'intensity')}: it would stay full`, ask: RATE },
      { is: slope > 0.2, says: say`water let into a slope of ${amount(slope, 'slope')} comes out of it again, and may take it along` },
      { is: houseM !== null && houseM < 5, says: 'it lies too near to a footing' },
      { is: over(rateMmPerHour, 12.99), worth: 14, says: say`it takes in ${told(rateMmPerHour, 'intensity')}` },
      { is: under(soilDepthM, 1.6), worth: -20, says: 'too little soil is left under it', ask: SOIL_DEPTH },
      { is: areaM2 <= 1000, worth: 12, says: 'it takes little room, and none to be seen' },
      { is: areaM2 > 3000, worth: -20, says: 'for so much ground it is dear: its room is bought with stone' },
      { is: isBare === true, worth: -15, says: 'bare ground sends it silt, which closes it for good' },
      { is: purpose === 'soak', worth: 8, says: 'all it holds goes into the ground' },
      { is: purpose === 'grow', worth: -8, says: 'nothing grows by it' },
    ],
    { draw: shapes.contour && { how: 'soak-trench', points: shapes.contour } },
  );
};
