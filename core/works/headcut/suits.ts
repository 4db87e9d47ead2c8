// Where the head of a gully is to be treated.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { over, suited, told } from '../suiting.ts';

/** A drop less than this is no head [m]. */
const LEAST_M = 0.6;

export const suitsHead = (place: Place): Suit | null => {
  if (place.form !== 'channel') return null;
  const { dropM, peakM3s, stone, shapes } = place;
  return suited(
    72,
    [
      { is: dropM < LEAST_M, says: 'its bed has no drop that eats back' },
      {
        is: dropM >= LEAST_M,
        worth: 12,
        says: say`a drop of ${amount(dropM, 'length')} eats back uphill: until it rests, all below is filled and all above is lost`,
      },
      { is: stone === 'plenty', worth: 4, says: 'stone for a chute lies near' },
      { is: over(peakM3s, 3), worth: -20, says: say`${told(peakM3s, 'flow')} over it at the peak is more than a chute laid by hand bears` },
    ],
    { draw: shapes.lip && { how: 'headcut', points: shapes.lip } },
  );
};
