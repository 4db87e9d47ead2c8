import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, SEED_AT_ONCE, inOrder, layingHours, line, standingIn } from '../making.ts';
import { COMPACTS, EARTH_BALANCE, SWELLS } from './formulas.ts';
import { type Regrade, isDish } from './model.ts';
import type { RegradeGround } from './standing.ts';

/** Area on which topsoil is stripped and put back [m2]. */
const changedM2 = ({ moved }: RegradeGround): number => moved.cutM2 + moved.fillM2;
const topsoilM3 = (work: Regrade, ground: RegradeGround): number => work.dimensions.topsoilM * changedM2(ground);

/** Hours of one person: what is cut, what is filled that was not cut here, and topsoil off and on again. */
export function hoursOf(work: Regrade, ground: RegradeGround): number {
  const { cutM3, fillM3 } = ground.moved;
  const brought = Math.max(0, COMPACTS * fillM3 - cutM3);
  return layingHours(cutM3 + brought + 2 * topsoilM3(work, ground), work.labour.m3PerDay);
}

export function quantitiesOf(work: Regrade, ground: RegradeGround): QuantityLine[] {
  const { cutM3, fillM3 } = ground.moved;
  const left = EARTH_BALANCE.evaluate({ C: cutM3, F: fillM3, k: COMPACTS });
  const top = topsoilM3(work, ground);
  return [
    line({ item: 'cut', label: 'To take off', kind: 'volume', from: 'the ground as surveyed less as finished' }, cutM3, 'earth'),
    line({ item: 'fill', label: 'To fill, trodden in', kind: 'volume', from: 'the ground as finished less as surveyed' }, fillM3, 'earth'),
    ...(left > 0
      ? [line({ item: 'spoil', label: 'Left over, loose', kind: 'volume', from: 'what is cut and not filled, a quarter more as it lies loose' }, SWELLS * left, 'earth')]
      : [line({ item: 'borrow', label: 'To bring in, loose', kind: 'volume', from: 'what is filled and not cut here' }, -SWELLS * left, 'earth')]),
    ...(top > 0 ? [line({ item: 'topsoil', label: 'Topsoil off and on again', kind: 'volume', from: 'all that changes, so deep' }, top, 'earth')] : []),
    ...(work.after === 'lawn' ? [line({ item: 'seed', label: 'To seed or turf', kind: 'area', from: 'all that changes' }, changedM2(ground), 'surface')] : []),
    line({ item: 'labour', label: 'Hours of one person', kind: 'hours', from: 'what one person moves in a day' }, hoursOf(work, ground), 'surface'),
  ]; // prettier-ignore
}

export function stepsOf(work: Regrade, ground: RegradeGround): BuildStep[] {
  const { deepestCutM, highestFillM } = ground.moved;
  const levels = isDish(work)
    ? [{ name: 'bed, upper end', levelM: work.levels.startM }, { name: 'bed, lower end', levelM: work.levels.endM }]
    : [{ name: 'first corner', levelM: work.levels.levelM }];
  return inOrder(
    { id: 'ask', does: 'Have cables and pipes marked, and their covers and cleanouts found: they come up, or stay at the top, with the ground.', cautions: [BEFORE_DIGGING] },
    { id: 'peg', does: 'Peg its corners and a grid within, each with how much is to be taken off or filled.', levels, hold: 'Where water is to leave, the ground outside is lower than the last peg.' },
    { id: 'strip', does: say`Strip ${amount(work.dimensions.topsoilM, 'difference')} of topsoil and keep it apart, in the dry.` },
    { id: 'move', does: say`Cut and fill: at most ${amount(deepestCutM, 'length')} off and ${amount(highestFillM, 'length')} on, fill in layers of a hand, each trodden or rammed.`, cautions: [...standingIn(deepestCutM), 'Never with wet clay: it sets like brick and sheds every rain.'] },
    { id: 'grade', does: 'Draw it off with a straight-edge and level to its fall.', hold: 'Hose it before it is covered: water leaves everywhere within a few minutes.', levels },
    { id: 'cover', does: 'Topsoil back on, raked in, seeded, turfed or covered.', cautions: [SEED_AT_ONCE] },
    { id: 'after', does: 'Look at it in the first great rain, and again after a year: fill settles by a twentieth.' },
  );
} // prettier-ignore
