import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, type Draft, SEED_AT_ONCE, STONE_T_M3, carryHours, counted, inOrder, layingHours, line } from '../making.ts';
import { type Headcut, hasApron, isChute } from './model.ts';
import { type Standing, faceM } from './standing.ts';

/** Sides of a chute, out per 1 up; stone twice its median thick; bales a metre long: common practice. */
const [SIDES_HV, THICK, BALE_LONG_M] = [2, 2, 1];

export interface HeadParts {
  readonly earthM3: number;
  readonly stoneM3: number;
  readonly faceM2: number;
  readonly hours: number;
}

/** What is cut, lined and laid. */
export function partsOf(standing: Standing): HeadParts {
  const { head, dropM, overM } = standing;
  const { sideM, slopeHV, stoneM, apronM, plugM } = head.dimensions;
  const lipM = lineLength(head.line);
  const along = isChute(head) || head.form === 'batter' ? dropM * Math.hypot(1, slopeHV) : 0;
  const wide = isChute(head) ? overM + 2 * sideM * Math.hypot(1, SIDES_HV) : lipM;
  // An upright face laid back: a triangle in section, as long as what is cut.
  const earthM3 = along > 0 ? ((dropM * dropM * slopeHV) / 2) * (isChute(head) ? overM + SIDES_HV * sideM : lipM) : 0;
  const faceM2 = along * wide;
  const lined = head.form === 'rock' ? faceM2 * THICK * stoneM : 0;
  const stoneM3 = lined + (hasApron(head) ? apronM * overM * THICK * stoneM : 0);
  const laidM3 = head.form === 'plug' ? lipM * plugM * Math.max(plugM, dropM / 2) : 0;
  const { m3PerDay, carryM } = head.labour;
  return { earthM3, stoneM3, faceM2, hours: layingHours(earthM3 + stoneM3 + laidM3, m3PerDay) + carryHours(stoneM3 * STONE_T_M3, carryM) };
}

const LAID: Readonly<Record<Headcut['plug'], string>> = { bale: 'bales', log: 'logs', brush: 'pressed brush' };

export function quantitiesOf(standing: Standing): QuantityLine[] {
  const { head, dropM } = standing;
  const { earthM3, stoneM3, faceM2 } = partsOf(standing);
  const cut = line(
    { item: 'cut', label: 'Face to cut back', kind: 'volume', from: 'an upright face laid back, as long as what is cut' },
    earthM3,
    'earth',
  );
  const from = head.form === 'rock' ? 'chute and apron, two stones thick' : 'apron, two stones thick';
  const stone = line({ item: 'stone', label: 'Stone', kind: 'volume', from }, stoneM3, 'stone');
  const weighs = line(
    { item: 'stone-weight', label: 'It weighs', kind: 'mass', from: 'stone with its gaps' },
    stoneM3 * STONE_T_M3,
    'stone',
  );
  const apron = stoneM3 > 0 ? [stone, weighs] : [];
  const cloth = line({ item: 'cloth', label: 'Filter cloth or gravel under it', kind: 'area', from: 'face of the chute' }, faceM2, 'made');
  const seed = line({ item: 'seed', label: 'Face to seed and mulch', kind: 'area', from: 'its length down the face' }, faceM2, 'surface');
  const layers = Math.max(1, Math.ceil(dropM / 2 / head.dimensions.plugM));
  const lip = lineLength(head.line);
  switch (head.form) {
    case 'left':
      return [counted({ item: 'peg', label: 'Fixed mark', from: 'one' }, 1)];
    case 'batter':
      return [cut, seed];
    case 'rock':
      return [cut, stone, weighs, cloth];
    case 'grass':
      return [cut, line({ item: 'turf', label: 'Turf', kind: 'area', from: 'face of the chute' }, faceM2, 'surface'), ...apron];
    case 'plug':
      return [
        head.plug === 'bale'
          ? counted({ item: 'bale', label: 'Bales', from: 'across the head, to half its drop' }, layers * Math.ceil(lip / BALE_LONG_M))
          : line(
              {
                item: head.plug,
                label: head.plug === 'log' ? 'Logs, end to end' : 'Brush, end to end',
                kind: 'length',
                from: 'across the head, to half its drop',
              },
              layers * lip,
              'made',
            ),
        counted({ item: 'stake', label: 'Stakes', from: 'two for each metre and layer' }, 2 * layers * Math.ceil(lip)),
        ...apron,
      ];
  }
}

const FIRST: Draft = {
  id: 'above',
  does: 'Rest and cover the ground above, and slow its water there: with stone lines, brush, timed grazing.',
  hold: 'Has the ground above healed? Until then nothing is cut back.',
};
const MARK: Draft = {
  id: 'mark',
  does: 'Drive a steel peg well uphill of the lip, measure to the lip, and note it with the date and the rain.',
  cautions: ['Nobody stands under an undercut lip, or on it.'],
};
const AFTER: Draft = { id: 'after', does: 'Go to it after each large rain: read the mark, mend what moved, keep stock off it.' };

const END_DEEP = 'The end of the apron is set deeper than the rest, level with the bed.';

export function stepsOf(standing: Standing): BuildStep[] {
  const { head } = standing;
  const { slopeHV, stoneM, apronM, chuteWidthM, sideM } = head.dimensions;
  const marks = [
    { name: 'lip', levelM: head.levels.lipM },
    { name: 'foot', levelM: head.levels.footM },
  ];
  const pull: Draft = {
    id: 'cut',
    does: say`Pull the overhang down first, from above; then lay the face back to ${amount(slopeHV, 'number')} out for each 1 up, ${amount(faceM(standing), 'length')} from lip to foot.`,
    levels: marks,
    cautions: [BEFORE_DIGGING, 'Nobody stands under an undercut lip, or on it.'],
  };
  const under: Draft[] =
    apronM > 0
      ? [
          {
            id: 'apron',
            does: say`Where the water lands dig in level stone of ${amount(stoneM, 'difference')} two thick, ${amount(apronM, 'length')} down the gully.`,
            hold: END_DEEP,
            levels: marks.slice(1),
          },
        ]
      : [];
  const fence: Draft = { id: 'fence', does: 'Fence it with a fence that lifts or lets go in a flood, not with one that catches brush.' };
  switch (head.form) {
    case 'left':
      return inOrder(FIRST, MARK, AFTER);
    case 'batter':
      return inOrder(
        FIRST,
        MARK,
        {
          id: 'lead',
          does: 'Lead the water round it first, to where the gully or the ground is stable.',
          hold: 'Pour water on the ground above: none of it comes over the lip.',
        },
        pull,
        { id: 'seed', does: 'Keep topsoil on top; seed, mulch and pin the mulch.', cautions: [SEED_AT_ONCE] },
        fence,
        AFTER,
      );
    case 'rock':
      return inOrder(
        FIRST,
        MARK,
        pull,
        { id: 'cloth', does: 'Lay cloth, its upper end dug in above the lip, laps of half a metre, downhill over uphill.' },
        {
          id: 'foot',
          does: say`Dig in the foot and lay the apron first, ${amount(apronM, 'length')} long, stone of ${amount(stoneM, 'difference')} two thick.`,
          hold: END_DEEP,
        },
        {
          id: 'stone',
          does: say`Lay the chute from the foot up, ${amount(chuteWidthM, 'length')} wide, its sides ${amount(sideM, 'length')} up, stone locked into stone.`,
          cautions: ['Stone rolls: nobody works below who lays.'],
        },
        {
          id: 'lip',
          does: 'Finish the lip level across, flush with the ground before it, with wings that gather the water to it.',
          levels: marks.slice(0, 1),
        },
        fence,
        AFTER,
      );
    case 'grass':
      return inOrder(
        FIRST,
        MARK,
        { id: 'lead', does: 'Lead the water round it until the grass holds: a season at the least.' },
        pull,
        { id: 'turf', does: say`Turf it, ${amount(chuteWidthM, 'length')} wide and dished, sods pegged and laid across the flow.` },
        ...under,
        fence,
        AFTER,
      );
    case 'plug':
      return inOrder(
        FIRST,
        MARK,
        {
          id: 'lay',
          does: `Lay ${LAID[head.plug]} tight against the face from the foot up, the middle lower than the sides.`,
          cautions: ['Nobody stands under an undercut lip, or on it.'],
        },
        { id: 'stake', does: 'Stake each to firm ground, and wire over the top.', hold: 'Pull at each: it does not lift.' },
        ...under,
        AFTER,
      );
  }
}
