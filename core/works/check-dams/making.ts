import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { STONE_T_M3, carryHours, counted, inOrder, layingHours, line } from '../making.ts';
import { type CheckDams, FORM_WORDS } from './model.ts';
import { stoneOf } from './stone.ts';
import type { Standing } from './store.ts';

/** A bag filled by hand [m3]; stakes of a brush dam stand so far apart in two rows [m]: common practice. */
const [BAG_M3, STAKE_M] = [0.025, 0.5];

/** What all dams take together [m3]. */
export const allStoneM3 = (work: CheckDams, dams: readonly Standing[]): number => dams.reduce((a, one) => a + stoneOf(work, one).allM3, 0);

/** Hours of one person: laying it, and walking with it. */
export const hoursOf = ({ labour: { m3PerDay, carryM } }: CheckDams, volumeM3: number): number =>
  layingHours(volumeM3, m3PerDay) + carryHours(volumeM3 * STONE_T_M3, carryM);

export function quantitiesOf(work: CheckDams, dams: readonly Standing[]): QuantityLine[] {
  const all = dams.map((one) => stoneOf(work, one));
  const volume = all.reduce((a, s) => a + s.allM3, 0);
  const body = all.reduce((a, s) => a + s.bodyM3, 0);
  const keys = all.reduce((a, s) => a + s.keysM3, 0);
  const crest = all.reduce((a, s) => a + s.crestM, 0);
  const from = 'body, keys and apron of every dam across its own channel';
  const dug = line({ item: 'cut', label: 'Keys to dig', kind: 'volume', from: 'keys into bed and banks' }, keys, 'earth');
  const count = counted({ item: 'dam', label: 'Dams', from: 'as placed' }, dams.length);
  switch (work.form) {
    case 'rock':
      return [
        count,
        line({ item: 'stone', label: 'Loose stone', kind: 'volume', from }, volume, 'stone'),
        line({ item: 'stone-weight', label: 'It weighs', kind: 'mass', from: 'stone with a third of gaps' }, volume * STONE_T_M3, 'stone'),
        dug,
      ];
    case 'brush':
      return [
        count,
        line({ item: 'brush', label: 'Brush, pressed', kind: 'volume', from }, volume, 'stone'),
        counted({ item: 'stake', label: 'Stakes', from: 'two rows, half a metre apart' }, 2 * Math.ceil(crest / STAKE_M)),
        dug,
      ];
    case 'log': {
      const layers = dams.reduce(
        (a, one, k) => a + Math.ceil((one.dam.heightM + work.dimensions.notchDepthM) / work.dimensions.pieceM) * all[k].crestM,
        0,
      );
      return [
        count,
        line({ item: 'log', label: 'Logs, end to end', kind: 'length', from: 'layers from bank to bank, keyed in' }, layers, 'stone'),
        dug,
      ];
    }
    case 'sandbag':
      return [count, counted({ item: 'bag', label: 'Bags of 25 litres', from }, Math.ceil((body + keys) / BAG_M3)), dug];
  }
}

export function stepsOf(work: CheckDams, dams: readonly Standing[]): BuildStep[] {
  const levels = dams.map(({ name, notchM }) => ({ name: `${name}: notch`, levelM: notchM }));
  const { notchDepthM, bedKeyM, sideKeyM, apronM } = work.dimensions;
  return inOrder(
    {
      id: 'above',
      does: 'Rest and cover the ground above first: dams in a gully that is still fed as before fill in a year.',
      hold: 'Walk up from the lowest to the head: is anything above it eased already?',
    },
    {
      id: 'peg',
      does: say`Peg every dam at its notch, and its ends ${amount(notchDepthM, 'length')} higher on both banks.`,
      levels,
      hold: 'Sight from each notch to the foot of the next above: they are level.',
    },
    {
      id: 'key',
      does: say`Dig each key ${amount(bedKeyM, 'length')} into the bed and ${amount(sideKeyM, 'length')} into both banks.`,
      cautions: ['Nobody works under an undercut bank: pull it down first.'],
    },
    { id: 'apron', does: say`Lay the apron first, ${amount(apronM, 'length')} downstream, flush with the bed, its far end set deeper.` },
    {
      id: 'body',
      does: `Build up ${FORM_WORDS[work.form]} from the key, the largest below and outside, ends before the middle.`,
      cautions: ['Use what lies loose. What holds the slope or the bed together stays where it is.'],
    },
    {
      id: 'notch',
      does: say`Leave the notch ${amount(notchDepthM, 'length')} below the ends, over the middle of the bed.`,
      hold: 'Pour a bucket over it: all of it lands on the apron.',
      levels,
    },
    { id: 'after', does: 'Go along all of them after the first flood, lay back what it moved, and note silt and height of each.' },
  );
}
