// Rules on a channel as it is: what it carries, whether its bed and banks stand that, and how well it is known.
import { type Finding, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { bedAt } from '../bed.ts';
import { COMMON_PRACTICE, gradeMax, gradeMin, metres, millimetres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { whichOf, worstOf } from '../series.ts';
import { BED_STANDS_MS, roughnessOf } from './model.ts';
import { CONVEYANCE } from './formulas.ts';
import { type AtSection, type Cut, type ReachFacts, type Stretch, atPeak, peaksOf } from './standing.ts';

const placeOf = ({ standing }: ReachFacts, { section }: Cut): Point => pointAlong(standing.reach.line, section.atM).point;
const sectionName = ({ standing }: ReachFacts, k: number): string => whichOf('section', k, standing.cuts);
/** Of one stretch: its lower section tells where. */
const stretchAt = (facts: ReachFacts, { lower }: Stretch): Point => placeOf(facts, lower);
const stretchName = ({ standing }: ReachFacts, k: number): string => whichOf('stretch', k, standing.stretches);

/** A finding on the section that is worst in something at the peak; null where no storm tells. */
function ofSections(
  facts: ReachFacts,
  of: { readonly valueOf: (at: AtSection) => number; readonly sense: 'most' | 'least' },
  find: (worst: { readonly value: number; readonly at: AtSection; readonly where: string }) => Omit<Finding, 'value' | 'at'>,
): Finding | null {
  if (roughnessOf(facts.standing.reach) === null && peaksOf(facts))
    return { value: null, limit: null, severity: 'unknown', do: 'Say what it looks like: how fast water runs in it hangs on that.' };
  const all = atPeak(facts);
  if (!all) return null;
  const { one, k, value } = worstOf(all, of.valueOf, of.sense);
  return { value, at: placeOf(facts, one.cut), ...find({ value, at: one, where: sectionName(facts, k) }) };
}

/** Left under the lower bank [m]: common practice for ditches. */
const LEFT_M = 0.15;

const carries: Rule<ReachFacts> = {
  id: 'reach.carries',
  title: 'Bank left over the water at the peak',
  why: 'Where a channel is full water leaves it for good, and cuts a new one through what lies beside it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '150 mm under the lower bank, by standard step (Chow 1959, section 10-4)' },
  needs: NEEDS_STORM,
  find: (facts) =>
    ofSections(facts, { valueOf: ({ leftM }) => leftM, sense: 'least' }, ({ value, where }) => ({
      limit: LEFT_M,
      severity: gradeMin(value, 0, LEFT_M),
      do:
        value < LEFT_M
          ? say`${millimetres(LEFT_M - value)} short${where}: hold more of it further up, or clear and widen it there and all the way below.`
          : 'Nothing.',
    })),
};

const bedStands: Rule<ReachFacts> = {
  id: 'reach.bed',
  title: 'Speed over its bed at the peak',
  why: 'A bed that washes falls under its banks, and they follow it: so gullies grow.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'chow1959', locator: 'Table 7-3 (Fortier and Scobey 1926), clear water; Table 7-6 for grass', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ standing }) => standing.reach.bedIs !== 'rock',
  find: (facts) => {
    const { bedIs } = facts.standing.reach;
    return ofSections(facts, { valueOf: ({ velocityMs }) => velocityMs, sense: 'most' }, ({ value, where }) => {
      if (bedIs === 'unknown') return { limit: null, severity: 'unknown', do: 'Look what its bed is of, and say so.' };
      const limit = BED_STANDS_MS[bedIs];
      return {
        limit,
        severity: gradeMax(value, limit, 1.5 * limit),
        do: value > limit ? say`Slow it there${where}: check dams, stone on the bed, or less water from above.` : 'Nothing.',
      };
    });
  },
};

/** A ditch this slow at its peak never clears itself [m/s]: common practice. */
const SILTS_MS = 0.6;

const silts: Rule<ReachFacts> = {
  id: 'reach.silts',
  title: 'Speed that keeps a ditch clear',
  why: 'A ditch that never runs fast drops what it carries, grows in, and is full the year it is needed.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.6 to 0.9 m/s keeps silt moving' },
  needs: NEEDS_STORM,
  applies: ({ standing }) => standing.reach.runs === 'ditch',
  find: (facts) =>
    ofSections(facts, { valueOf: ({ velocityMs }) => velocityMs, sense: 'least' }, ({ value, where }) => ({
      limit: SILTS_MS,
      severity: value < SILTS_MS ? 'weigh' : 'fine',
      do: value < SILTS_MS ? say`It will silt up${where}: count on clearing it each few years, or narrow its bed.` : 'Nothing.',
    })),
};

/** So near to critical the depth swings [-]: Chow 1959; handbook 4.1 for lined channels. */
const OFF_CRITICAL = 0.2;

const steady: Rule<ReachFacts> = {
  id: 'reach.steady',
  title: 'Froude number, off one by',
  why: 'Near critical depth a small change makes the water stand in waves as high as itself: the bank it seems to have left is not there.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'chow1959', locator: 'section 4-2: depth is unsteady near the critical', fromMemory: true },
  needs: NEEDS_STORM,
  applies: (facts) => atPeak(facts)?.every(({ peakM3s }) => peakM3s > 0) !== false,
  find: (facts) =>
    ofSections(facts, { valueOf: ({ froude }) => Math.abs(froude - 1), sense: 'least' }, ({ value, at, where }) => ({
      limit: OFF_CRITICAL,
      severity: value < OFF_CRITICAL && at.leftM < at.depthM / 2 ? 'weigh' : 'fine',
      do: value < OFF_CRITICAL && at.leftM < at.depthM / 2 ? say`Keep half its depth more of bank${where}: ${metres(at.depthM / 2)}.` : 'Nothing.',
    })),
}; // prettier-ignore

const rises: Rule<ReachFacts> = {
  id: 'reach.rises',
  title: 'Bed that rises on its way down',
  why: 'Behind a hump water stands after every rain; and where it was only misread, all that is told below it is wrong.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'geometry' },
  find: (facts) => {
    const worst = worstOf(facts.standing.stretches, ({ upper, lower }) => lower.section.bedM - upper.section.bedM, 'most');
    const value = Math.max(0, worst.value);
    const [weighM, mendM] = facts.standing.reach.runs === 'creek' ? [0.3, 1] : [0.05, 0.3];
    return {
      value,
      limit: weighM,
      at: stretchAt(facts, worst.one),
      severity: gradeMax(value, weighM, mendM),
      do: value > weighM ? say`It rises by ${millimetres(value)}${stretchName(facts, worst.k)}: read both ends again; if it does, dig the hump off.` : 'Nothing.',
    };
  },
}; // prettier-ignore

const drops: Rule<ReachFacts> = {
  id: 'reach.drops',
  title: 'Step in its bed',
  why: 'A step that is not of rock is the head of a gully and eats its way uphill: it is looked at by itself.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a drop of half a metre, steeper than one in three' },
  applies: ({ standing }) => standing.reach.bedIs !== 'rock',
  find: (facts) => {
    const drop = ({ slope, lengthM }: Stretch): number => (slope > STEP_SLOPE ? slope * lengthM : 0);
    const worst = worstOf(facts.standing.stretches, drop, 'most');
    return {
      value: worst.value,
      limit: STEP_M,
      at: stretchAt(facts, worst.one),
      severity: worst.value > STEP_M ? 'weigh' : 'fine',
      do: worst.value > STEP_M ? say`It falls ${metres(worst.value)} there${stretchName(facts, worst.k)}: draw the gully’s head as a work of its own.` : 'Nothing.',
    };
  },
}; // prettier-ignore
const [STEP_SLOPE, STEP_M] = [1 / 3, 0.5];

/** From here on banks as upright as that slide [m]: common practice. */
const [BANK_WEIGH_M, BANK_MEND_M] = [1.5, 3];

const banks: Rule<ReachFacts> = {
  id: 'reach.banks',
  title: 'Highest bank steeper than one to one',
  why: 'High steep banks slide in when they are wet or undercut, onto whoever stands below, and block the channel.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'banks over 1.5 m steeper than 1 to 1 slide; over 3 m they are for an engineer' },
  applies: ({ standing }) => standing.reach.bedIs !== 'rock',
  find: (facts) => {
    const steep = ({ section: s }: Cut): number =>
      Math.max(s.leftOutM < s.leftHighM ? s.leftHighM : 0, s.rightOutM < s.rightHighM ? s.rightHighM : 0);
    const worst = worstOf(facts.standing.cuts, steep, 'most');
    return {
      value: worst.value,
      limit: BANK_WEIGH_M,
      at: placeOf(facts, worst.one),
      severity: gradeMax(worst.value, BANK_WEIGH_M, BANK_MEND_M),
      do:
        worst.value > BANK_WEIGH_M
          ? say`Keep people and stock off its edge${sectionName(facts, worst.k)}; lay it back to one to one and plant it, or raise the bed with dams.`
          : 'Nothing.',
    };
  },
};

const measured = saidRule<ReachFacts>(
  {
    id: 'reach.measured',
    title: 'Measured on the ground',
    why: 'A channel is narrower than a cell of most terrain: what it carries is known by tape and level alone.',
    source: COMMON_PRACTICE,
  },
  ({ standing }) =>
    standing.reach.known === 'levelled'
      ? FINE
      : standing.reach.known === 'taped'
        ? { severity: 'weigh', do: 'Level its bed at each section: its fall, and with it what it carries, is the terrain’s.' }
        : { severity: 'unknown', do: 'Tape each section across and level its bed: all of it is read off the terrain.' },
);

/** So much is what tape and cells differ by; more is another datum or a slip [m]. */
const [DATUM_WEIGH_M, DATUM_MEND_M] = [0.5, 2];

const datum: Rule<ReachFacts> = {
  id: 'reach.datum',
  title: 'Its bed against the terrain’s',
  why: 'Levels of another bench mark put the channel into the air or under the ground, and every work in it too.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const { standing } = facts;
    const { clearM } = standing.reach;
    const off = ({ section }: Cut): number => Math.abs(section.bedM + (clearM === undefined ? 0 : clearM) - bedAt(standing.ground, section.atM));
    const worst = worstOf(standing.cuts, off, 'most');
    return {
      value: worst.value,
      limit: DATUM_WEIGH_M,
      at: placeOf(facts, worst.one),
      severity: gradeMax(worst.value, DATUM_WEIGH_M, DATUM_MEND_M),
      do:
        worst.value > DATUM_WEIGH_M
          ? say`They are ${metres(worst.value)} apart${sectionName(facts, worst.k)}: read a point of both again, and put them on one bench mark.`
          : 'Nothing.',
    };
  },
}; // prettier-ignore

/** One section carries so many times what its neighbour does at the most, at one slope: common practice of water line reckoning. */
const ALIKE = 1.4;

const alike: Rule<ReachFacts> = {
  id: 'reach.alike',
  title: 'Neighbouring sections, how unlike',
  why: 'Between sections the channel is taken to change evenly: where it changes fast one more tells where.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'conveyance changes by less than 0.7 to 1.4 from section to section' },
  find: (facts) => {
    const { stretches } = facts.standing;
    const unlike = ({ upper, lower, n }: Stretch): number => {
      const y = Math.min(upper.bankM, lower.bankM);
      const K = ({ section: s }: Cut): number => CONVEYANCE.evaluate({ b: s.bedWidthM, zl: s.leftOutM / s.leftHighM, zr: s.rightOutM / s.rightHighM, y, n });
      const ratio = K(upper) / K(lower);
      return Math.max(ratio, 1 / ratio);
    };
    const worst = worstOf(stretches, unlike, 'most');
    return {
      value: worst.value,
      limit: ALIKE,
      at: stretchAt(facts, worst.one),
      severity: worst.value > ALIKE ? 'weigh' : 'fine',
      do: worst.value > ALIKE ? say`Measure one more section between them${stretchName(facts, worst.k)}.` : 'Nothing.',
    };
  },
}; // prettier-ignore

/** Less land than this is none [m2]. */
const SOME_LAND_M2 = 200;

const fed: Rule<ReachFacts> = {
  id: 'reach.fed',
  title: 'Land that drains to its first stretch',
  why: 'A line beside the bed of the map meets none of its water: then it is told to carry all of nothing.',
  unit: 'm²',
  kind: 'area',
  sense: 'min',
  source: { key: 'geometry' },
  find: (facts) => {
    const { catchment } = facts;
    if (!catchment) return null;
    const value = catchment.areaM2;
    return {
      value,
      limit: SOME_LAND_M2,
      severity: value < SOME_LAND_M2 ? 'weigh' : 'fine',
      do: value < SOME_LAND_M2 ? say`Only ${amount(value, 'area')} does: see under Land where the water of the map runs, and lay the line there.` : 'Nothing.',
    };
  },
}; // prettier-ignore

const permission = saidRule<ReachFacts>(
  {
    id: 'reach.permission',
    title: 'Digging in a creek',
    why: 'What lives in a creek lives in its silt and weed; and those below drink it. Most places ask for a permission.',
    source: { ...COMMON_PRACTICE, locator: 'local codes first' },
    applies: ({ standing }) => standing.reach.runs === 'creek' && standing.reach.clearM !== undefined,
  },
  () => ({ severity: 'weigh', do: 'Ask who watches over waters there before anything is dug; clear one side, and not while fish spawn.' }),
);

export const REACH_RULES: readonly Rule<ReachFacts>[] = [
  carries,
  bedStands,
  silts,
  steady,
  rises,
  drops,
  banks,
  measured,
  datum,
  alike,
  fed,
  permission,
];
