import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { leastRule } from '../size-rule.ts';
import { setbackRules } from '../setbacks.ts';
import { siltedRule } from '../silt-rule.ts';
import { siltedShare } from '../series.ts';
import { STAND_RULES } from './stand-checks.ts';
import { NOTCH_C, type WeirFacts, apronFor } from './standing.ts';

export type { WeirFacts } from './standing.ts';

const designed: Rule<WeirFacts> = {
  id: 'weir.designed',
  title: 'Fall over its notch',
  why: 'A wall that holds back more than about a man’s waist is designed by somebody licensed: its failure is a flood.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: {
    ...COMMON_PRACTICE,
    locator: 'walls to 1.2 m are built without a design in many places, baskets to 2 m by trained crews: ask locally',
  },
  find: ({ standing: { dropM } }) => ({
    value: dropM,
    limit: 1.2,
    severity: gradeMax(dropM, 1.2, 2),
    do:
      dropM > 1.2
        ? say`Have it designed and signed for, or take the fall in two: ${metres(dropM / 2)} each, the crest of the lower level with the foot of the upper.`
        : 'Nothing.',
  }),
};

const ends: Rule<WeirFacts> = {
  id: 'weir.ends',
  title: 'Ends above the notch',
  why: 'Water must go over the middle: once it finds an end it cuts a new channel round it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.3 m, 0.15 m at the least' },
  find: ({ standing: { work } }) => {
    const value = work.levels.crestM - work.levels.notchM;
    const says = say`Build its ends ${millimetres(0.3 - value)} higher`;
    return {
      value,
      limit: 0.3,
      severity: gradeMin(value, 0.15, 0.3),
      do: value < 0.3 ? say`${says}.` : 'Nothing.',
      ...cureBy(value < 0.3, { work: work.id, set: { 'levels.crestM': upToMm(work.levels.notchM + 0.3) }, says }),
    };
  },
};

const notch: Rule<WeirFacts> = {
  id: 'weir.notch',
  title: 'Water in the notch at the peak, against its ends',
  why: 'What the notch does not take runs over the ends, onto the banks that hold it.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'heede-1973', locator: 'Q = 1.65 L H^1.5', fromMemory: true },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts) => {
    const { work } = facts.standing;
    const { peak } = facts;
    if (!peak) return null;
    const limit = work.levels.crestM - work.levels.notchM;
    const { notchWidthM, bedWidthM } = work.dimensions;
    const wide = upToMm(peak.peakM3s / NOTCH_C / limit ** 1.5);
    const isRoom = wide <= bedWidthM && wide > notchWidthM;
    const says = say`Widen the notch to ${metres(wide)}`;
    return {
      value: peak.headM,
      limit,
      severity: gradeMax(peak.headM, limit, 1.25 * limit),
      do:
        peak.headM > limit
          ? isRoom
            ? say`${says}.`
            : say`Build its ends ${millimetres(peak.headM - limit)} higher if the banks let it, or hold the water further up: the bed has no room for a wider notch.`
          : 'Nothing.',
      ...cureBy(peak.headM > limit && isRoom, { work: work.id, set: { 'dimensions.notchWidthM': wide }, says }),
    };
  },
};

const banks: Rule<WeirFacts> = {
  id: 'weir.banks',
  title: 'Natural bank above its ends',
  why: 'As high as its banks, it turns the flood out of the channel and is left standing beside it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  isOfLevels: true,
  find: ({ standing: { work, ground } }) => {
    const value = ground.roundM - work.levels.crestM;
    return {
      value,
      limit: 0,
      at: ground.roundAt,
      severity: gradeMin(value, -0.1, 0),
      do: value < 0 ? say`Lower it by ${millimetres(-value)}, or carry its ends further into the banks.` : 'Nothing.',
    };
  },
};

const key = leastRule<WeirFacts>(
  {
    id: 'weir.key',
    title: 'Key into each bank',
    why: 'The bank is not an abutment: most weirs that fail were gone round.',
    source: { ...COMMON_PRACTICE, locator: 'half its height, 0.6 m at the least, 1.2 m where banks wash easily' },
  },
  {
    path: 'dimensions.keyM',
    workOf: ({ standing }) => standing.work,
    limitFor: ({ standing: { dropM } }) => Math.max(0.6, dropM / 2),
    says: (m) => say`Dig it ${metres(m)} into both banks`,
    also: ', to the same depth as its base',
    mendUnder: 0.5,
  },
);

const aside: Rule<WeirFacts> = {
  id: 'weir.aside',
  title: 'Notch off the middle of the bed',
  why: 'Water thrown to one side wears that bank away; narrowing one side loads the other.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ standing: { work, channel } }) => {
    const value = Math.abs(work.notchAtM - channel.middleM);
    const limit = Math.max(0.5, 0.15 * work.dimensions.bedWidthM);
    const to = Math.round(1000 * channel.middleM) / 1000;
    const says = say`Move its notch ${metres(value)} to the middle of the bed`;
    return {
      value,
      limit,
      severity: gradeMax(value, limit, 2 * limit),
      do: value > limit ? say`${says}, and build both ends alike.` : 'Nothing.',
      ...cureBy(value > limit, { work: work.id, set: { notchAtM: to }, says }),
    };
  },
};

const apron: Rule<WeirFacts> = {
  id: 'weir.apron',
  title: 'Length of its apron',
  why: 'The fall digs its own foot away: the apron takes it, and the jump that follows.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'rand-1955', locator: 'the fall, and a jump of six depths', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const { falls } = facts;
    if (!falls) return null;
    const { work } = facts.standing;
    const limit = apronFor(falls);
    const value = work.dimensions.apronM;
    const to = upToMm(limit);
    const says = say`Lay an apron ${metres(to)} long`;
    return {
      value,
      limit,
      // What lands beyond it digs at once.
      severity: gradeMin(value, falls.landsM, limit),
      do: value < limit ? say`${says}: water lands ${metres(falls.landsM)} from its crest.` : 'Nothing.',
      ...cureBy(value < limit && to <= LONGEST_M, { work: work.id, set: { 'dimensions.apronM': to }, says }),
    };
  },
};
const LONGEST_M = 40;

const jump: Rule<WeirFacts> = {
  id: 'weir.jump',
  title: 'Water over the apron, against what holds the jump',
  why: 'Where less water stands below than the jump needs, it shoots over the apron and digs past it.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'rand-1955', locator: 'depth after the jump', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const { falls } = facts;
    if (!falls) return null;
    if (falls.tailM === null)
      return {
        value: null,
        limit: falls.needsM,
        severity: 'unknown',
        do: 'Bring in the terrain below it: how deep water runs there is not known.',
      };
    const { work } = facts.standing;
    const value = falls.tailM + work.dimensions.apronDropM;
    const lower = upToMm(work.dimensions.apronDropM + falls.needsM - value);
    const says = say`Lay the apron ${metres(lower)} under the bed`;
    return {
      value,
      limit: falls.needsM,
      severity: gradeMin(value, 0.6 * falls.needsM, falls.needsM),
      do: value < falls.needsM ? say`${says}, with a sill of large stone at its lower end.` : 'Nothing.',
    };
  },
};

const ramp: Rule<WeirFacts> = {
  id: 'weir.ramp',
  title: 'Fill against its upper face, out per 1 up',
  why: 'The first surge of a flood strikes an upright face like a ram; over a ramp it rides.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'ramps of fill before and behind; silt that has come does the same' },
  applies: ({ standing: { work } }) => siltedShare(work) < 0.9,
  find: ({ standing: { work, dropM } }) => {
    if (siltedShare(work) >= 0.9) return null;
    const value = work.dimensions.rampUpHV;
    return {
      value,
      limit: 2,
      severity: value >= 2 ? 'fine' : dropM > 1 ? 'mend' : 'weigh',
      do: value < 2 ? 'Fill against its upper face, 3 out for each 1 up, stone on top.' : 'Nothing.',
      ...cureBy(value < 2, { work: work.id, set: { 'dimensions.rampUpHV': 3 }, says: 'Fill against its upper face, 3 out for each 1 up' }),
    };
  },
};

const stone: Rule<WeirFacts> = {
  id: 'weir.stone',
  title: 'Stone in its baskets',
  why: 'Stone smaller than the mesh washes out of it, and what is left of the basket sags.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'once and a half a mesh of 80 mm' },
  applies: ({ standing: { work } }) => work.form === 'gabion',
  find: ({ standing: { work } }) => {
    if (work.form !== 'gabion') return null;
    const value = work.dimensions.pieceM;
    return {
      value,
      limit: 0.12,
      severity: gradeMin(value, 0.1, 0.12),
      do: value < 0.12 ? say`Use stone of ${millimetres(0.12)} and more.` : 'Nothing.',
      ...cureBy(value < 0.12, { work: work.id, set: { 'dimensions.pieceM': 0.12 }, says: say`Use stone of ${millimetres(0.12)}` }),
    };
  },
};

const found: Rule<WeirFacts> = {
  id: 'weir.found',
  title: 'Ways water has found past it',
  why: 'What goes round or under it digs there in every flood, until it stands dry beside the channel.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ standing: { work } }) => ({
    value: work.found === 'sound' ? 0 : 1,
    limit: 0,
    severity: work.found === 'sound' ? 'fine' : 'mend',
    do: MENDS[work.found],
  }),
};
const MENDS = {
  sound: 'Nothing.',
  flanked:
    'Dig its key into the bank again, deeper than before, fill behind it in layers, and lower its notch so that water stays in the middle.',
  undermined: 'Fill the hole with stone from below, set a cut-off under its upper foot, and lay the apron anew.',
  burst: 'Lay stone back, tie or mortar a new face over it from the apron up, before the next rain.',
} as const;

const silted = siltedRule<WeirFacts>('weir', {
  why: 'Full of silt it holds no flood, but it has raised the bed: that is what it is for.',
  limit: 80,
  shareOf: ({ standing }) => siltedShare(standing.work),
  does: 'Plant the silt; build the next where it ends, its foot level with this notch.',
});

const measured: Rule<WeirFacts> = {
  id: 'weir.measured',
  title: 'Channel measured on the ground',
  why: 'A gully is narrower than a cell of most terrain: width and depth of its bed decide notch, fall and tail water.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ standing: { work } }) => {
    const isMeasured = work.channel === 'measured';
    return {
      value: isMeasured ? 1 : null,
      limit: 1,
      severity: isMeasured ? 'fine' : 'unknown',
      do: isMeasured ? 'Nothing.' : 'Measure bed, banks and the level of its bed there, set them, and say so.',
    };
  },
};

export const WEIR_RULES: readonly Rule<WeirFacts>[] = [
  designed,
  notch,
  ends,
  banks,
  key,
  aside,
  ...STAND_RULES,
  apron,
  jump,
  ramp,
  stone,
  found,
  measured,
  silted,
  ...setbackRules<WeirFacts>('weir', ({ standing }) => standing.work.line),
];
