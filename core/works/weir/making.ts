import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { slabArea, slabsOf } from '../gravity/index.ts';
import { BEFORE_DIGGING, carryHours, counted, inOrder, layingHours, line, standingIn } from '../making.ts';
import { type Weir, courseOf } from './model.ts';
import type { Standing } from './standing.ts';

/** A basket is so wide and long [m2]; an apron so thick [m]: common practice; stone packed in baskets with its gaps [t/m3]. */
const [BASKET_M2, APRON_DEEP_M, STONE_T_M3] = [2, 0.3, 1.65];

export interface WeirParts {
  readonly bodyM3: number;
  readonly keysM3: number;
  readonly apronM3: number;
  readonly cutoffM3: number;
  readonly dugM3: number;
  readonly fillM3: number;
  readonly clothM2: number;
  readonly hours: number;
}

/** Area of its cross-section where its crest stands so high over the ground [m2]. */
function sliceM2(work: Weir, highM: number): number {
  const { baseWidthM, topWidthM, foundationM } = work.dimensions;
  const heightM = Math.max(0, highM) + foundationM;
  if (heightM <= 0) return 0;
  const shape = { heightM, baseM: baseWidthM, topM: topWidthM, courseM: courseOf(work), steps: work.steps };
  return slabsOf(shape).reduce((a, slab) => a + slabArea(slab).areaM2, 0);
}

/** What it takes, metre by metre along its line: lower in its notch, shallower up its banks. */
export function partsOf({ work, wall }: Standing): WeirParts {
  const { levels, dimensions, notchAtM, labour } = work;
  const { notchWidthM, keyM, foundationM, baseWidthM, topWidthM, bedWidthM, apronM, apronDropM, cutoffM, rampUpHV, rampDownHV } =
    dimensions;
  let [bodyM3, dugM3, fillM3, clothM2, endHigh] = [0, 0, 0, 0, 0];
  wall.groundM.forEach((groundM, i) => {
    const share = (i === 0 || i === wall.groundM.length - 1 ? 0.5 : 1) * wall.stepM;
    // What of this metre lies in the notch, and what beside it.
    const half = wall.stepM / 2;
    const [from, to] = [wall.atM[i] - notchAtM - half, wall.atM[i] - notchAtM + half];
    const within = Math.max(0, Math.min(to, notchWidthM / 2) - Math.max(from, -notchWidthM / 2)) / wall.stepM;
    for (const [part, topM] of [
      [within, levels.notchM],
      [1 - within, levels.crestM],
    ]) {
      const high = topM - groundM;
      if (high <= 0 || part <= 0) continue;
      bodyM3 += part * share * sliceM2(work, high);
      dugM3 += part * share * baseWidthM * foundationM;
      fillM3 += (part * share * (rampUpHV + rampDownHV) * high * high) / 2;
      clothM2 += part * share * (high + foundationM + baseWidthM);
    }
    if (within < 1) endHigh = Math.max(endHigh, Math.min(levels.crestM - groundM, levels.crestM - levels.notchM));
  });
  const keysM3 = 2 * keyM * topWidthM * (endHigh + foundationM);
  const apronM3 = apronM * bedWidthM * APRON_DEEP_M;
  const cutoffM3 = cutoffM * bedWidthM * Math.min(1, cutoffM);
  const stone = bodyM3 + keysM3 + apronM3 + cutoffM3;
  return {
    bodyM3,
    keysM3,
    apronM3,
    cutoffM3,
    dugM3: dugM3 + keysM3 + apronM * bedWidthM * (apronDropM + APRON_DEEP_M) + cutoffM3,
    fillM3,
    clothM2,
    hours: layingHours(stone, labour.m3PerDay) + carryHours(stone * STONE_T_M3, labour.carryM),
  };
}

export const stoneM3 = ({ bodyM3, keysM3, apronM3, cutoffM3 }: WeirParts): number => bodyM3 + keysM3 + apronM3 + cutoffM3;

export function quantitiesOf(standing: Standing): QuantityLine[] {
  const { work } = standing;
  const parts = partsOf(standing);
  const all = stoneM3(parts);
  const from = 'sections on the ground along its line, keys, apron and cut-off';
  const body = parts.bodyM3 + parts.keysM3;
  const baskets: QuantityLine[] =
    work.form === 'gabion'
      ? [
          counted(
            { item: 'basket', label: 'Baskets, two metres by one, a course high', from: 'body and keys by the volume of one' },
            Math.ceil(body / (BASKET_M2 * work.dimensions.courseM)),
          ),
        ]
      : [line({ item: 'masonry', label: 'Masonry, stone and mortar', kind: 'volume', from: 'body and keys' }, body, 'made')];
  return [
    line({ item: 'stone', label: 'Stone', kind: 'volume', from }, all, 'stone'),
    line({ item: 'stone-weight', label: 'It weighs', kind: 'mass', from: 'stone with its gaps' }, all * STONE_T_M3, 'stone'),
    ...baskets,
    line({ item: 'cut', label: 'To dig', kind: 'volume', from: 'base, keys, apron and cut-off' }, parts.dugM3, 'earth'),
    line({ item: 'fill', label: 'Ramps of fill', kind: 'volume', from: 'triangles against its faces' }, parts.fillM3, 'earth'),
    line(
      { item: 'cloth', label: 'Filter cloth behind and under it', kind: 'area', from: 'upper face and base along its line' },
      parts.clothM2,
      'made',
    ),
  ];
}

const BODY_WORDS: Readonly<Record<Weir['form'], string>> = {
  gabion: 'Set baskets in courses, joints broken, each tied to its neighbours on all edges and packed by hand, large stone at the faces.',
  masonry: 'Build stone in mortar, bond broken, headers through it every metre; leave weep holes at the bed, 2 m apart.',
};

export function stepsOf({ work, heightM }: Standing): BuildStep[] {
  const { levels, dimensions } = work;
  const marks = [
    { name: 'notch', levelM: levels.notchM },
    { name: 'ends', levelM: levels.crestM },
  ];
  const { foundationM, keyM, apronM, apronDropM, rampUpHV } = dimensions;
  return inOrder(
    {
      id: 'leave',
      does: 'Settle who signs for it, whose consent it needs, and who lives below. Low leaky dams further up come first.',
      hold: 'Is the ground above rested or covered already? Else it fills in a season and turns the flood aside.',
    },
    { id: 'peg', does: 'Peg its notch and both ends, and the foot of its base on both sides.', levels: marks, cautions: [BEFORE_DIGGING] },
    {
      id: 'dig',
      does: say`Lead what runs to one side, dig its base ${amount(foundationM, 'length')} under the bed and ${amount(keyM, 'length')} into both banks.`,
      hold: 'Look at the ground under it before anything is laid: is it what it was designed for?',
      cautions: standingIn(foundationM + heightM),
    },
    {
      id: 'bed',
      does: 'Lay cloth and a bed of gravel, level across and a hand lower at the heel.',
      hold: 'It is level along its line within 20 mm.',
    },
    {
      id: 'apron',
      does: say`Lay the apron first, ${amount(apronM, 'length')} long and ${amount(apronDropM, 'length')} under the bed, its lower end cut off deep.`,
    },
    { id: 'body', does: BODY_WORDS[work.form], cautions: ['Cut wire flies: glasses and gloves. Two lift what one should not.'] },
    {
      id: 'notch',
      does: 'Leave the notch over the middle of the bed; build both ends alike, and well into the banks.',
      levels: marks,
      hold: 'A level says the notch is level along its crest within 10 mm.',
    },
    {
      id: 'fill',
      does: rampUpHV > 0 ? 'Fill its keys and against its upper face in layers, rammed, stone on top.' : 'Fill its keys in layers, rammed.',
    },
    { id: 'after', does: 'Go to it after the first flood: its foot, both ends, and what has gone round. Note the silt.' },
  );
}
