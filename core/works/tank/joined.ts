// Rules on two vessels joined at their feet.
import type { Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, millimetres } from '../rules.ts';
import { type TankFacts, floorOf, holdsM3 } from './standing.ts';

const isJoined = ({ tank }: TankFacts): boolean => tank.levelsWith !== undefined;

/** A pipe under this lets the second fill long after the first has run over [m]: common practice. */
const WIDE_M = 0.05;

const pipe: Rule<TankFacts> = {
  id: 'tank.join-pipe',
  title: 'Pipe between the two vessels',
  why: 'Through a thin pipe the second one fills slowly: in a hard rain the first runs over while the second has room.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '50 mm between vessels; as wide as what comes in' },
  applies: isJoined,
  find: ({ tank, ground }) => {
    const value = tank.joinPipeM;
    if (ground.beside === undefined)
      return { value: null, limit: WIDE_M, severity: 'unknown', do: 'What it is joined to keeps no water there, or is out of use: name another vessel, or none.' };
    if (value === undefined)
      return { value: null, limit: WIDE_M, severity: 'unknown', do: 'Measure the pipe between them: until it is known they are not counted as joined.' };
    const says = say`Join them by ${millimetres(WIDE_M)}`;
    return {
      value,
      limit: WIDE_M,
      severity: gradeMin(value, 0.02, WIDE_M),
      do: value < WIDE_M ? say`${says}, with a valve to each.` : 'Nothing.',
      ...cureBy(value < WIDE_M, { work: tank.id, set: { joinPipeM: WIDE_M }, says }),
    };
  },
}; // prettier-ignore

const overflows: Rule<TankFacts> = {
  id: 'tank.join-overflow',
  title: 'Its overflow over that of the vessel beside it',
  why: 'Joined vessels fill no higher than the lower overflow of the two: all above is paid for and never filled.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'geometry', locator: 'water stands as high in both' },
  applies: ({ ground }) => ground.beside !== undefined,
  find: ({ tank, ground }) => {
    if (!ground.beside) return null;
    const floorM = floorOf(tank, ground);
    const { overflowM } = tank.dimensions;
    const { name, fullM: full } = ground.beside;
    const value = floorM + overflowM - full;
    const lost = Math.max(0, holdsM3(tank, overflowM) - holdsM3(tank, Math.max(0, full - floorM)));
    return {
      value,
      limit: 0.05,
      severity: gradeMax(value, 0.05, 0.3),
      do: value > 0.05 ? say`${amount(lost, 'liquid')} of it are never filled: set both on one level, or raise the overflow of ${name}.` : 'Nothing.',
    };
  },
}; // prettier-ignore

export const JOIN_RULES: readonly Rule<TankFacts>[] = [pipe, overflows];
