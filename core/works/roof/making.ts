// What a roof's gutters take, and how they are hung.
import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { counted, inOrder, line } from '../making.ts';
import { FIRST_FLUSH } from '../../season/index.ts';
import { type Roof, areaOf } from './model.ts';
import { type Gutter } from './standing.ts';

/** A bracket to so much of gutter, a working day, and how far a clip of a downpipe carries [m, h, m]: common practice. */
const [A_BRACKET_M, DAY_H, A_CLIP_M] = [0.6, 8, 1.5];

export const hoursOf = ({ gutter, dimensions, labour }: Roof): number =>
  gutter === 'none' ? 0 : (dimensions.gutterLengthM / labour.mPerDay) * DAY_H;

/** What its diverters hold together [m3]. */
export const flushM3 = (roof: Roof): number => FIRST_FLUSH.evaluate({ A: areaOf(roof), f: roof.dimensions.firstFlushMm }) / 1000;

export function quantitiesOf(roof: Roof): QuantityLine[] {
  const { gutterLengthM: L, downpipes: n, eavesM, firstFlushMm } = roof.dimensions;
  const area = line({ item: 'roof', label: 'Roof, from above', kind: 'area', from: 'its edge' }, areaOf(roof), 'made');
  if (roof.gutter === 'none') return [area];
  return [
    area,
    line({ item: 'gutter', label: 'Gutter', kind: 'length', from: 'along its eaves' }, L, 'made'),
    counted({ item: 'bracket', label: 'Gutter brackets', from: 'one every 0.6 m and at both ends' }, Math.ceil(L / A_BRACKET_M) + n),
    line({ item: 'downpipe', label: 'Downpipe', kind: 'length', from: 'eaves to the ground, each' }, n * eavesM, 'made'),
    counted({ item: 'clip', label: 'Downpipe clips', from: 'one every 1.5 m, two at least' }, n * Math.max(2, Math.ceil(eavesM / A_CLIP_M))),
    ...(roof.screen === 'none' ? [] : [roof.screen === 'mesh'
      ? line({ item: 'mesh', label: 'Mesh over the gutter', kind: 'length', from: 'as long as the gutter' }, L, 'made')
      : counted({ item: 'rain-head', label: 'Rain heads', from: 'one a downpipe' }, n)]),
    ...(firstFlushMm > 0 ? [line({ item: 'diverter', label: 'First-flush diverters hold', kind: 'liquid', from: 'depth let go over the roof' }, flushM3(roof), 'made')] : []),
  ]; // prettier-ignore
}

const LADDER = 'Work from a scaffold or a tied ladder; nobody leans out, nobody stands on brittle sheets.';

export function stepsOf(roof: Roof, { rimM }: Gutter): BuildStep[] {
  const { firstFlushMm } = roof.dimensions;
  if (roof.gutter === 'none')
    return inOrder({
      id: 'look',
      does: 'Look at the eaves, their boards and what they can carry before a gutter is chosen.',
      cautions: [LADDER],
    });
  return inOrder(
    { id: 'look', does: 'Look for lead flashings, tar and asbestos sheets, and mend the eaves boards.', cautions: [LADDER, 'Asbestos sheets are neither cut nor drilled.'] },
    { id: 'brackets', does: 'Set the end brackets by a string that falls 2 to 5 mm a metre to the downpipe, then one every 0.6 m.', levels: [{ name: 'rim', levelM: rimM }], cautions: [LADDER] },
    { id: 'gutter', does: 'Hang the gutter, seal its joints, close its ends.', hold: 'Pour a bucket in at the far end: all of it comes out of the downpipe, and none stands.', cautions: [LADDER] },
    { id: 'down', does: 'Hang the downpipes, with a screen before each.' },
    ...(firstFlushMm > 0
      ? [{ id: 'flush', does: say`Set a diverter that takes the first ${amount(flushM3(roof), 'liquid')} in all, and drains through a hole of a few millimetres.`, hold: 'It is empty again a day after rain.' }]
      : []),
    { id: 'after', does: 'Clean gutters and screens before the rains and after leaf fall; empty the diverter each month of rain.', cautions: [LADDER] },
  ); // prettier-ignore
}
