// What a vessel takes, and how it is stood.
import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, counted, inOrder, line, standingIn } from '../making.ts';
import { crateLines, crateParts, crateSteps } from './crates.ts';
import { type Tank, rimHeight } from './model.ts';
import { mortarLines, mortarParts, mortarSteps } from './mortar.ts';
import { type TankGround, floorOf, footM2, holdsM3 } from './standing.ts';

/** A bed is so much wider than its foot all round, so deep, and a pit has so much room to work in [m]: common practice. */
const [WIDER_M, BED_M, ROOM_M] = [0.15, 0.1, 0.5];
/** Hours to level a bed, for each square metre, and to stand and join one vessel: common practice. */
const [HOURS_A_M2, HOURS_EACH] = [1.2, 2.5];

const bedM2 = (tank: Tank): number => tank.count * (Math.sqrt(footM2(tank)) + 2 * WIDER_M) ** 2;
const pitM3 = (tank: Tank): number =>
  tank.stands === 'buried' ? tank.count * (Math.sqrt(footM2(tank)) + 2 * ROOM_M) ** 2 * (Math.max(0, -tank.dimensions.standM) + BED_M) : 0;
/** Earth one person digs in an hour [m3]. */
const DIGS_M3_H = 0.4;

/** Hours of two who mix and plaster a cubic metre of mortar or concrete, and of those who wrap and fill a cubic metre of crates: common practice. */
const [HOURS_MORTAR_M3, HOURS_CRATES_M3] = [22, 0.7];

export function hoursOf(tank: Tank): number {
  const stood = HOURS_A_M2 * bedM2(tank) + HOURS_EACH * tank.count;
  if (tank.made === 'mortar') {
    const { wallM3, slabM3, topM3 } = mortarParts(tank);
    return stood + HOURS_MORTAR_M3 * (wallM3 + slabM3 + topM3) + pitM3(tank) / DIGS_M3_H;
  }
  if (tank.made === 'crates') {
    const { dugM3, cratesM3, coverM3 } = crateParts(tank);
    return stood + HOURS_CRATES_M3 * cratesM3 + (dugM3 + coverM3) / DIGS_M3_H;
  }
  return stood + pitM3(tank) / DIGS_M3_H;
}

const madeLines = (tank: Tank): QuantityLine[] =>
  tank.made === 'mortar' ? mortarLines(tank) : tank.made === 'crates' ? crateLines(tank) : [];

export function quantitiesOf(tank: Tank): QuantityLine[] {
  const { overflowM } = tank.dimensions;
  const dug = tank.made === 'crates' ? 0 : pitM3(tank);
  return [
    counted({ item: 'vessel', label: 'Vessels', from: 'as said' }, tank.count),
    line({ item: 'water', label: 'Hold', kind: 'liquid', from: 'shape up to the overflow' }, holdsM3(tank, overflowM), 'made'),
    ...(dug > 0 ? [line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'its foot with room to work, by its depth' }, dug, 'earth')] : []),
    line({ item: 'gravel', label: 'Gravel bed', kind: 'volume', from: 'foot and 0.15 m round it, 0.1 m deep' }, bedM2(tank) * BED_M, 'stone'),
    ...madeLines(tank),
    counted({ item: 'tap', label: 'Taps or draw-off fittings', from: 'one for all' }, 1),
    counted({ item: 'joint', label: 'Pipes that join them at their feet', from: 'one between two' }, tank.count - 1),
    counted({ item: 'screen', label: 'Screens of 1 mm mesh', from: 'inlet, overflow and vent' }, tank.count + 2),
  ]; // prettier-ignore
}

export function stepsOf(tank: Tank, ground: TankGround): BuildStep[] {
  if (tank.made === 'mortar') return mortarSteps(tank, ground);
  if (tank.made === 'crates') return crateSteps(tank, ground);
  const floorM = floorOf(tank, ground);
  const { overflowM, tapM, standM } = tank.dimensions;
  const isBuried = tank.stands === 'buried';
  return inOrder(
    {
      id: 'way',
      does: 'Lay the way of its overflow first: to a basin, a swale or a drain.',
      cautions: isBuried ? [BEFORE_DIGGING] : [],
    },
    {
      id: 'bed',
      does: isBuried ? say`Dig to ${amount(-standM, 'length')} and lay the bed, level in both directions.` : 'Take the turf off and lay the bed of packed gravel, level in both directions.',
      levels: [{ name: 'floor', levelM: floorM }],
      hold: 'A level on a straight board shows less than 3 mm in a metre, both ways.',
      cautions: standingIn(isBuried ? -standM : 0),
    },
    {
      id: 'stand',
      does: tank.count > 1 ? 'Stand them level with one another, and join them at their feet before any is filled.' : 'Stand it on its bed.',
      cautions: ['A vessel half full is heavier than it looks: nobody reaches under one that is being moved.'],
    },
    {
      id: 'fit',
      does: say`Fit the tap ${amount(tapM, 'difference')} over its floor and the overflow ${amount(overflowM, 'length')} over it.`,
      levels: [{ name: 'overflow', levelM: floorM + overflowM }, { name: 'rim', levelM: floorM + rimHeight(tank) }],
    },
    { id: 'screen', does: 'Screen inlet, overflow and vent; close the lid so that it sheds water and a child cannot lift it.' },
    {
      id: 'fill',
      does: 'Fill it by a hand’s depth, wait a day, then to the overflow.',
      hold: 'It stands as level as before, nothing drips, and the overflow runs where it should.',
    },
    { id: 'after', does: 'Look at its screens each month; draw the silt off each year, from outside.', cautions: ['Nobody climbs into a tank alone: its air may kill.'] },
  ); // prettier-ignore
}
