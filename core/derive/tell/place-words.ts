import type { Place } from '../../terrain/index.ts';
import { type Said, amount, say } from '../../units/index.ts';

export const PLACE_TITLES: Readonly<Record<Place['kind'], string>> = {
  'key-point': 'Key point',
  choke: 'Choke point',
  'gully-head': 'Gully head',
  'standing-water': 'Standing water',
};

const WORDS: Readonly<Record<Place['kind'], (place: Place) => Said>> = {
  'key-point': ({ facts, areaM2 }) =>
    say`The valley turns from ${amount(facts.slopeAbove, 'slope')} to ${amount(facts.slopeBelow, 'slope')} here, with ${amount(areaM2, 'land')} above: water slows, silt settles, and a line from here along the hill can still be led out to the ridges.`,
  choke: ({ facts }) =>
    say`A wall ${amount(facts.wallM, 'distance')} long across here would hold ${amount(facts.heldM3, 'volume')} for ${amount(facts.earthM3, 'volume')} of earth, ${(facts.heldM3 / facts.earthM3).toFixed(1)} to 1.`,
  'gully-head': ({ facts, areaM2 }) =>
    say`The bed drops ${amount(facts.dropM, 'length')} at once, with ${amount(areaM2, 'land')} above: it eats uphill. Slow the water on the ground above it first.`,
  'standing-water': ({ facts }) =>
    say`Water stands here up to ${amount(facts.depthM, 'length')} deep, ${amount(facts.volumeM3, 'volume')} over ${amount(facts.surfaceM2, 'area')}, until it spills at ${amount(facts.spillM, 'level')}.`,
};

/** What makes a place worth its mark, with its figures. */
export const placeWords = (place: Place): Said => WORDS[place.kind](place);
