import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, type Draft, counted, inOrder, layingHours, line } from '../making.ts';
import type { RainGarden } from './model.ts';
import type { Basin } from './standing.ts';

/** Plants for each square metre; rock a metre long and twice its stone thick; card laps over by so much: common practice. */
const [PLANTS_M2, ROCK_LONG_M, THICK, LAPS] = [4, 1, 2, 1.15];

export interface GardenParts {
  readonly areaM2: number;
  readonly dugM3: number;
  readonly mediaM3: number;
  readonly mulchM3: number;
  readonly rockM3: number;
  /** Plants of the floor, the sides and the bank. */
  readonly plants: readonly [floor: number, sides: number, bank: number];
  readonly hours: number;
}

/** What all basins take. */
export function partsOf(work: RainGarden, basins: readonly Basin[]): GardenParts {
  const { pondM, sideHV, mediaM, mulchM, bermM, rockWidthM, stoneM } = work.dimensions;
  let [areaM2, dugM3, mediaM3, floorM2, bankM2] = [0, 0, 0, 0, 0];
  for (const b of basins) {
    const under = Math.PI * (b.radiusM - sideHV * pondM) ** 2;
    const cone = (pondM * (b.areaM2 + under + Math.sqrt(b.areaM2 * under))) / 3;
    // From the ground as it lies down to its floor, mulch and all.
    dugM3 += Math.max(0, cone + b.areaM2 * (b.groundM - b.overflowM)) + under * mulchM;
    mediaM3 += under * mediaM;
    areaM2 += b.areaM2;
    floorM2 += under;
    bankM2 += Math.PI * ((b.radiusM + 2 * sideHV * bermM) ** 2 - b.radiusM ** 2);
  }
  const plants = [floorM2, areaM2 - floorM2, bankM2].map((m2) => Math.ceil(PLANTS_M2 * m2)) as [number, number, number];
  return {
    areaM2,
    dugM3,
    mediaM3,
    mulchM3: (areaM2 + bankM2) * mulchM,
    rockM3: basins.length * rockWidthM * ROCK_LONG_M * THICK * stoneM,
    plants,
    hours: layingHours(dugM3 + mediaM3, work.labour.m3PerDay),
  };
}

export function quantitiesOf(work: RainGarden, basins: readonly Basin[]): QuantityLine[] {
  const { areaM2, dugM3, mediaM3, mulchM3, rockM3, plants } = partsOf(work, basins);
  const sorts = ['Plants that stand wet', 'Plants that stand both', 'Plants that stand dry'];
  return [
    line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'cones cut off, from the ground to the floor' }, dugM3, 'earth'),
    line({ item: 'media', label: 'Soil to loosen or mix', kind: 'volume', from: 'floors by their depth' }, mediaM3, 'earth'),
    line({ item: 'mulch', label: 'Mulch', kind: 'volume', from: 'basins and banks' }, mulchM3, 'surface'),
    line({ item: 'stone', label: 'Rock at the overflows', kind: 'volume', from: 'a metre long, twice its stone thick' }, rockM3, 'stone'),
    ...(work.turf === 'smothered'
      ? [line({ item: 'card', label: 'Card over turf', kind: 'area', from: 'basins, lapped' }, LAPS * areaM2, 'surface')]
      : []),
    ...(work.plants === 'zoned'
      ? plants.map((count, k) =>
          counted(
            { item: ['plant-wet', 'plant-both', 'plant-dry'][k], label: sorts[k], from: 'four for each square metre of its zone' },
            count,
          ),
        )
      : []),
  ];
}

export function stepsOf(work: RainGarden, basins: readonly Basin[]): BuildStep[] {
  const { pondM, mediaM, bermM, rockWidthM } = work.dimensions;
  const levels = basins.map(({ name, overflowM }) => ({ name: `${name}: overflow`, levelM: overflowM }));
  const smother: readonly Draft[] =
    work.turf === 'smothered'
      ? [
          {
            id: 'smother',
            does: 'Mow low, cover with overlapping card and mulch, and wait until the turf is dead.',
            hold: 'Lift a corner: nothing green is left.',
          },
        ]
      : [];
  return inOrder(
    ...smother,
    {
      id: 'peg',
      does: 'Peg each basin and its overflow by water tube, each a little lower than the last.',
      levels,
      cautions: [BEFORE_DIGGING],
      hold: 'The tube says the next is lower, every time.',
    },
    { id: 'dig', does: say`Dig each to its floor, ${amount(pondM, 'difference')} under its overflow, its sides flat enough to climb.` },
    {
      id: 'loosen',
      does: say`Loosen ${amount(mediaM, 'length')} under the floor with a fork, compost worked in; nobody walks on it after.`,
      hold: 'Fill it with the hose: it is gone by tomorrow.',
    },
    { id: 'bank', does: say`Tread what is dug into a bank ${amount(bermM, 'difference')} over the overflow, level all round.` },
    {
      id: 'rock',
      does: say`Lay rock ${amount(rockWidthM, 'length')} wide at each overflow, down to the floor of the next.`,
      levels,
      hold: 'Pour a can over each: it goes over the rock alone.',
    },
    { id: 'plant', does: 'Plant the wet ones on the floor, those for both on the sides, the dry ones on the bank; mulch between.' },
    { id: 'after', does: 'Watch it in the first storm from the top to the last overflow, and the ground after it. Weed for two summers.' },
  );
}
