import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { GRAVITY, ISBASH, STONE_GRAVITY } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { worstOf } from '../series.ts';
import { setbackRules } from '../setbacks.ts';
import { bedAt, fallBetween, riseOf } from '../bed.ts';
import { type DamsFacts, at, of, peakAt } from './facts.ts';
import { FORM_WORDS, MOST_HIGH_M } from './model.ts';
import { SIZE_RULES, STATE_RULES } from './size-checks.ts';
import { NOTCH_C, type Standing } from './store.ts';

export type { DamsFacts } from './facts.ts';

const height: Rule<DamsFacts> = {
  id: 'check-dams.height',
  title: 'Height of the highest dam',
  why: 'Two low dams outlast one high one: the fall over it digs its own foot away.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'heede-1976', locator: 'loose stone to 1.5 m; brush 1.0, logs 0.9, bags 0.6 to 0.9 by common practice', fromMemory: true },
  find: (facts) => {
    const { work, dams } = facts;
    const worst = worstOf(dams, ({ dam }) => dam.heightM, 'most');
    const [limit] = MOST_HIGH_M[work.form];
    return {
      value: worst.value,
      limit,
      at: at(facts, worst),
      severity: worst.value > limit ? 'weigh' : 'fine',
      do:
        worst.value > limit
          ? say`Build it of ${FORM_WORDS[work.form]} to ${metres(limit)}, and put one more between${of(worst.k, facts)}.`
          : 'Nothing.',
    };
  },
};

const sight: Rule<DamsFacts> = {
  id: 'check-dams.sight',
  title: 'Bed left bare between two dams',
  why: 'Where the pool of one ends below the foot of the next, water runs there as fast as before and cuts under the upper one.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: {
    ...COMMON_PRACTICE,
    locator: 'crest of one level with the toe of the next above; further apart only where silt is to lie on a slope',
  },
  applies: ({ dams }) => dams.length > 1,
  find: (facts) => {
    const { dams, bed } = facts;
    if (dams.length < 2) return null;
    const worst = worstOf(dams.slice(1), (one) => bedAt(bed, one.fromM) - one.notchM, 'most');
    const { one, value } = worst;
    const lies = fallBetween(bed, [one.fromM, one.dam.atM]);
    // Silt comes to lie at about seven tenths of the slope of the bed, half where that is steep.
    const room = (lies <= 0.2 ? 0.7 : 0.5) * lies * (one.dam.atM - one.fromM);
    return {
      value,
      limit: room,
      at: at(facts, worst),
      // A whole dam is missing where silt will leave more bare than one is high.
      severity: gradeMax(value, room + 0.02, room + one.dam.heightM),
      do:
        value > room + 0.02
          ? say`Dam ${amount(worst.k + 1, 'count')} ends its pool ${millimetres(value)} below the foot of the one above: put one between them, or make it higher.`
          : 'Nothing.',
    };
  },
};

const notchDepth: Rule<DamsFacts> = {
  id: 'check-dams.ends',
  title: 'Ends above the notch',
  why: 'Water must go over the middle: once it finds an end it cuts a new channel round the dam.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'ends 0.3 m above the notch, 0.15 m at the least' },
  find: ({ work }) => {
    const value = work.dimensions.notchDepthM;
    return {
      value,
      limit: 0.3,
      severity: gradeMin(value, 0.15, 0.3),
      do: value < 0.3 ? say`Build the ends ${millimetres(0.3 - value)} higher.` : 'Nothing.',
      ...cureBy(value < 0.3, {
        work: work.id,
        set: { 'dimensions.notchDepthM': 0.3 },
        says: say`Build the ends ${millimetres(0.3 - value)} higher`,
      }),
    };
  },
};

const notchPasses: Rule<DamsFacts> = {
  id: 'check-dams.notch',
  title: 'Water in the notch at the peak, against the ends',
  why: 'What the notch does not take runs over the ends, onto the banks that hold the dam.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'heede-1973', locator: 'Q = 1.65 L H^1.5 for the notch', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const { work, dams } = facts;
    const known = dams.filter((one) => peakAt(facts, one) !== null);
    if (known.length === 0) return null;
    const { notchDepthM: limit, notchWidthM } = work.dimensions;
    const head = (one: Standing): number => Math.cbrt((peakAt(facts, one) ?? Infinity) / NOTCH_C / notchWidthM) ** 2;
    const worst = worstOf(known, head, 'most');
    const peak = peakAt(facts, worst.one);
    if (peak === null) return null;
    const wide = upToMm(peak / NOTCH_C / limit ** 1.5);
    const isRoom = known.every(({ dam }) => dam.bedWidthM >= wide);
    return {
      value: worst.value,
      limit,
      at: at(facts, worst),
      severity: gradeMax(worst.value, limit, 1.25 * limit),
      do:
        worst.value > limit
          ? say`Widen the notch to ${metres(wide)}${isRoom ? '' : ', which is more than the bed: build the ends higher, or hold the water further up'}.`
          : 'Nothing.',
      ...cureBy(worst.value > limit && isRoom, {
        work: work.id,
        set: { 'dimensions.notchWidthM': wide },
        says: say`Widen the notch to ${metres(wide)}`,
      }),
    };
  },
};

const inChannel: Rule<DamsFacts> = {
  id: 'check-dams.in-channel',
  title: 'Bank left above its ends',
  why: 'A dam as high as its banks turns the flood out of the channel, over ground that was never meant to carry it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const worst = worstOf(facts.dams, ({ dam, endsM, bedM }) => dam.depthM - (endsM - bedM), 'least');
    const { value } = worst;
    return {
      value,
      limit: 0,
      at: at(facts, worst),
      severity: gradeMin(value, -0.1, 0),
      do: value < 0 ? say`Make it ${millimetres(-value)} lower, or its ends${of(worst.k, facts)}.` : 'Nothing.',
    };
  },
};

const stoneStays: Rule<DamsFacts> = {
  id: 'check-dams.stone',
  title: 'Stone that stays with water running over it',
  why: 'The stone on the crest and the lower face meets the fastest water of the whole channel.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'isbash-1936', locator: 'rough flow, at the velocity of critical depth in the notch', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ work }) => work.form === 'rock',
  find: (facts) => {
    const { work, dams } = facts;
    const peaks = dams.flatMap((one) => peakAt(facts, one) ?? []);
    if (work.form !== 'rock' || peaks.length === 0) return null;
    const q = Math.max(...peaks) / work.dimensions.notchWidthM;
    const limit = ISBASH.evaluate({ V: Math.cbrt(GRAVITY * q), C: 0.86, SG: STONE_GRAVITY });
    const value = work.dimensions.pieceM;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.8 * limit, limit),
      do: value < limit ? say`Lay stone of ${millimetres(upToMm(limit))} on the crest and the lower face, or widen the notch.` : 'Nothing.',
      ...cureBy(value < limit, {
        work: work.id,
        set: { 'dimensions.pieceM': upToMm(limit) },
        says: say`Lay stone of ${millimetres(upToMm(limit))}`,
      }),
    };
  },
};

const gradient: Rule<DamsFacts> = {
  id: 'check-dams.gradient',
  title: 'Slope of the bed',
  why: 'On a steep bed dams stand close, fill with the first flood and roll: there a lined chute or a step of masonry is asked for.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'loose dams up to about 20 %, more than 30 % not at all' },
  find: (facts) => {
    const worst = worstOf(facts.dams, ({ dam }) => fallBetween(facts.bed, [Math.max(0, dam.atM - 10), Math.max(1, dam.atM)]), 'most');
    return {
      value: worst.value,
      limit: 0.2,
      at: at(facts, worst),
      severity: gradeMax(worst.value, 0.2, 0.3),
      do:
        worst.value > 0.2
          ? `Ask for a chute or masonry steps there${of(worst.k, facts)}; begin lower down, where it is gentler.`
          : 'Nothing.',
    };
  },
};

const rises: Rule<DamsFacts> = {
  id: 'check-dams.rises',
  title: 'Bed that rises along its line',
  why: 'Where the line leaves the bed, dams stand beside the water: places and heights there mean nothing.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'geometry' },
  find: ({ bed }) => {
    const { riseM: value, atM } = riseOf(bed);
    return {
      value,
      limit: 0.15,
      at: bed.points[Math.round(atM / bed.stepM)] ?? null,
      severity: gradeMax(value, 0.15, 0.5),
      do: value > 0.15 ? say`It rises by ${millimetres(value)} here: draw it along the lowest of the channel.` : 'Nothing.',
    };
  },
};

export const DAMS_RULES: readonly Rule<DamsFacts>[] = [
  height,
  sight,
  notchDepth,
  notchPasses,
  inChannel,
  ...SIZE_RULES,
  stoneStays,
  gradient,
  rises,
  ...STATE_RULES,
  ...setbackRules<DamsFacts>('check-dams', ({ work }) => work.line),
];
