import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import type { LipGround } from '../lip.ts';
import { BEFORE_DIGGING, standingIn, SEED_AT_ONCE, inOrder, line } from '../making.ts';
import type { Swale } from './model.ts';
import { earthOf } from './quantities.ts';

/** Ground to be seeded: both sides and the top of its bank along the lip [m2]. */
function bankSurface({ levels, dimensions }: Swale, ground: LipGround): number {
  const { bankTopM: w, bankSlopeHV: zb } = dimensions;
  const rise = Math.max(0, levels.bankCrestM - ground.meanGroundM);
  return ground.lengthM * (w + 2 * rise * Math.hypot(1, zb));
}

export function quantitiesOf(swale: Swale, ground: LipGround): QuantityLine[] {
  const { cutM3, bankM3 } = earthOf(swale, ground);
  return [
    line({ item: 'cut', label: 'Cut', kind: 'volume', from: 'sections of the ditch on the real ground' }, cutM3, 'earth'),
    line({ item: 'fill', label: 'Bank, rolled', kind: 'volume', from: 'sections of the bank on the real ground' }, bankM3, 'earth'),
    line(
      { item: 'seed', label: 'Bank to seed', kind: 'area', from: 'length by both sides and top of the bank' },
      bankSurface(swale, ground),
      'surface',
    ),
  ];
}

export function stepsOf(swale: Swale, ground: LipGround): BuildStep[] {
  const { floorM, bankCrestM } = swale.levels;
  const rolled = swale.purpose === 'hold' || swale.purpose === 'spillway';
  const depth = ground.meanGroundM - floorM;
  return inOrder(
    {
      id: 'peg',
      does: 'Peg the lip on the contour and check it by level.',
      hold: 'Every peg within 20 to 30 mm before a machine comes.',
      cautions: [BEFORE_DIGGING],
    },
    {
      id: 'way-out',
      does: 'Cut its way out first, on natural ground: a swale that can hold water tonight lets it out tonight.',
      hold: 'Level the way out from end to end.',
    },
    { id: 'strip', does: 'Strip the topsoil from ditch and bank, and set it aside uphill.' },
    {
      id: 'dig',
      does: say`Dig to the floor at ${amount(floorM, 'reading')} and lay the earth on the lower side.`,
      levels: [{ name: 'floor', levelM: floorM }],
      cautions: standingIn(depth),
    },
    {
      id: 'bank',
      does: rolled
        ? say`Build the bank in rolled layers of 0.15 m to ${amount(bankCrestM, 'reading')}, higher by what it settles.`
        : say`Shape the bank to ${amount(bankCrestM, 'reading')}, higher by what it settles.`,
      levels: [{ name: 'bank crest', levelM: bankCrestM }],
      hold: 'Level the crest: the lowest place is the spillway.',
    },
    { id: 'finish', does: 'Rake the floor level, spread topsoil on the bank, seed and mulch.', cautions: [SEED_AT_ONCE] },
  );
}
