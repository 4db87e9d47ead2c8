import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, DAY_H, counted, inOrder, line, standingIn } from '../making.ts';
import { TIME_TO_FILL } from './formulas.ts';
import type { LineGround } from './ground.ts';
import type { SupplyLine } from './model.ts';
import { dayM3, drippersOf, givesOpen, panelsFor, pumpPower } from './standing.ts';

/** A trench a spade wide, and pipe that is lost to joints and to lying in waves: common practice. */
const [SPADE_M, WASTE] = [0.3, 1.05];
/** A can everybody has [m3]. */
export const BUCKET_M3 = 0.01;

const isBuried = ({ pipe }: Pick<SupplyLine, 'pipe'>): boolean => pipe.coverM >= 0.05;
const trenchM3 = ({ pipe }: SupplyLine, { lengthM }: LineGround): number => lengthM * SPADE_M * (pipe.coverM + pipe.diameterM);

export const hoursOf = (work: SupplyLine, { lengthM }: LineGround): number => (lengthM / work.labour.mPerDay) * DAY_H;

/** What the bucket at its end must show [s]; null where nothing runs by itself. */
export function bucketS(work: SupplyLine, ground: LineGround): number | null {
  const Q = work.drive === 'pump' ? work.flowM3s : givesOpen(work, ground);
  return Q > 0 ? TIME_TO_FILL.evaluate({ V: BUCKET_M3, Q }) : null;
}

export function quantitiesOf(work: SupplyLine, ground: LineGround): QuantityLine[] {
  const { pipe, vents = [], drains = [], drip } = work;
  return [
    line({ item: 'pipe', label: 'Pipe, a twentieth more', kind: 'length', from: 'its line on the ground' }, WASTE * ground.lengthM, 'made'),
    ...(isBuried(work)
      ? [line({ item: 'cut', label: 'Trench, filled again', kind: 'volume', from: 'a spade wide, to its cover' }, trenchM3(work, ground), 'earth')]
      : []),
    counted({ item: 'fitting', label: 'Bends and fittings', from: 'as counted' }, pipe.bends),
    ...(vents.length > 0 ? [counted({ item: 'vent', label: 'Vents', from: 'as noted along it' }, vents.length)] : []),
    ...(drains.length > 0 ? [counted({ item: 'drain-cock', label: 'Drain cocks', from: 'as noted along it' }, drains.length)] : []),
    ...(work.drive === 'pump'
      ? [line({ item: 'pump', label: 'Power of the pump', kind: 'power', from: 'flow, head and efficiency' }, pumpPower(work, ground), 'made')]
      : []),
    ...(work.drive === 'pump' && work.pump.power === 'sun'
      ? [line({ item: 'panels', label: 'Panels, at their peak', kind: 'power', from: 'water a day and head' }, panelsFor(work, ground), 'surface')]
      : []),
    ...(work.serves === 'drip'
      ? [
          line({ item: 'drip-line', label: 'Drip line', kind: 'length', from: 'lines by their length' }, drip.lines * drip.lengthM, 'made'),
          counted({ item: 'dripper', label: 'Drippers', from: 'their distance along the lines' }, drippersOf(work)),
        ]
      : []),
    line({ item: 'labour', label: 'Hours of one person', kind: 'hours', from: 'what one person lays in a day' }, hoursOf(work, ground), 'surface'),
  ]; // prettier-ignore
}

export function stepsOf(work: SupplyLine, ground: LineGround): BuildStep[] {
  const { levels, pipe } = work;
  const seconds = bucketS(work, ground);
  return inOrder(
    {
      id: 'walk',
      does: 'Walk it with a level and mark every top and every dip; move it to where it falls all the way, if there is such a way.',
      cautions: isBuried(work) ? [BEFORE_DIGGING] : [],
    },
    ...(isBuried(work)
      ? [{ id: 'trench', does: say`Dig the trench, ${amount(pipe.coverM, 'length')} over the pipe, its floor without stones.`, cautions: standingIn(pipe.coverM) }]
      : []),
    {
      id: 'lay',
      does: 'Lay the pipe with its ends plugged; a valve at its upper end, vents at tops and drain cocks at dips.',
      levels: [
        { name: 'drawn from', levelM: levels.drawM },
        { name: 'end', levelM: levels.endM },
      ],
    },
    ...(work.drive === 'pump'
      ? [
          {
            id: 'pump',
            does: say`Set the pump, with what stops it without water, and a breaker that trips at a leak; it gives ${amount(dayM3(work), 'volume')} in its day.`,
            cautions: ['Current beside water is for a licensed electrician.', 'Nobody in the water while it is plugged in.'],
          },
        ]
      : []),
    {
      id: 'try',
      does:
        seconds === null
          ? 'Pour a bucket into its upper end and watch it come out.'
          : say`Pour a bucket into its upper end until no more air comes; then fill ten litres at its open end: they take ${amount(seconds, 'seconds')}.`,
      hold: 'It gives what it was to give, and no joint weeps, before it is covered.',
    },
    ...(work.serves === 'drip'
      ? [{ id: 'drip', does: 'Lay the drip lines along the contour, flush them with their ends open, then close them; a filter before them.' }]
      : []),
    { id: 'cover', does: 'Fill the trench in layers, a warning tape half way up; draw it on the plan of the house.' },
  ); // prettier-ignore
}
