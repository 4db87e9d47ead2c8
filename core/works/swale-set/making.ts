import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, DAY_H, type Draft, SEED_AT_ONCE, counted, inOrder, layingHours, line } from '../making.ts';
import { type SwaleSet, lengthOf } from './model.ts';
import { type Row, earthOf, fillOf } from './standing.ts';

export interface SetParts {
  /** Null where the ground is too steep for their sides. */
  readonly cutM3: number | null;
  readonly bankM3: number | null;
  readonly fillM3: number;
  readonly trees: number;
  readonly bushes: number;
  readonly nurses: number;
  readonly fenceM: number;
  readonly hours: number | null;
}

/** Plants along all of them, so far apart. */
const along = ({ lines }: SwaleSet, apartM: number): number =>
  apartM > 0 ? lines.reduce((a, l) => a + Math.floor(lineLength(l) / apartM + 1e-9) + 1, 0) : NONE;
const NONE = 0;
const SIDES: Readonly<Record<SwaleSet['fence'], number>> = { none: 0, 'one-side': 1, 'both-sides': 2 };
/** Seed on banks and edges for each metre [m2]: common practice. */
const SEEDED_M2 = 2.5;

export function partsOf(work: SwaleSet, rows: readonly Row[]): SetParts {
  const earths = rows.map((row) => earthOf(work, row));
  const known = earths.flatMap((e) => (e ? [e] : []));
  const isKnown = known.length === earths.length;
  const cutM3 = isKnown ? known.reduce((a, e) => a + e.cutM3, 0) : null;
  const trees = along(work, work.planting.treesApartM);
  const bushes = along(work, work.planting.bushesApartM);
  const fillM3 = rows.reduce((a, row) => a + fillOf(work, row), 0);
  return {
    cutM3,
    bankM3: isKnown ? known.reduce((a, e) => a + e.bankM3, 0) : null,
    fillM3,
    trees,
    bushes,
    nurses: Math.round(((trees + bushes) * work.planting.nursePercent) / 100),
    fenceM: SIDES[work.fence] * lengthOf(work),
    hours:
      cutM3 === null ? null : layingHours(cutM3 + fillM3, work.labour.m3PerDay) + ((trees + bushes) / work.labour.plantsPerDay) * DAY_H,
  };
}

export function quantitiesOf(work: SwaleSet, rows: readonly Row[]): QuantityLine[] {
  const { cutM3, bankM3, fillM3, trees, bushes, nurses, fenceM } = partsOf(work, rows);
  const length = lengthOf(work);
  return [
    line({ item: 'ditch', label: 'Swales, end to end', kind: 'length', from: 'as drawn' }, length, 'made'),
    line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'sections along every swale' }, cutM3, 'earth'),
    line({ item: 'bank', label: 'Banks, trodden in', kind: 'volume', from: 'sections along every swale' }, bankM3, 'earth'),
    line({ item: 'seed', label: 'To seed and mulch', kind: 'area', from: 'banks and edges' }, SEEDED_M2 * length, 'surface'),
    ...(fillM3 > 0 ? [line({ item: work.fill === 'logs' ? 'log' : 'chip', label: work.fill === 'logs' ? 'Logs and brush' : 'Woodchip', kind: 'volume' as const, from: 'ditches to its depth' }, fillM3, 'stone')] : []), // prettier-ignore
    ...(trees > 0 ? [counted({ item: 'tree', label: 'Trees', from: 'their spacing along every swale' }, trees)] : []),
    ...(bushes > 0 ? [counted({ item: 'bush', label: 'Bushes', from: 'their spacing along every swale' }, bushes)] : []),
    ...(nurses > 0 ? [counted({ item: 'nurse', label: 'Of them nurse trees and bushes', from: 'their share' }, nurses)] : []),
    ...(fenceM > 0 ? [line({ item: 'fence', label: 'Fence', kind: 'length' as const, from: 'along the swales' }, fenceM, 'made')] : []),
  ];
}

const FILLS: Readonly<Record<SwaleSet['fill'], readonly Draft[]>> = {
  none: [],
  woodchip: [{ id: 'fill', does: 'Fill the ditches with woodchip to their depth, a hand under the spill, and net or stake it down.' }],
  logs: [{ id: 'fill', does: 'Lay logs and brush along the ditches, pressed down, each staked so that it cannot float.' }],
};

export function stepsOf(work: SwaleSet, rows: readonly Row[]): BuildStep[] {
  const { depthM, bankM, spillLengthM } = work.dimensions;
  const { nurseYears, nursePercent, treesApartM, bushesApartM } = work.planting;
  const levels = rows.slice(0, 8).map(({ name, spillM }) => ({ name: `${name}: spill`, levelM: spillM }));
  const planted: readonly Draft[] =
    treesApartM > 0 || bushesApartM > 0
      ? [
          {
            id: 'plant',
            does:
              nursePercent > 0
                ? say`With the first rains plant below the banks, nurse trees first; cut those for mulch after ${amount(nurseYears, 'years')}.`
                : 'With the first rains plant below the banks, mulched, none on the spill.',
          },
        ]
      : [];
  const fenced: readonly Draft[] = work.fence === 'none' ? [] : [{ id: 'fence', does: 'Fence them before stock comes back.' }];
  return inOrder(
    {
      id: 'peg',
      does: 'Peg the lips along the contour by level, from the highest down, and the spills.',
      levels,
      cautions: [BEFORE_DIGGING],
    },
    {
      id: 'top',
      does: 'Begin with the highest: until it holds, those below get all that comes.',
      cautions: ['No half-dug swale is left before rain: open its spill first.'],
    },
    {
      id: 'dig',
      does: say`Take the turf off, dig ${amount(depthM, 'length')} under the lip, and tread what is dug into a bank ${amount(bankM, 'length')} over it in layers.`,
      hold: 'Water let into it stands along all of it.',
    },
    {
      id: 'spill',
      does: say`Leave ${amount(spillLengthM, 'length')} of ground that nobody dug where each spills, level to a finger, its turf whole.`,
      levels,
      hold: 'By level: both ends of the spill stand within 10 mm.',
    },
    ...FILLS[work.fill],
    { id: 'seed', does: 'Seed and mulch banks and edges.', cautions: [SEED_AT_ONCE] },
    ...planted,
    ...fenced,
    { id: 'after', does: 'Walk all of them in the first rain: where water stands, where it goes over, and mend the bank there.' },
  );
}
