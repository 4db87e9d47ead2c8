// Where a weir suits.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { PEAK, isOne, over, stoneThatStays, suited, told } from '../suiting.ts';

/** More than this at its peak is for those who design weirs [m3/s]; where loose stone fails, baskets may not [m]. */
const [LICENSED_M3S, LOOSE_FAILS_M] = [3, 0.25];

export const suitsWeir = (place: Place): Suit | null => {
  if (place.form !== 'channel') return null;
  const { peakM3s, widthM, slope, machine, purpose, shapes } = place;
  const needsM = stoneThatStays(place);
  return suited(
    25,
    [
      {
        is: over(peakM3s, LICENSED_M3S),
        says: say`${told(peakM3s, 'flow')} at its peak: a weir there is for somebody licensed to design it`,
        ask: PEAK,
      },
      { is: over(widthM, 12), says: say`a bed ${told(widthM, 'length')} wide has no place for one` },
      {
        is: isOne(place.bed, 'rock'),
        worth: 20,
        says: 'rock in bed and banks holds its foot and its keys',
        ask: 'Look what bed and banks are of.',
      },
      { is: over(needsM, LOOSE_FAILS_M), worth: 15, says: 'loose stone would not stay there' },
      { is: slope > 0.1, worth: -10, says: say`on a bed of ${amount(slope, 'slope')} it has little room behind it` },
      { is: machine === 'no', worth: -10, says: 'baskets are filled and wired by hand: weeks of work' },
      { is: purpose === 'hold', worth: 10, says: 'it holds more than loose dams' },
    ],
    { draw: shapes.across && { how: 'weir', points: shapes.across } },
  );
};
