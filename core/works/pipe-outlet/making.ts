import type { BuildStep, QuantityLine, StormFacts } from '../../contract/index.ts';
import { APRON_STONE, apronOf } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, OPEN_TRENCH, counted, inOrder, line } from '../making.ts';
import type { PipeOutlet } from './model.ts';

/** Sand round the outer third of a pipe: this much on every side [m]. CPS 378, from memory: a filter of a metre or more; half is common for small pipes. */
const FILTER_M = 0.5;

export function quantitiesOf(pipe: PipeOutlet, { links }: StormFacts): QuantityLine[] {
  const { diameterM: D, lengthM } = pipe.dimensions;
  const peak = links.find((l) => l.outlet === pipe.id)?.peakM3s ?? null;
  const apron = peak !== null && peak > 0 ? apronOf({ stoneM: APRON_STONE.evaluate({ Q: peak, D, TW: 0 }), diameterM: D }) : null;
  const apronM3 = apron ? apron.lengthM * ((3 * D + apron.endWidthM) / 2) * apron.depthM : null;
  const rises = pipe.form === 'through' ? null : Math.max(0, pipe.levels.sillM - pipe.levels.outletM);
  return [
    line({ item: 'pipe', label: 'Pipe', kind: 'length', from: 'from inlet to outlet' }, lengthM, 'made'),
    ...(rises === null
      ? []
      : [
          line(
            {
              item: 'riser',
              label: pipe.form === 'box' ? 'Box inlet, high' : 'Standing pipe',
              kind: 'length',
              from: 'from its edge down to the outlet’s level',
            },
            rises,
            'made',
          ),
          counted({ item: 'rack', label: 'Rack', from: 'one over its mouth' }, 1),
        ]),
    ...(pipe.seal === 'filter'
      ? [
          line(
            { item: 'sand', label: 'Filter sand', kind: 'volume', from: 'half a metre round the outer third of the pipe' },
            (lengthM / 3) * ((D + 2 * FILTER_M) ** 2 - (Math.PI / 4) * D * D),
            'earth',
          ),
        ]
      : []),
    ...(pipe.seal === 'collars'
      ? [counted({ item: 'collar', label: 'Collars', from: 'one every 6 m of pipe' }, Math.ceil(lengthM / 6))]
      : []),
    line({ item: 'stone', label: 'Stone of its apron', kind: 'volume', from: 'the apron its storm asks for' }, apronM3, 'stone'),
  ];
}

export const stepsOf = ({ levels, dimensions, seal, form }: PipeOutlet): BuildStep[] =>
  inOrder(
    {
      id: 'trench',
      does: say`Dig its trench to ${amount(levels.outletM, 'reading')} at the outlet, falling all the way.`,
      levels: [{ name: 'outlet', levelM: levels.outletM }],
      hold: 'Level inlet and outlet before the pipe is laid.',
      cautions: [BEFORE_DIGGING, OPEN_TRENCH],
    },
    {
      id: 'lay',
      does: say`Lay ${amount(dimensions.lengthM, 'length')} of pipe on firm ground, its joints tight.`,
      levels: [{ name: 'inlet', levelM: levels.sillM }],
      hold: 'Fill it with water and look at every joint.',
    },
    {
      id: 'tamp',
      does:
        seal === 'filter'
          ? 'Hand-tamp earth in thin layers under and round it; put the sand filter round its outer third.'
          : 'Hand-tamp earth in thin layers under and round it.',
      hold: 'No hollow under the pipe: water follows it and carries the wall away from inside.',
    },
    {
      id: 'ends',
      does:
        form === 'through'
          ? 'Put a rack on its inlet and stone at its outlet.'
          : 'Set the standing part to its level, with a rack over it, and lay stone at the outlet.',
      levels: [{ name: 'water enters', levelM: levels.sillM }],
      cautions: ['A pipe clogs: never the only way out.'],
    },
  );
