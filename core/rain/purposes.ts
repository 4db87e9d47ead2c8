// How rare a storm to design for, by what is built and who is below it.

/** Advice on a return period. All of it is common practice; the rule of the place where the work stands comes first. */
export interface Purpose {
  readonly id: 'soaking' | 'drain' | 'wall' | 'building';
  readonly name: string;
  /** Return period advised, and the least that is usual [years]. */
  readonly years: number;
  readonly leastYears: number;
  readonly why: string;
  /** What else must be true, whatever is chosen. */
  readonly caution: string;
}

export const PURPOSES: readonly Purpose[] = [
  {
    id: 'soaking',
    name: 'A swale or rain garden that soaks',
    years: 20,
    leastYears: 10,
    why: 'It fills and runs over its sill harmlessly; the size is a matter of what is caught, the sill of what is safe.',
    caution: 'The sill and the way below it must still pass a much rarer storm: look at 1 in 100 as well.',
  },
  {
    id: 'drain',
    name: 'A yard, path or field drain',
    years: 10,
    leastYears: 2,
    why: 'Being overwhelmed now and then means a puddle for an hour, if water then has a way on above ground.',
    caution: 'Say where the water goes when the drain is full or blocked: never towards a door.',
  },
  {
    id: 'wall',
    name: 'A wall or bank that holds water above others',
    years: 100,
    leastYears: 50,
    why: 'Water over a bank cuts it open, and all it held comes down at once.',
    caution: 'Local rules decide, from a certain height or volume a licensed engineer too. More people below means a rarer storm.',
  },
  {
    id: 'building',
    name: 'An overflow that could reach a building',
    years: 100,
    leastYears: 50,
    why: 'A flooded floor costs more than any drain, and happens once too often at 1 in 20.',
    caution: 'Keep the floor clear of the highest water by a hand at least, and look at what happens beyond the storm chosen.',
  },
];

/** The rarest row of a table that the advice reaches, else its rarest. */
export const rowFor = (returnYears: readonly number[], years: number): number =>
  returnYears.find((y) => y >= years) ?? returnYears[returnYears.length - 1];
