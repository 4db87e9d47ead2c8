// Where terraces suit.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { SOIL_DEPTH, isOne, over, suited, told, under } from '../suiting.ts';

export const suitsTerraces = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, soilDepthM, stone, areaM2, purpose, shapes } = place;
  return suited(
    25,
    [
      { is: slope > 0.5, says: say`on ${amount(slope, 'slope')} walls are higher than benches are wide` },
      { is: under(soilDepthM, 0.4), says: say`${told(soilDepthM, 'length')} of soil: a bench would be cut into the rock`, ask: SOIL_DEPTH },
      { is: slope < 0.1, worth: -30, says: say`on ${amount(slope, 'slope')} lines or swales do as much for a tenth of the work` },
      { is: slope >= 0.15, worth: 40, says: say`${amount(slope, 'slope')} is too steep for anything that only lies on it` },
      { is: isOne(stone, 'plenty', 'some'), worth: 8, says: 'stone for the walls lies near' },
      { is: over(areaM2, 5000), worth: -10, says: 'over so much ground they are years of work' },
      { is: purpose === 'grow', worth: 8, says: 'they win level ground to grow on' },
    ],
    { school: 'terraces on steeper ground', draw: { how: 'terraces', points: shapes.own } },
  );
};
