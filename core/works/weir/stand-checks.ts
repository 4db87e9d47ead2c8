// Whether a weir stands: turned over, pushed along, pressing too hard, dug out or seeped under.
import { NEEDS_STORM, type Finding, type Rule } from '../../contract/index.ts';
import type { Citation } from '../../formula/index.ts';
import { type Said, amount, say } from '../../units/index.ts';
import { CREEP, FOOTINGS, FOOTING_SOURCE, type Stability, baseFor, footingOf, stabilityOf } from '../gravity/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, upToMm } from '../rules.ts';
import { type WeirFacts, loadOf, scourOf } from './standing.ts';

const STATICS: Citation = {
  key: 'statics',
  locator: 'weight against water over its crest, silt to its notch and the lift under it',
  fromMemory: true,
};

/** What is said where nobody has looked at what it stands on. */
const UNSEEN: Finding = {
  value: null,
  limit: null,
  severity: 'unknown',
  do: 'Dig a pit beside it down to its base and say what it stands on.',
};
const NO_FALL: Finding = {
  value: null,
  limit: null,
  severity: 'unknown',
  do: 'Bring in the terrain below it: without it nobody knows how deep water stands at its foot.',
};

type Judged = { readonly now: Stability; readonly with: (baseM: number) => Stability };

/** How it stands at the peak, and how it would on another base; a finding where that cannot be told. */
function standsBy(facts: WeirFacts): Judged | Finding | null {
  const { standing, peak, falls } = facts;
  if (!peak || standing.heightM <= 0) return null;
  if (falls && falls.tailM === null) return NO_FALL;
  const load = loadOf(standing, { headM: peak.headM, tailM: falls?.tailM ?? DRY_M });
  if (!load) return UNSEEN;
  return { now: stabilityOf(load), with: (baseM) => stabilityOf({ ...load, body: { ...load.body, baseM } }) };
}
/** Nothing falls, nothing stands below. */
const DRY_M = 0;

/** What is asked against turning over and against sliding: less is not safe. */
const [SAFE_TURNED, SAFE_SLID] = [2, 1.5];

/** The least base on which it stands in every way, not only in the one that is asked about: what mends one must not leave another. */
function wideEnough(found: Judged, { standing: { work } }: WeirFacts): Widened | null {
  const bearsKpa = footingOf(work)?.bearsKpa;
  if (bearsKpa === undefined) return null;
  const base = baseFor(work.dimensions.baseWidthM, (m) => {
    const s = found.with(m);
    return s.overturning >= SAFE_TURNED && s.sliding >= SAFE_SLID && s.eccentricityM <= s.sixthM && s.pressureKpa <= bearsKpa;
  });
  if (base === null) return null;
  const says = say`Make its base ${amount(base, 'length')} wide`;
  return { says, ...cureBy(true, { work: work.id, set: { 'dimensions.baseWidthM': base }, says }) };
}
type Widened = { readonly says: Said } & Pick<Finding, 'cure'>;

/** What is said and offered where it does not stand: a wider base, or that none will do. */
function mendBy(found: Judged, facts: WeirFacts, also: string): Pick<Finding, 'do' | 'cure'> {
  const wide = wideEnough(found, facts);
  if (!wide) return { do: hopeless(facts) };
  const { says, ...cure } = wide;
  return { do: say`${says}, on which it stands in every way${also}.`, ...cure };
}

/** What is said where no width of base will do. */
const hopeless = ({ standing: { work } }: WeirFacts): string =>
  work.base === 'bare'
    ? 'No width of base makes it safe while the water under it lifts it so: lay a filter and drain there, or lower it.'
    : 'No base makes this one safe: lower it, or have it designed.';

const isFinding = (found: Judged | Finding | null): found is Finding | null => found === null || 'severity' in found;

interface Safety {
  readonly id: string;
  readonly title: string;
  readonly why: string;
  readonly valueOf: (s: Stability) => number;
  readonly limit: number;
  readonly mendBelow: number;
  readonly locator: string;
}

/** A safety that a wider base brings. */
const safetyRule = ({ id, title, why, valueOf, limit, mendBelow, locator }: Safety): Rule<WeirFacts> => ({
  id,
  title,
  why,
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...STATICS, locator },
  needs: NEEDS_STORM,
  find: (facts) => {
    const found = standsBy(facts);
    if (isFinding(found)) return found;
    const value = valueOf(found.now);
    return {
      value,
      limit,
      severity: gradeMin(value, mendBelow, limit),
      ...(value >= limit ? { do: 'Nothing.' } : mendBy(found, facts, '; or lay a filter and drain under it')),
    };
  },
});

const overturning = safetyRule({
  id: 'weir.overturning',
  title: 'Safety against overturning',
  why: 'Water, silt and the lift under it tip it about its foot; only its weight holds it back.',
  valueOf: (s) => s.overturning,
  limit: SAFE_TURNED,
  mendBelow: 1.5,
  locator: '2 is usual, 1.5 the least',
});

const sliding = safetyRule({
  id: 'weir.sliding',
  title: 'Safety against sliding',
  why: 'A wall that is lifted by the water under it has little left to hold on with.',
  valueOf: (s) => s.sliding,
  limit: SAFE_SLID,
  mendBelow: 1.2,
  locator: '1.5; what stands before its foot left out',
});

const bearing: Rule<WeirFacts> = {
  id: 'weir.bearing',
  title: 'Greatest pressure under its base, in kPa',
  why: 'Where its toe presses harder than the ground bears, it leans into the hole that water digs there.',
  unit: 'kPa',
  kind: 'number',
  sense: 'max',
  source: FOOTING_SOURCE,
  needs: NEEDS_STORM,
  find: (facts) => {
    const found = standsBy(facts);
    if (isFinding(found)) return found;
    const footing = footingOf(facts.standing.work);
    if (!footing) return UNSEEN;
    const limit = footing.bearsKpa;
    const value = found.now.pressureKpa;
    // It tips: there is no pressure to tell.
    const tips = !Number.isFinite(value);
    const mend = (): Pick<Finding, 'do' | 'cure'> => {
      const mended = mendBy(found, facts, '');
      return tips ? { ...mended, do: say`It tips about its foot, which nothing bears. ${mended.do}` } : mended;
    };
    return {
      value: tips ? null : value,
      limit,
      severity: gradeMax(value, limit, 1.25 * limit),
      ...(value <= limit ? { do: 'Nothing.' } : mend()),
    };
  },
};

const middleThird: Rule<WeirFacts> = {
  id: 'weir.middle-third',
  title: 'How far from the middle of its base it presses',
  why: 'Past the middle third its heel lifts off, and water finds a way under it.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: STATICS,
  needs: NEEDS_STORM,
  find: (facts) => {
    const found = standsBy(facts);
    if (isFinding(found)) return found;
    const { eccentricityM: value, sixthM: limit } = found.now;
    return {
      value: Number.isFinite(value) ? value : null,
      limit,
      severity: gradeMax(value, limit, 2 * limit),
      ...(value > limit ? mendBy(found, facts, '; or drain what is under it') : { do: 'Nothing.' }),
    };
  },
};

const scour: Rule<WeirFacts> = {
  id: 'weir.foundation',
  title: 'Depth of its base under the bed',
  why: 'Falling water digs; laws of how deep differ by a factor of two, so it is founded below the greater.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: {
    key: 'schoklitsch-1932',
    locator: 'and Veronese 1937; 0.5 m, or half its height of masonry, where an apron takes the fall',
    fromMemory: true,
  },
  needs: NEEDS_STORM,
  find: (facts) => {
    const { standing, peak, falls } = facts;
    const { work, dropM } = standing;
    if (!peak) return null;
    const value = work.dimensions.foundationM;
    const isCovered = !falls || work.dimensions.apronM >= falls.landsM;
    const footing = footingOf(work);
    if (!footing) return UNSEEN;
    if (!isCovered && falls.tailM === null) return NO_FALL;
    const dug = isCovered ? null : scourOf(standing, { ...falls, headM: peak.headM });
    const least = footing.d90Mm === null ? LEAST_ON_ROCK_M : Math.max(LEAST_DEEP_M, work.form === 'masonry' ? dropM / 2 : LEAST_DEEP_M);
    const limit = Math.max(least, dug?.[1] ?? least);
    const to = upToMm(limit);
    const says = say`Found it ${amount(to, 'length')} under the bed`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do:
        value >= limit
          ? 'Nothing.'
          : dug
            ? say`${says}: water digs ${amount(dug[0], 'length')} to ${amount(dug[1], 'length')} by two laws. Or lay an apron ${amount(upToMm(falls?.landsM ?? DRY_M), 'length')} long under the fall.`
            : say`${says}.`,
      ...cureBy(value < limit, { work: work.id, set: { 'dimensions.foundationM': to }, says }),
    };
  },
};
/** Base under the bed at the least; let into rock [m]: common practice. */
const [LEAST_DEEP_M, LEAST_ON_ROCK_M] = [0.5, 0.1];

const cutoff: Rule<WeirFacts> = {
  id: 'weir.cutoff',
  title: 'Cut-off at the lower end of its apron',
  why: 'Past the apron the bed is dug out, and the hole works back under it.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'half a metre, or half of what a free fall would dig' },
  needs: NEEDS_STORM,
  applies: ({ standing }) => standing.work.dimensions.apronM > 0,
  find: (facts) => {
    const { standing, peak, falls } = facts;
    if (!peak || !falls) return null;
    const footing = footingOf(standing.work);
    if (!footing) return UNSEEN;
    if (footing.d90Mm === null) return null;
    const dug = scourOf(standing, { ...falls, headM: peak.headM });
    if (!dug) return NO_FALL;
    const limit = Math.max(LEAST_DEEP_M, dug[1] / 2);
    const value = standing.work.dimensions.cutoffM;
    const says = say`Set its lower end ${amount(upToMm(limit), 'length')} deep`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.5 * limit, limit),
      do: value < limit ? say`${says}, of large stone.` : 'Nothing.',
      ...cureBy(value < limit, { work: standing.work.id, set: { 'dimensions.cutoffM': upToMm(limit) }, says }),
    };
  },
};

const piping: Rule<WeirFacts> = {
  id: 'weir.piping',
  title: 'Way of seepage under it for each metre of head',
  why: 'Water that finds a short way under a wall carries grains with it, until the way is a hole.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { key: 'lane-1935', locator: 'weighed creep: 7 in fine sand, 3.5 in gravel, 3 to 1.8 in clay', fromMemory: true },
  find: ({ standing }) => {
    const { work, dropM } = standing;
    if (work.ground === 'unknown') return UNSEEN;
    const limit = FOOTINGS[work.ground].creep;
    if (limit === 0 || dropM <= 0) return null;
    const { foundationM: f, baseWidthM: B, apronM } = work.dimensions;
    // Baskets let water in all along their base, and loose stone is no tight apron.
    const a = work.form === 'masonry' ? apronM : LOOSE_M;
    const value = CREEP.evaluate({ f, c: 0, B, a }) / dropM;
    const deep = upToMm(f + ((limit - value) * dropM) / 2);
    const says = say`Set its base ${amount(deep, 'length')} under the bed`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? say`${says}, or drive a cut-off as deep under its upper foot.` : 'Nothing.',
      ...cureBy(value < limit && deep <= DEEPEST_M, { work: work.id, set: { 'dimensions.foundationM': deep }, says }),
    };
  },
};
const LOOSE_M = 0;
/** As deep as its form lets a foundation be [m]. */
const DEEPEST_M = 5;

export const STAND_RULES: readonly Rule<WeirFacts>[] = [overturning, sliding, middleThird, bearing, scour, cutoff, piping];
