// Where check dams suit.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { PEAK, STONE_NEAR, isOne, over, stoneThatStays, suited, told } from '../suiting.ts';

/** Stone no two people lay by hand [m]; and half of that. */
const [TOO_LARGE_M, LARGE_M] = [0.4, 0.25];

export const suitsDams = (place: Place): Suit | null => {
  if (place.form !== 'channel') return null;
  const { slope, stone, dropM, purpose, shapes } = place;
  const needsM = stoneThatStays(place);
  return suited(
    45,
    [
      {
        is: over(needsM, TOO_LARGE_M),
        says: say`at its peak only stone of ${told(needsM, 'difference')} would stay: loose dams would be gone in the first flood`,
        ask: PEAK,
      },
      { is: slope > 0.3, says: say`on a bed of ${amount(slope, 'slope')} they stand on each other’s heads` },
      { is: over(needsM, LARGE_M), worth: -20, says: say`at its peak they need stone of ${told(needsM, 'difference')}` },
      { is: isOne(stone, 'some', 'plenty'), worth: 25, says: 'loose stone lies near its narrow places', ask: STONE_NEAR },
      { is: stone === 'none', worth: -15, says: 'without stone they are built of brush or bags, and last a few years' },
      { is: slope <= 0.15, worth: 10, says: say`a bed of ${amount(slope, 'slope')} gives each some room behind it` },
      { is: dropM > 0.8, worth: -20, says: say`a drop of ${amount(dropM, 'length')} above them sends silt until it rests` },
      { is: purpose === 'slow' || purpose === 'any', worth: 5, says: 'they slow water and lift the bed with its own silt' },
      { is: purpose === 'hold', worth: -15, says: 'they leak, and fill with silt' },
    ],
    { draw: { how: 'check-dams', points: shapes.own } },
  );
};
