import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, inOrder, line } from '../making.ts';
import { type Crossing, pipeLength } from './model.ts';

/** Road metal over a road water may run over, and over any other [m]: common practice. */
const [HARD_M, METAL_M] = [0.3, 0.15];

export function quantitiesOf(crossing: Crossing, on: { readonly earthM3: number | null; readonly lengthM: number }): QuantityLine[] {
  const { barrels, roadWidthM, dipLengthM } = crossing.dimensions;
  const hard = crossing.form === 'culvert' ? 0 : dipLengthM * roadWidthM;
  const rest = Math.max(0, on.lengthM * roadWidthM - hard);
  return [
    line(
      { item: 'fill', label: 'Earth of the bank', kind: 'volume', from: 'sections of the road’s bank on the real ground' },
      on.earthM3,
      'earth',
    ),
    ...(barrels > 0
      ? [
          line(
            { item: 'pipe', label: 'Pipe', kind: 'length', from: 'road, both sides and overhang, for each pipe' },
            barrels * pipeLength(crossing),
            'made',
          ),
        ]
      : []),
    line(
      { item: 'stone', label: 'Road metal', kind: 'volume', from: '0.15 m over the road, 0.3 m where water runs over it' },
      hard * HARD_M + rest * METAL_M,
      'stone',
    ),
  ];
}

export function stepsOf({ form, levels, dimensions }: Crossing): BuildStep[] {
  const road = { name: 'road', levelM: levels.roadM };
  const pipes = dimensions.barrels > 0;
  return inOrder(
    {
      id: 'peg',
      does: 'Peg road, pipe ends and the lowest place of the bed.',
      cautions: [BEFORE_DIGGING, 'Lead the stream round before the bed is dug.'],
    },
    ...(pipes
      ? [
          {
            id: 'pipe',
            does: say`Bed the pipes firmly from ${amount(levels.inletM, 'reading')} to ${amount(levels.outletM, 'reading')}.`,
            levels: [
              { name: 'pipe in', levelM: levels.inletM },
              { name: 'pipe out', levelM: levels.outletM },
            ],
            hold: 'Level both ends before they are covered.',
          },
        ]
      : []),
    {
      id: 'bank',
      does: say`Build the bank in rolled layers to ${amount(levels.roadM, 'reading')}, hand-tamped beside the pipes.`,
      levels: [road],
      hold: 'Level the crest all along.',
    },
    form === 'culvert'
      ? {
          id: 'relief',
          does: 'Make the way out above the pipes, for the night they block.',
          cautions: ['A pipe is a choke: one branch closes it.'],
        }
      : {
          id: 'relief',
          does: say`Set the stretch water may run over at ${amount(levels.dipM, 'reading')}, level and hard, keyed in at its lower edge.`,
          levels: [{ name: 'lowest road', levelM: levels.dipM }],
          hold: 'Level it from end to end.',
          cautions: ['Nobody drives through water over a road.'],
        },
    { id: 'finish', does: 'Lay the road metal, and stone where water leaves.' },
  );
}
