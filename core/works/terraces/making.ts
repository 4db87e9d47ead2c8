import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, type Draft, SEED_AT_ONCE, STONE_T_M3, carryHours, inOrder, layingHours, line } from '../making.ts';
import { BENCH_CUT } from './formulas.ts';
import { type Terraces, inwardOf } from './model.ts';
import type { Bench } from './standing.ts';

const sum = (benches: readonly Bench[], of: (b: Bench) => number): number => benches.reduce((a, b) => a + of(b), 0);

/** Earth cut, which is filled again on the outer halves [m3]. */
export const cutOf = (work: Terraces, benches: readonly Bench[]): number =>
  sum(benches, (b) => b.ground.lengthM * BENCH_CUT.evaluate({ Wb: work.dimensions.benchM, VI: b.riseM, i: inwardOf(work), S: b.slope }));

/** Stone of all walls [m3]; none where earth holds them. */
export function stoneOf(work: Terraces, benches: readonly Bench[]): number {
  if (work.riser !== 'stone') return 0;
  const { baseM, topM, foundationM } = work.dimensions;
  return sum(benches, (b) => b.ground.lengthM * ((baseM + topM) / 2) * (b.riserM + foundationM));
}

export const gravelOf = (work: Terraces, benches: readonly Bench[]): number =>
  work.riser === 'stone' ? sum(benches, (b) => b.ground.lengthM * work.dimensions.drainM * b.riserM) : 0;

/** Hours of one person: cutting and filling, topsoil twice, laying and carrying. */
export function hoursOf(work: Terraces, benches: readonly Bench[]): number {
  const { earthM3PerDay, wallM3PerDay, carryM } = work.labour;
  const stone = stoneOf(work, benches);
  const gravel = gravelOf(work, benches);
  const earth = cutOf(work, benches) + 2 * topsoilOf(work, benches);
  const laid = stone > 0 ? layingHours(stone, wallM3PerDay) + carryHours((stone + gravel) * STONE_T_M3, carryM) : 0;
  return layingHours(earth, earthM3PerDay) + laid;
}

export const topsoilOf = (work: Terraces, benches: readonly Bench[]): number =>
  work.topsoil === 'kept' ? sum(benches, (b) => b.ground.lengthM * work.dimensions.benchM * work.dimensions.topsoilM) : 0;

export function quantitiesOf(work: Terraces, benches: readonly Bench[]): QuantityLine[] {
  const cut = cutOf(work, benches);
  const stone = stoneOf(work, benches);
  const gravel = gravelOf(work, benches);
  const topsoil = topsoilOf(work, benches);
  const { benchM, riserHV, inlets } = work.dimensions;
  const riserM2 = sum(benches, (b) => b.ground.lengthM * Math.hypot(1, riserHV) * b.riserM);
  return [
    line(
      { item: 'bench', label: 'Level ground won', kind: 'area', from: 'benches end to end' },
      sum(benches, (b) => b.ground.lengthM * benchM),
      'surface',
    ),
    line({ item: 'cut', label: 'To cut', kind: 'volume', from: 'triangles into the slope, bench by bench' }, cut, 'earth'),
    line({ item: 'fill', label: 'To fill', kind: 'volume', from: 'as much, on the outer halves' }, cut, 'earth'),
    ...(topsoil > 0
      ? [
          line(
            { item: 'topsoil', label: 'Topsoil off and on again', kind: 'volume' as const, from: 'benches by its depth' },
            topsoil,
            'earth',
          ),
        ]
      : []),
    ...(stone > 0
      ? [
          line(
            { item: 'stone', label: 'Stone of the walls', kind: 'volume' as const, from: 'section and length of every wall' },
            stone,
            'stone',
          ),
          line(
            { item: 'stone-weight', label: 'It weighs', kind: 'mass' as const, from: 'stone with its gaps' },
            stone * STONE_T_M3,
            'stone',
          ),
        ]
      : [line({ item: 'riser', label: 'Banks to grass', kind: 'area' as const, from: 'risers along their slope' }, riserM2, 'surface')]),
    ...(gravel > 0 ? [line({ item: 'gravel', label: 'Gravel behind them', kind: 'volume' as const, from: 'as thick, as high as the wall' }, gravel, 'stone')] : []), // prettier-ignore
    { item: 'inlet', label: 'Inlets', kind: 'count', from: 'of every bench', low: inlets * benches.length, likely: inlets * benches.length, high: inlets * benches.length }, // prettier-ignore
  ];
}

export function stepsOf(work: Terraces, benches: readonly Bench[]): BuildStep[] {
  const { foundationM, drainM, lipM, holdM, topsoilM } = work.dimensions;
  const levels = benches.slice(0, 8).map(({ name, middleM }) => ({ name: `${name}: its middle`, levelM: middleM }));
  const isStone = work.riser === 'stone';
  const keeps: readonly Draft[] =
    work.topsoil === 'kept'
      ? [{ id: 'topsoil', does: say`Take ${amount(topsoilM, 'length')} of topsoil off the lowest bench and heap it; that of each next one goes onto the one below.` }] // prettier-ignore
      : [];
  const rises: readonly Draft[] = isStone
    ? [
        {
          id: 'found',
          does: say`Dig ${amount(foundationM, 'length')} for the wall into ground nobody has loosened, its floor falling a little into the slope.`,
          hold: 'A bar pushed by hand does not go in.',
        },
        {
          id: 'wall',
          does: say`Lay the largest stones first, each across two, their long side into the slope, leaning back; fill ${amount(drainM, 'length')} of gravel behind as it rises.`,
          cautions: ['Nobody works below a wall while it is laid.', 'Lift with straight backs; what two cannot lift is rolled.'],
          hold: 'No stone moves when somebody stands on it.',
        },
      ]
    : [
        {
          id: 'bank',
          does: 'Tread or roll the outer half in layers of a hand, leaning back as drawn.',
          cautions: ['No machine within 2 m of an edge.'],
        },
      ];
  return inOrder(
    { id: 'peg', does: 'Peg the middle of each bench along the contour, from the lowest up.', levels, cautions: [BEFORE_DIGGING] },
    ...keeps,
    ...rises,
    {
      id: 'cut',
      does: 'Cut the inner half down to the level of the pegs and fill the outer half with it.',
      levels,
      hold: 'Water poured on it stands still, or runs the way it is to.',
      cautions: ['Not after days of rain: a cut slope is at its weakest then.'],
    },
    { id: 'edge', does: say`Shape the edge ${amount(lipM, 'difference')} over its outer side.` },
    {
      id: 'inlets',
      does: say`Set inlets at the low places, ${amount(holdM, 'difference')} over the outer side, with steps of stone down the riser and stone at its foot.`,
      hold: 'A bucket poured on the bench leaves by the inlet alone.',
    },
    {
      id: 'grow',
      does: isStone
        ? 'Spread the topsoil, and sow or plant before the next rain.'
        : 'Spread the topsoil; grass the banks in the same week.',
      cautions: [SEED_AT_ONCE],
    },
    { id: 'after', does: 'After each heavy rain walk every edge: put back stones, fill what sank, clear the inlets.' },
  );
}
