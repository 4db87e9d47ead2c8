// Rain gardens: one planted basin or a chain of them, each a little lower than the last, that take in what runs off and let it soak.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, distance } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, checkLine } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export interface GardenBasin {
  /** Of its water when it is full [m2]. */
  readonly areaM2: number;
  /** Level at which its rock lets it go. */
  readonly overflowM: number;
}

export interface RainGarden extends WorkBase {
  readonly kind: 'rain-garden';
  /** Middles of its basins, highest first, and at its end the place where the last lets go. */
  readonly line: Line;
  readonly basins: readonly GardenBasin[];
  readonly turf: 'smothered' | 'left';
  readonly plants: 'zoned' | 'one' | 'none';
  readonly lastOver: 'ground' | 'drive';
  readonly dimensions: {
    readonly pondM: number;
    /** Bank round it over its overflow, and its sides, out per 1 up. */
    readonly bermM: number;
    readonly sideHV: number;
    /** Loosened or mixed soil under its floor, and the share of it that water fills. */
    readonly mediaM: number;
    readonly voids: number;
    readonly mulchM: number;
    /** Rock over which each lets go: how wide, and its stone. */
    readonly rockWidthM: number;
    readonly stoneM: number;
  };
  /** Rate of its floor as it was tested, its safety taken off. */
  readonly rateMmPerHour?: number;
  readonly labour: Logged & { readonly m3PerDay: number };
}

const d = (
  key: keyof RainGarden['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });

export const GARDEN_FIELDS: readonly FieldSpec[] = [
  d('pondM', 'Water stands', { min: 0.03, max: 0.6, help: '0.1 to 0.2 m: what soaks away in a day.' }),
  d('bermM', 'Bank over its overflow', { min: 0, max: 0.6, help: '0.1 m or more all round, so that it lets go over its rock alone.' }),
  d('sideHV', 'Sides, out per 1 up', { min: 0.5, max: 8, kind: 'number', help: '3 can be mown and climbed out of.' }),
  d('mediaM', 'Loose soil under it', { min: 0, max: 1.5, help: '0.3 to 0.6 m, loosened or mixed with sand and compost.' }),
  d('voids', 'Share of that water fills', { min: 0.05, max: 0.5, kind: 'number', help: '0.2 to 0.35.' }),
  d('mulchM', 'Mulch', { min: 0, max: 0.3, help: '0.05 to 0.08 m of wood: fine bark floats away.' }),
  d('rockWidthM', 'Rock at each overflow, wide', { min: 0.1, max: 20, help: 'Wide enough that water goes over thin.' }),
  d('stoneM', 'Its stone', { min: 0.03, max: 0.6, kind: 'difference', help: 'What water over it must not move.' }),
  {
    path: 'rateMmPerHour',
    label: 'Its floor takes in, tested',
    kind: 'intensity',
    min: 0.1,
    max: 2000,
    help: 'From a hole dug to its floor, half of what was found.',
    optional: { offer: 'You have tested its floor', start: 20 },
  },
  { path: 'labour.m3PerDay', label: 'One person digs in a day', kind: 'volume', min: 0.1, max: 20, help: 'About 2 m³ and spread.' },
  LOGGED_HOURS,
];

export const GARDEN_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'turf',
    label: 'Turf where it lies',
    options: [
      { id: 'smothered', name: 'smothered under card and mulch' },
      { id: 'left', name: 'left as it is' },
    ],
  },
  {
    path: 'plants',
    label: 'Plants',
    options: [
      { id: 'zoned', name: 'by how wet each part is' },
      { id: 'one', name: 'of one sort' },
      { id: 'none', name: 'none yet' },
    ],
  },
  {
    path: 'lastOver',
    label: 'The last lets go over',
    options: [
      { id: 'ground', name: 'planted ground' },
      { id: 'drive', name: 'a drive or path' },
    ],
  },
];

export const radiusOf = ({ areaM2 }: GardenBasin): number => Math.sqrt(areaM2 / Math.PI);

const MOST_BASINS = 60;
const AREA = { path: 'areaM2', label: 'Water of a basin', kind: 'area', min: 0.5, max: 2000, help: '' } as const;
const OVERFLOW = { path: 'overflowM', label: 'Overflow of a basin', kind: 'level', min: -500, max: 9000, help: '' } as const;

function basinProblems(work: RainGarden): Problem[] {
  const wrong = (field: string, says: Pick<Problem, 'what' | 'do'>): Problem[] => [{ code: 'rain-garden.basins', field, ...says }];
  const { basins, line, name, dimensions } = work;
  if (!Array.isArray(basins) || basins.length !== line.length - 1 || basins.length > MOST_BASINS) {
    const is = Array.isArray(basins) ? `${basins.length} basins on a line of ${line.length} places` : told(basins);
    return wrong('basins', {
      what: `"${name}" has ${is}`,
      do: `Give one for each place of its line but the last, ${MOST_BASINS} at most.`,
    });
  }
  const own = checkEntries(work, { path: 'basins', fields: [AREA, OVERFLOW], each: 'basin' });
  if (own.length > 0) return own;
  return (basins as readonly GardenBasin[]).flatMap((basin, k) => {
    const r = radiusOf(basin);
    if (dimensions.sideHV * dimensions.pondM >= r)
      return wrong(`basins.${k}.areaM2`, {
        what: say`basin ${amount(k + 1, 'count')} of "${name}" is ${amount(2 * r, 'length')} wide: its sides meet before ${amount(dimensions.pondM, 'length')}`,
        do: 'Make it larger, shallower or steeper.',
      });
    const next = basins[k + 1] as GardenBasin | undefined;
    const apart = distance(line[k], line[k + 1]);
    if (next && apart < r + radiusOf(next))
      return wrong(`basins.${k + 1}.areaM2`, {
        what: say`basins ${amount(k + 1, 'count')} and ${amount(k + 2, 'count')} of "${name}" meet: their middles are ${amount(apart, 'length')} apart`,
        do: 'Draw them further apart, or make them smaller.',
      });
    return [];
  });
}

/** Everything wrong with one garden on its own. */
export function validateGarden(work: RainGarden): Problem[] {
  const shape = [...checkFields(work, GARDEN_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, GARDEN_CHOICES)];
  return shape.length > 0 ? shape : basinProblems(work);
}
