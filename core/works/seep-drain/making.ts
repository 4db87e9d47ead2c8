import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, DAY_H, counted, inOrder, line, standingIn } from '../making.ts';
import type { SeepGround } from './ground.ts';
import type { SeepDrain } from './model.ts';
import { depthsOf, fallOf, gravelM2 } from './standing.ts';

/** Coils fall short of their labels, and cloth is lapped: common practice. */
const [SHORT, LAPS] = [1.05, 1.2];

export const hoursOf = (work: SeepDrain, { lengthM }: SeepGround): number => (lengthM / work.labour.mPerDay) * DAY_H;
const trenchM3 = (work: SeepDrain, ground: SeepGround): number =>
  ground.lengthM * work.dimensions.widthM * Math.max(0, depthsOf(work, ground).mean + work.dimensions.underM);

/** Cloth by what it is wrapped round [m2]. */
function clothM2({ wrap, dimensions }: SeepDrain, { lengthM }: SeepGround): number {
  const { widthM, pipeM, overM, underM } = dimensions;
  if (wrap === 'gravel') return LAPS * lengthM * 2 * (widthM + underM + pipeM + overM);
  return wrap === 'pipe' ? lengthM * Math.PI * pipeM : 0;
}

export function quantitiesOf(work: SeepDrain, ground: SeepGround): QuantityLine[] {
  const { lengthM } = ground;
  const isBundle = work.wrap === 'bundle';
  const gravel = isBundle ? 0 : lengthM * gravelM2(work);
  const cloth = clothM2(work, ground);
  const pipeM3 = (Math.PI / 4) * work.dimensions.pipeM ** 2 * lengthM;
  const filled = isBundle ? lengthM * (gravelM2(work) + (Math.PI / 4) * work.dimensions.pipeM ** 2) : gravel + pipeM3;
  const dug = trenchM3(work, ground);
  return [
    line({ item: isBundle ? 'bundle' : 'drain-pipe', label: isBundle ? 'Ready bundle' : 'Holed pipe, a twentieth more', kind: 'length', from: 'its line; coils are measured before they are cut' }, SHORT * lengthM, 'made'),
    ...(gravel > 0 ? [line({ item: 'gravel', label: 'Washed gravel, 10 to 20 mm', kind: 'volume', from: 'its section less the pipe' }, gravel, 'stone')] : []),
    ...(cloth > 0 ? [line({ item: 'cloth', label: work.wrap === 'pipe' ? 'Sock' : 'Filter cloth', kind: 'area', from: 'round what it wraps, lapped' }, cloth, 'surface')] : []),
    line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'its width by its depth on the ground' }, dug, 'earth'),
    line({ item: 'spoil', label: 'Earth left over', kind: 'volume', from: 'what gravel and pipe take the place of' }, Math.min(dug, filled), 'earth'),
    counted({ item: 'cleanout', label: 'Upright ends to flush it by', from: 'one at its upper end' }, 1),
    line({ item: 'labour', label: 'Hours of one person', kind: 'hours', from: 'what one person lays in a day' }, hoursOf(work, ground), 'surface'),
  ]; // prettier-ignore
}

export function stepsOf(work: SeepDrain, ground: SeepGround): BuildStep[] {
  const { most } = depthsOf(work, ground);
  const deep = most + work.dimensions.underM;
  return inOrder(
    { id: 'ask', does: 'Have cables and pipes marked; look where its end may run out, before anything is dug.', cautions: [BEFORE_DIGGING] },
    { id: 'watch', does: 'Dig a metre of it, leave it overnight, empty it and time how it fills: that is what it will bring.', hold: 'If nothing comes in, it is not seepage that makes the ground wet: look for what runs over it.' },
    {
      id: 'trench',
      does: say`Dig from its lower end upwards, ${amount(deep, 'length')} at its deepest, turf and soil apart.`,
      levels: [{ name: 'upper invert', levelM: work.levels.upperM }, { name: 'end', levelM: work.levels.outletM }],
      cautions: [...standingIn(deep), ...(work.purpose === 'footing' || work.purpose === 'wall' ? ['Never deeper than the footing beside it, and a short piece at a time.'] : [])],
    },
    { id: 'bed', does: say`Lay the cloth, then a bed of gravel brought to its fall of ${amount(fallOf(work, ground), 'slope')}.`, hold: 'A reading every 2 m: no hump, no sag.' },
    { id: 'pipe', does: 'Lay the pipe, holes down, an upright end at the top to flush it by.', hold: 'Pour a bucket in at the top: it comes out at the end. Read the inverts and note them as laid.' },
    { id: 'gravel', does: 'Gravel over it, the cloth folded over with a lap of a hand, then earth or gravel to the ground.' },
    { id: 'end', does: 'A grille on its end, stone under it; roof water goes past it in whole pipe of its own.' },
    { id: 'after', does: 'Flush it from the top each autumn, and look at its end after the first great rain.' },
  ); // prettier-ignore
}
