// Rules on what joins a drain from above, and on the pipe in the street that takes it.
import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMin, millimetres } from '../rules.ts';
import { worstOf } from '../series.ts';
import { STREET_LEFT } from './formulas.ts';
import { type PipedDrain, spoutsAt } from './model.ts';
import { type DrainFacts, pipeId } from './standing.ts';

const hasSpouts = ({ work }: DrainFacts): boolean => work.basins.some((b) => spoutsAt(b) > 0);

/** Depth under the pipe in which what a roof sends stays [m]: common practice. */
const SUMP_M = 0.15;

const debris: Rule<DrainFacts> = {
  id: 'piped-drain.spouts',
  title: 'Room for leaves where downspouts join',
  why: 'A roof sends leaves and grit: they stay in a sump that can be reached, or in the pipe where nobody can.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'a sump of 150 mm, or a screen at the gutter’s outlet' },
  applies: hasSpouts,
  find: ({ work }) => {
    const joined = work.basins.flatMap((b, k) => (spoutsAt(b) > 0 ? [{ ...b, k }] : []));
    const { one: worst } = worstOf(joined, (b) => b.sumpM, 'least');
    const isShort = worst.sumpM < SUMP_M;
    const says = say`Give the joint a sump of ${millimetres(SUMP_M)}`;
    const set = Object.fromEntries(joined.filter((b) => b.sumpM < SUMP_M).map((b) => [`basins.${b.k}.sumpM`, SUMP_M]));
    return {
      value: worst.sumpM,
      limit: SUMP_M,
      at: pointAlong(work.line, worst.atM).point,
      severity: gradeMin(worst.sumpM, -Infinity, SUMP_M),
      do: isShort ? say`${says}, or screen the gutter’s outlet and clear it each autumn.` : 'Nothing.',
      ...cureBy(isShort, { work: work.id, set, says }),
    };
  },
};

/** Every joint with a downspout has a roof, and the street has room for all. */
const [ALL_LED, NONE_LEFT] = [0, 0];

const led: Rule<DrainFacts> = {
  id: 'piped-drain.roof-led',
  title: 'Joints with a downspout that no roof is led to',
  why: 'A roof is the quickest water of a yard; a drain judged without it is judged dry.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'what comes to a pipe is counted before it is sized' },
  applies: hasSpouts,
  find: ({ work, ground, ledTo = [] }) => {
    const without = work.basins.flatMap((b, k) => (spoutsAt(b) > 0 && !ledTo.includes(pipeId(work, ground, k)) ? [{ ...b, k }] : []));
    if (without.length === 0) return { value: ALL_LED, limit: ALL_LED, severity: 'fine', do: 'Nothing.' };
    const [first] = without;
    return {
      value: null,
      limit: ALL_LED,
      at: pointAlong(work.line, first.atM).point,
      severity: 'unknown',
      do: say`Draw the roof and say that its water leads to pipe ${String(first.k + 1)}: what it brings is not counted yet.`,
    };
  },
};

/** Roughness taken of a pipe nobody has looked into: concrete in use (handbook 4.1; from memory). */
const STREET_N = 0.013;

/** What the street can still take [m3/s]: as was allowed, else what its pipe has left, the less where both are known; null where neither is. */
export function streetLeft(
  { mayGiveM3s, streetPipeM: D, streetFall: S, streetOwnM3s: q }: PipedDrain,
  use = STREET_LEFT.evaluate,
): number | null {
  const isKnown = D !== undefined && S !== undefined && q !== undefined;
  const known = [...(mayGiveM3s === undefined ? [] : [mayGiveM3s]), ...(isKnown ? [use({ D, S, n: STREET_N, q })] : [])];
  return known.length > 0 ? Math.min(...known) : null;
}

const unknownOf = ({ streetPipeM, streetFall, streetOwnM3s }: PipedDrain): string[] => [
  ...(streetPipeM === undefined ? ['how wide its pipe is'] : []),
  ...(streetFall === undefined ? ['how it falls'] : []),
  ...(streetOwnM3s === undefined ? ['what runs in it already'] : []),
];

const street: Rule<DrainFacts> = {
  id: 'piped-drain.street',
  title: 'Left of what the street can take at its peak',
  why: 'A street’s drain that is full gives back what it is given, through the lowest grate that hangs on it.',
  unit: 'm³/s',
  kind: 'flow',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'what was allowed, else what its pipe has left; verify locally' },
  needs: NEEDS_STORM,
  applies: ({ work, ground }) => ground.taker === null && work.ends === 'street',
  find: ({ work, ground, conduits }) => {
    const left = streetLeft(work);
    if (left === null) {
      const advice = `Ask whoever owns the street’s drain how much it may be given, or ${unknownOf(work).join(', ')}.`;
      return { value: null, limit: NONE_LEFT, severity: 'unknown', do: advice };
    }
    const last = conduits?.find((c) => c.id === pipeId(work, ground, work.basins.length - 1));
    if (!last) return null;
    const value = left - last.peakM3s;
    return {
      value,
      limit: NONE_LEFT,
      severity: value < 0 ? 'mend' : 'fine',
      do:
        value < 0
          ? say`${amount(-value, 'flow')} too much: hold some of it back in a store, let some soak away, or lead it elsewhere.`
          : 'Nothing.',
    };
  },
};

export const JOINING_RULES: readonly Rule<DrainFacts>[] = [debris, led, street];
