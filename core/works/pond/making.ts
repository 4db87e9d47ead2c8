import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import type { WallEarth } from '../basin/index.ts';
import { BEFORE_DIGGING, standingIn, SEED_AT_ONCE, inOrder, line } from '../making.ts';
import type { Pond } from './model.ts';

const FROM_SECTIONS = 'sections of the wall on the real ground';

/** Both sides and the crest of a wall, by its mean height [m2]. */
function surfaceOf({ dimensions }: Pond, { baseM2, lengthM, heightM }: WallEarth): number {
  const { topWidthM, waterSlopeHV, backSlopeHV } = dimensions;
  const sides = (Math.hypot(1, waterSlopeHV) + Math.hypot(1, backSlopeHV)) / (waterSlopeHV + backSlopeHV);
  return heightM > 0 ? lengthM * topWidthM + Math.max(0, baseM2 - lengthM * topWidthM) * sides : 0;
}

export function quantitiesOf(pond: Pond, on: { readonly earth: WallEarth | null; readonly dugM3: number }): QuantityLine[] {
  const { earth, dugM3 } = on;
  const wall: QuantityLine[] = pond.wall
    ? [
        line(
          { item: 'fill', label: 'Earth of the wall, settling included', kind: 'volume', from: FROM_SECTIONS },
          earth?.earthM3 ?? null,
          'earth',
        ),
        line(
          { item: 'key', label: 'Key, dug and filled again', kind: 'volume', from: 'its depth and width along the wall' },
          earth?.keyM3 ?? null,
          'earth',
        ),
        line(
          { item: 'topsoil', label: 'Topsoil set aside', kind: 'volume', from: 'what the wall stands on, by its depth' },
          earth?.stripM3 ?? null,
          'earth',
        ),
        line(
          { item: 'seed', label: 'Wall to seed', kind: 'area', from: 'both sides and crest, by its mean height' },
          earth ? surfaceOf(pond, earth) : null,
          'surface',
        ),
      ]
    : [];
  const pit = pond.pit
    ? [line({ item: 'cut', label: 'Dug', kind: 'volume', from: 'pieces of the pit on the real ground' }, dugM3, 'earth')]
    : [];
  return [...wall, ...pit];
}

export function stepsOf(pond: Pond, earth: WallEarth | null): BuildStep[] {
  const { crestM, floorM } = pond.levels;
  const { keyDepthM } = pond.dimensions;
  const setOut = {
    id: 'peg',
    does: 'Peg wall and water line, and flag the water before any topsoil is spread again.',
    cautions: [BEFORE_DIGGING],
  };
  const wayOut = {
    id: 'way-out',
    does: 'Cut its way out on natural ground before the wall can hold water.',
    hold: 'Level it: it is the lowest way out from now on.',
  };
  const last = { id: 'finish', does: 'Spread topsoil on the outer side, seed and mulch; fence stock out.', cautions: [SEED_AT_ONCE] };
  if (!pond.wall) {
    const dig = {
      id: 'dig',
      does: say`Dig to ${amount(floorM, 'reading')} and carry the earth away from its edge.`,
      levels: [{ name: 'floor', levelM: floorM }],
      cautions: ['Leave one side flat enough to climb out.'],
    };
    return inOrder(setOut, wayOut, dig, last);
  }
  return inOrder(
    setOut,
    {
      id: 'strip',
      does: 'Strip topsoil, roots and old pipes from all the wall will stand on.',
      hold: 'No topsoil, roots or wet earth left under it.',
    },
    {
      id: 'key',
      does: say`Dig the key ${amount(keyDepthM, 'length')} deep, down to ground that holds water, and fill it in thin rolled layers.`,
      hold: 'Look at the bottom of the key all along before it is filled.',
      cautions: standingIn(keyDepthM),
    },
    wayOut,
    {
      id: 'wall',
      does: earth
        ? say`Build the wall in rolled layers of 0.15 m to ${amount(crestM + (pond.settlementPercent / 100) * earth.heightM, 'reading')}, which settles to ${amount(crestM, 'reading')}.`
        : say`Build the wall in rolled layers of 0.15 m, ${amount(pond.settlementPercent, 'percent')} higher than it is to be when it has settled at ${amount(crestM, 'reading')}.`,
      levels: [{ name: 'crest, settled', levelM: crestM }],
      hold: 'Level the crest: highest where the wall is highest.',
      cautions: ['Earth too wet or too dry to hold together in the hand is no earth for a wall.'],
    },
    last,
  );
}
