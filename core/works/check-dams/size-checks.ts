// Keys, apron and crest of check dams, and the state they were found in.
import type { Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, metres } from '../rules.ts';
import { siltedShare, worstOf } from '../series.ts';
import { leastRule } from '../size-rule.ts';
import { pointAlong } from '../../geometry/index.ts';
import { fallBetween, placeIn } from '../bed.ts';
import type { Standing } from './store.ts';
import { type DamsFacts, at, of } from './facts.ts';
import { FORMS, WOOD_FLOATS, floating } from './forms.ts';
import { lostShare } from './model.ts';

const workOf = ({ work }: DamsFacts): DamsFacts['work'] => work;

const highest = ({ dams }: DamsFacts): number => dams.reduce((a, { dam }) => Math.max(a, dam.heightM), 0);
const steepest = ({ bed, dams }: DamsFacts): number =>
  dams.reduce((a, { dam }) => Math.max(a, fallBetween(bed, [Math.max(0, dam.atM - 10), dam.atM])), 0);

const sideKey = leastRule<DamsFacts>(
  {
    id: 'check-dams.side-key',
    title: 'Key into each bank',
    why: 'Water works round the end of a dam that only leans on its banks.',
    source: { key: 'heede-1976', locator: 'keys 0.6 m into the bank, 1.2 m where it washes easily', fromMemory: true },
  },
  { path: 'dimensions.sideKeyM', workOf, limitFor: () => 0.6, says: (m) => say`Dig it ${metres(m)} into both banks`, mendUnder: 0.5 },
);

const bedKey = leastRule<DamsFacts>(
  {
    id: 'check-dams.bed-key',
    title: 'Key into the bed',
    why: 'A dam set on the bed is undermined by the first water that seeps under it.',
    source: { key: 'heede-1976', locator: 'keys 0.3 to 0.6 m into the bed', fromMemory: true },
  },
  { path: 'dimensions.bedKeyM', workOf, limitFor: () => 0.3, says: (m) => say`Dig it ${metres(m)} into the bed`, mendUnder: 0.5 },
);

const apron = leastRule<DamsFacts>(
  {
    id: 'check-dams.apron',
    title: 'Apron where the water falls',
    why: 'The fall over the notch digs a hole that works back under the dam: most dams that fail go this way.',
    source: { key: 'heede-1976', locator: 'apron 1.5 heights long, 1.75 where the bed is steeper than 15 %', fromMemory: true },
  },
  {
    path: 'dimensions.apronM',
    workOf,
    limitFor: (facts) => (steepest(facts) > 0.15 ? 1.75 : 1.5) * highest(facts),
    says: (m) => say`Lay an apron ${metres(m)} long`,
    mendUnder: 0.5,
  },
);

const crest: Rule<DamsFacts> = leastRule<DamsFacts>(
  {
    id: 'check-dams.crest-width',
    title: 'Width of the crest along the flow',
    why: 'A sharp crest of loose stone loses its top stones in the first flood.',
    source: { ...COMMON_PRACTICE, locator: '0.5 to 0.7 m of loose stone; a bag is as wide as it is' },
    applies: ({ work }) => work.form !== 'log',
  },
  {
    path: 'dimensions.crestWidthM',
    workOf,
    limitFor: ({ work }) => (work.form === 'rock' ? 0.5 : 0.1),
    says: (m) => say`Make its crest ${metres(m)} wide`,
    mendUnder: 0.6,
  },
);

/** Held down well enough at four fifths of what it holds. */
const MOST_LIFT = 0.8;

/** What must hold a metre of it, in whole kilograms. */
function heldFor(wood: { readonly A: number; readonly w: number }): number {
  const weighs = wood.w * wood.A;
  return Math.ceil((WOOD_FLOATS.evaluate({ ...wood, p: 0 }) * weighs) / MOST_LIFT - weighs - 1e-9);
}

const floats: Rule<DamsFacts> = {
  id: 'check-dams.floats',
  title: 'Lift of the water on its wood, against what holds it down',
  why: 'Wood under water floats: the first flood over a dam of it that is not held takes it along, and the next below with it.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'statics', locator: 'Archimedes, held with a quarter to spare' },
  applies: ({ work }) => floating(work) !== null,
  find: ({ work }) => {
    const wood = floating(work);
    if (!wood) return null;
    const { heldKgM: p } = work.dimensions;
    const to = heldFor(wood);
    const says = say`Hold ${work.form === 'log' ? 'each log' : 'it'} down with ${amount(to, 'hold')}`;
    const cure = { work: work.id, set: { 'dimensions.heldKgM': to }, says };
    if (p === undefined)
      return {
        value: null,
        limit: MOST_LIFT,
        severity: 'unknown',
        do: say`${says}, or say what stakes, posts and wire hold.`,
        ...cureBy(true, cure),
      };
    const value = WOOD_FLOATS.evaluate({ ...wood, p });
    return {
      value,
      limit: MOST_LIFT,
      severity: gradeMax(value, MOST_LIFT, 1),
      do: value > MOST_LIFT ? say`${says}: more stakes or posts, driven deeper, and wire over it.` : 'Nothing.',
      ...cureBy(value > MOST_LIFT, cure),
    };
  },
};

const measured: Rule<DamsFacts> = {
  id: 'check-dams.measured',
  title: 'Channels measured on the ground',
  why: 'A gully is narrower than a cell of most terrain: width and depth decide stone, notch and room.',
  unit: '',
  kind: 'count',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ dams }) => {
    const value = dams.filter(({ dam }) => dam.isMeasured === true).length;
    return {
      value,
      limit: dams.length,
      severity: value < dams.length ? 'unknown' : 'fine',
      do:
        value < dams.length
          ? 'Measure bed, banks and depth at each peg and paste them on its sheet: the others are read from the terrain.'
          : 'Nothing.',
    };
  },
};

const condition: Rule<DamsFacts> = {
  id: 'check-dams.condition',
  title: 'Dams that have lost height',
  why: 'One that is broken sends its silt and the flood to the next, which goes too.',
  unit: '%',
  kind: 'percent',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'looked at after each flood, what is gone laid back from below' },
  find: (facts) => {
    const worst = worstOf(facts.dams, ({ dam }) => 100 * lostShare(dam), 'most');
    return {
      value: worst.value,
      limit: 5,
      at: at(facts, worst),
      severity: gradeMax(worst.value, 5, 25),
      do: worst.value > 5 ? `${FORMS[facts.work.form].mends}, before the next rain${of(worst.k, facts)}.` : 'Nothing.',
    };
  },
};

const full: Rule<DamsFacts> = {
  id: 'check-dams.silted',
  title: 'Room taken by silt',
  why: 'A full dam holds no water but its silt: that is what it is for. It is raised, or another is built on the silt above it.',
  unit: '%',
  kind: 'percent',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const worst = worstOf(facts.dams, ({ dam }) => 100 * siltedShare(dam), 'most');
    return {
      value: worst.value,
      limit: 80,
      at: at(facts, worst),
      severity: worst.value > 80 ? 'weigh' : 'fine',
      do: worst.value > 80 ? `Plant the silt, then raise it by a step or build the next on its silt${of(worst.k, facts)}.` : 'Nothing.',
    };
  },
};

const stoneNear: Rule<DamsFacts> = {
  id: 'check-dams.stone-near',
  title: 'Stone lying near, against what they take',
  why: 'Stone prised from the slope or the bed takes away what holds them: only what lies loose is used.',
  unit: '',
  kind: 'percent',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: ({ work }) => work.form === 'rock' && work.dams.every((dam) => dam.rockNearM3 !== undefined),
  find: (facts) => {
    const near = facts.work.dams.reduce((a, dam) => a + (dam.rockNearM3 ?? NaN), 0);
    const needs = facts.dams.reduce((a, one) => a + facts.needsM3(one), 0);
    if (facts.work.form !== 'rock' || Number.isNaN(near) || needs <= 0) return null;
    const value = (100 * near) / needs;
    return {
      value,
      limit: 100,
      severity: gradeMin(value, 50, 100),
      do:
        value < 100
          ? say`${amount(needs - near, 'volume')} must be carried in: fewer or lower dams, or another way. Never prise stone from the slope.`
          : 'Nothing: take none that holds the slope.',
    };
  },
};

const inReach: Rule<DamsFacts> = {
  id: 'check-dams.in-reach',
  title: 'Dams outside the channel they are told to stand in',
  why: 'Beside the measured channel, or past its ends, their bed is the map’s again, and water of the channel passes them by.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { key: 'geometry' },
  applies: ({ channel }) => channel !== null,
  find: (facts) => {
    const { work, dams, channel } = facts;
    if (!channel) return null;
    const isOut = ({ dam }: Standing): boolean => placeIn(channel, pointAlong(work.line, dam.atM).point) === null;
    const worst = worstOf(dams, (one) => (isOut(one) ? 1 : 0), 'most');
    const value = dams.filter(isOut).length;
    return {
      value,
      limit: 0,
      at: value > 0 ? at(facts, worst) : null,
      severity: value > 0 ? 'mend' : 'fine',
      do: value > 0 ? `Draw the series in the channel, measure the channel further, or let it stand on its own line${of(worst.k, facts)}.` : 'Nothing.',
    };
  },
}; // prettier-ignore

export const SIZE_RULES: readonly Rule<DamsFacts>[] = [sideKey, bedKey, apron, crest, floats];
export const STATE_RULES: readonly Rule<DamsFacts>[] = [measured, inReach, condition, full, stoneNear];
