import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { STONE_T_M3, carryHours, counted, inOrder, layingHours, line } from '../making.ts';
import { bedAt } from '../bed.ts';
import { FORMS, floating } from './forms.ts';
import type { CheckDams } from './model.ts';
import { type DamStone, logsOf, stoneOf, weightOf } from './stone.ts';
import type { Series, Standing } from './store.ts';

/** A bag filled by hand [m3]; stakes of a brush dam stand so far apart in two rows [m]: common practice. */
const [BAG_M3, STAKE_M] = [0.025, 0.5];

/** A pool that ends so much under the next foot is level with it for all a sight tells [m]. */
const SIGHT_M = 0.1;

/** What all dams take together [m3]. */
export const allStoneM3 = (work: CheckDams, dams: readonly Standing[]): number => dams.reduce((a, one) => a + stoneOf(work, one).allM3, 0);

/** How far what a dam takes is carried [m]. */
export const carryOf = ({ labour }: CheckDams, { dam }: Standing): number => dam.carryM ?? labour.carryM;

/** Hours of one person at one dam: laying it, and walking with it. */
export function hoursAt(work: CheckDams, one: Standing): number {
  const stone = stoneOf(work, one);
  return layingHours(stone.allM3, work.labour.m3PerDay) + carryHours(weightOf(work, stone), carryOf(work, one));
}

/** The same of all of them. */
export const hoursOf = (work: CheckDams, dams: readonly Standing[]): number => dams.reduce((a, one) => a + hoursAt(work, one), 0);

const total = (all: readonly DamStone[], what: (one: DamStone) => number): number => all.reduce((a, one) => a + what(one), 0);

export function quantitiesOf(work: CheckDams, dams: readonly Standing[]): QuantityLine[] {
  const all = dams.map((one) => stoneOf(work, one));
  const volume = total(all, (s) => s.allM3);
  const from = 'body, keys and apron of every dam across its own channel';
  const dug = line(
    { item: 'cut', label: 'Keys to dig', kind: 'volume', from: 'keys into bed and banks' },
    total(all, (s) => s.dugM3),
    'earth',
  );
  const count = counted({ item: 'dam', label: 'Dams', from: 'as placed' }, dams.length);
  // What falls over logs or bags falls on stone.
  const aprons = line(
    { item: 'apron-stone', label: 'Stone for their aprons', kind: 'volume', from: 'aprons as wide as the bed' },
    total(all, (s) => s.apronM3),
    'stone',
  );
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
        counted(
          { item: 'stake', label: 'Stakes', from: 'two rows, half a metre apart' },
          2 * Math.ceil(total(all, (s) => s.crestM) / STAKE_M),
        ),
        dug,
      ];
    case 'log': {
      const logs = dams.reduce((a, one) => a + logsOf(work, one), 0);
      return [
        count,
        line({ item: 'log', label: 'Logs, end to end', kind: 'length', from: 'layers from bank to bank, keyed in' }, logs, 'stone'),
        aprons,
        dug,
      ];
    }
    case 'sandbag': {
      const bags = Math.ceil(total(all, (s) => s.bodyM3 + s.keysM3) / BAG_M3);
      return [
        count,
        counted({ item: 'bag', label: 'Bags of 25 litres', from: 'body and keys of every dam across its own channel' }, bags),
        aprons,
        dug,
      ];
    }
  }
}

/** Whether each pool reaches the foot of the next dam above it. */
const isBySight = ({ bed, dams }: Series): boolean => dams.slice(1).every((one) => bedAt(bed, one.fromM) - one.notchM < SIGHT_M);

export function stepsOf(series: Series): BuildStep[] {
  const { work, dams } = series;
  const levels = dams.map(({ name, notchM }) => ({ name: `${name}: notch`, levelM: notchM }));
  const { notchDepthM, bedKeyM, sideKeyM, apronM, heldKgM } = work.dimensions;
  const { lays, caution, lasts } = FORMS[work.form];
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
      hold: isBySight(series)
        ? 'Sight from each notch to the foot of the next above: they are level.'
        : 'Sight up from each notch: none is higher than the foot of the next above. Further apart they count on silt to lie on a slope between.',
    },
    {
      id: 'key',
      does: say`Dig each key ${amount(bedKeyM, 'length')} into the bed and ${amount(sideKeyM, 'length')} into both banks.`,
      cautions: ['Nobody works under an undercut bank: pull it down first.'],
    },
    { id: 'apron', does: say`Lay the apron first, ${amount(apronM, 'length')} downstream, flush with the bed, its far end set deeper.` },
    {
      id: 'body',
      does: lays,
      cautions: [caution],
      ...(heldKgM === undefined || !floating(work) ? {} : { hold: 'Pull up on it at a few places: it holds what it must.' }),
    },
    {
      id: 'notch',
      does: say`Leave the notch ${amount(notchDepthM, 'length')} below the ends, over the middle of the bed.`,
      hold: 'Pour a bucket over it: all of it lands on the apron.',
      levels,
    },
    {
      id: 'after',
      does: `Go along all of them after the first flood, lay back what it moved, and note silt and height of each.${lasts ? ` ${lasts}` : ''}`,
    },
  );
}
