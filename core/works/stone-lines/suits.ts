// Where lines of stone suit.
import type { Place, Suit } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { STONE_NEAR, SOIL_DEPTH, isOne, over, suited, told, under } from '../suiting.ts';

export const suitsLines = (place: Place): Suit | null => {
  if (place.form !== 'field') return null;
  const { slope, soilDepthM, rateMmPerHour, stone, purpose, isBare, shapes } = place;
  return suited(
    35,
    [
      { is: slope > 0.12, says: say`on ${amount(slope, 'slope')} water jumps lines and digs below them` },
      { is: isOne(stone, 'none'), says: 'no loose stone lies near, and none is prised out of a slope', ask: STONE_NEAR },
      { is: stone === 'plenty', worth: 30, says: 'stone lies all over: carried into lines it is out of the way' },
      { is: stone === 'some', worth: 12, says: 'some stone lies near' },
      {
        is: under(soilDepthM, 0.5),
        worth: 25,
        says: say`only ${told(soilDepthM, 'length')} of soil: nothing need be dug`,
        ask: SOIL_DEPTH,
      },
      { is: slope <= 0.06, worth: 8, says: say`${amount(slope, 'slope')} is what they are made for` },
      { is: slope > 0.08, worth: -15, says: say`on ${amount(slope, 'slope')} they lie close and take much stone` },
      {
        is: soilDepthM === null || rateMmPerHour === null ? null : soilDepthM > 1 && rateMmPerHour >= 10,
        worth: -12,
        says: 'deep soil that takes in water would hold more behind banks of its own earth',
      },
      { is: isBare === true, worth: 4, says: 'silt and seed gather behind them where nothing grows' },
      { is: purpose === 'slow' || purpose === 'grow', worth: 8, says: 'they slow water and keep the silt' },
      { is: purpose === 'hold', worth: -25, says: 'they hold no water' },
      {
        is: over(place.aboveM2 / Math.max(1, place.areaM2), 20),
        worth: -20,
        says: 'much more ground drains onto it than it has: it would be run over',
      },
    ],
    { school: 'porous lines of stone with dense grass', draw: { how: 'stone-lines', points: shapes.own } },
  );
};
