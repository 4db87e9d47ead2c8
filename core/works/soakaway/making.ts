import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, type Draft, SEED_AT_ONCE, STONE_T_M3, inOrder, layingHours, line, standingIn } from '../making.ts';
import type { Soakaway } from './model.ts';
import { type Hole, roomOf } from './standing.ts';

/** A ring is half a metre high; cloth laps over by so much: common practice. */
const [RING_M, LAPS] = [0.5, 1.2];

export interface SoakawayParts {
  readonly dugM3: number;
  readonly stoneM3: number;
  readonly clothM2: number;
  readonly rings: number;
  readonly hours: number;
}

/** Mean ground over its rim: what is dug above its lowest side [m]. */
const overRim = (work: Soakaway, { ground, rimM }: Hole): number => (work.form === 'trench' ? Math.max(0, ground.meanGroundM - rimM) : 0);

export function partsOf(work: Soakaway, hole: Hole): SoakawayParts {
  const { depthM, widthM } = work.dimensions;
  const dugM3 = hole.areaM2 * (depthM + overRim(work, hole));
  const inRings = work.fill === 'rings' ? (Math.PI * widthM * widthM * depthM) / 4 : 0;
  const stoneM3 = work.fill === 'open' ? 0 : hole.areaM2 * depthM - inRings;
  return {
    dugM3,
    stoneM3,
    clothM2: work.wrap === 'cloth' && work.fill !== 'open' ? LAPS * (hole.roundM * depthM + hole.areaM2) : 0,
    rings: work.fill === 'rings' ? Math.ceil(depthM / RING_M - 1e-9) : 0,
    hours: layingHours(dugM3 + stoneM3, work.labour.m3PerDay),
  };
}

export function quantitiesOf(work: Soakaway, hole: Hole): QuantityLine[] {
  const { dugM3, stoneM3, clothM2, rings } = partsOf(work, hole);
  return [
    line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'its area by its depth under the ground' }, dugM3, 'earth'),
    ...(stoneM3 > 0
      ? [
          line({ item: 'stone', label: 'Clean stone', kind: 'volume', from: 'its room without rings' }, stoneM3, 'stone'),
          line({ item: 'stone-weight', label: 'It weighs', kind: 'mass', from: 'stone with its gaps' }, stoneM3 * STONE_T_M3, 'stone'),
        ]
      : []),
    ...(clothM2 > 0
      ? [line({ item: 'cloth', label: 'Filter cloth', kind: 'area', from: 'sides and top, lapped' }, clothM2, 'surface')]
      : []),
    ...(rings > 0
      ? [
          {
            item: 'ring',
            label: 'Rings, half a metre high',
            kind: 'count' as const,
            from: 'its depth',
            low: rings,
            likely: rings,
            high: rings,
          },
        ]
      : []),
    line({ item: 'water', label: 'It holds', kind: 'volume', from: 'gaps to its rim' }, roomOf(work, hole), 'made'),
  ];
}

const TRAP: Readonly<Record<Soakaway['trap'], string>> = {
  none: 'Build what keeps silt out first: a strip of dense grass or a sump.',
  strip: 'Sow the strip of grass before it, and lead no water in until it stands.',
  sump: 'Set the sump before it, its outlet a hand over its floor, and a bucket beside it.',
};

export function stepsOf(work: Soakaway, hole: Hole): BuildStep[] {
  const { depthM, bermM, wayWidthM } = work.dimensions;
  const fill: Readonly<Record<Soakaway['fill'], readonly Draft[]>> = {
    open: [],
    stone: [
      {
        id: 'stone',
        does:
          work.wrap === 'cloth'
            ? 'Hang the cloth on its sides, fill with washed stone to a hand under the ground, and fold the cloth over it.'
            : 'Fill with washed stone to a hand under the ground.',
        hold: 'A handful rubbed in a jar of water leaves it clear.',
      },
    ],
    rings: [{ id: 'rings', does: 'Lower ring on ring with their holes open, and fill clean stone round them as they rise.', cautions: ['Nobody stands under a ring that hangs.'] }], // prettier-ignore
  };
  return inOrder(
    { id: 'trap', does: TRAP[work.trap] },
    {
      id: 'peg',
      does: 'Peg its corners and the level of its rim at its lowest side.',
      levels: [{ name: 'rim', levelM: hole.rimM }],
      cautions: [BEFORE_DIGGING],
    },
    {
      id: 'dig',
      does: say`Dig ${amount(depthM, 'length')} deep from its lowest side, the floor level; pile what is dug a metre and more away.`,
      levels: [{ name: 'floor', levelM: hole.floorM }],
      cautions: standingIn(depthM),
      hold: 'Rake the floor open where the bucket smeared it; fill it once and time how it falls.',
    },
    ...fill[work.fill],
    ...(work.cover === 'none' ? [] : [{ id: 'cover', does: work.cover === 'grate' ? 'Lay the grate or lid, bolted down.' : 'Cover it to the ground.' }]), // prettier-ignore
    {
      id: 'way',
      does: say`Shape its bank ${amount(bermM, 'difference')} high, and ${amount(wayWidthM, 'length')} of turf level with its rim where it lets go.`,
      cautions: [SEED_AT_ONCE],
    },
    {
      id: 'after',
      does: 'Look into it a day after the first storm: it is half empty. Empty the trap twice a year, and note how long it takes each spring.',
    },
  );
}
