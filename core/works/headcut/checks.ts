import { type Finding, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { exitFlow, noneCarries } from '../exit.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { leastRule } from '../size-rule.ts';
import { STEEPEST } from './formulas.ts';
import { type Headcut, hasApron, isChute, plugWeight } from './model.ts';
import { paceOf } from './retreat.ts';
import { type HeadFacts, chuteStone, downFrom, dugBy, floatsBy, overLip } from './standing.ts';

export type { HeadFacts } from './standing.ts';

const UNSEEN: Finding = { value: null, limit: null, severity: 'unknown', do: 'Look at its face and say what it is of.' };

const above: Rule<HeadFacts> = {
  id: 'headcut.above',
  title: 'Ground above it left to heal first',
  why: 'While the ground above sheds as before the water finds another place to fall in, and what was built is left standing beside it.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'slow the water on the ground above before anything is cut back' },
  find: ({ standing: { head } }) => {
    const isCut = head.form === 'batter' || isChute(head);
    if (head.above === 'unknown')
      return { value: null, limit: 1, severity: 'unknown', do: 'Walk the ground above it and say whether it is bare, resting or covered.' };
    const value = { bare: 0, resting: 0.5, healed: 1 }[head.above];
    return {
      value,
      limit: 1,
      severity: head.above === 'healed' ? 'fine' : head.above === 'bare' && isCut ? 'mend' : 'weigh',
      do: {
        bare: 'Rest it, cover it, time the grazing, and slow water up there first: cut nothing back until it has healed.',
        resting: isCut
          ? 'Wait until it has healed, or lead the water round it meanwhile.'
          : 'Go on resting it; measure what the head does meanwhile.',
        healed: 'Nothing.',
      }[head.above],
    };
  },
};

/** Out per 1 up that a face of such soil stands under seed (common practice: 1.5 to 2, steeper only in firm soil). */
const STANDS_HV: Readonly<Record<Exclude<Headcut['soil'], 'unknown'>, readonly [fine: number, least: number]>> = {
  loose: [2, 1.75],
  firm: [1.5, 1.25],
  hard: [1, 0.75],
};

const batter: Rule<HeadFacts> = {
  id: 'headcut.batter',
  title: 'Its face after it is cut back, out per 1 up',
  why: 'Seed does not hold on a face that slips; a steep one falls in again with the first wet season.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '1.5 to 2 out for each 1 up; steeper only in firm soil' },
  applies: ({ standing: { head } }) => head.form === 'batter',
  find: ({ standing: { head } }) => {
    if (head.form !== 'batter') return null;
    if (head.soil === 'unknown') return UNSEEN;
    const [limit, least] = STANDS_HV[head.soil];
    const value = head.dimensions.slopeHV;
    const says = say`Cut it back to ${amount(limit, 'number')} out for each 1 up`;
    return {
      value,
      limit,
      severity: gradeMin(value, least, limit),
      do: value < limit ? say`${says}.` : 'Nothing.',
      ...cureBy(value < limit, { work: head.id, set: { 'dimensions.slopeHV': limit }, says }),
    };
  },
};

/** What seed and mulch on a face stand [m2/s]: a sheet a finger thick (common practice). */
const [SEED_Q, SEED_MOST_Q] = [0.002, 0.005];

const overSeed: Rule<HeadFacts> = {
  id: 'headcut.over-seed',
  title: 'Flow over each metre of a seeded face',
  why: 'Seed and mulch are washed off by the first sheet that runs down them, and the head is back.',
  unit: 'm³/s',
  kind: 'flow',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '2 L/s for each metre, 5 at the most: a guess on the safe side' },
  needs: NEEDS_STORM,
  applies: ({ standing: { head } }) => head.form === 'batter',
  find: (facts) => {
    const over = overLip(facts);
    if (!over || facts.standing.head.form !== 'batter') return null;
    return {
      value: over.q,
      limit: SEED_Q,
      severity: gradeMax(over.q, SEED_Q, SEED_MOST_Q),
      do:
        over.q > SEED_Q
          ? say`Draw a drain above it that leads ${amount(over.peakM3s, 'flow')} round to where the gully is stable, or build a chute.`
          : 'Nothing.',
    };
  },
};

const chuteSlope: Rule<HeadFacts> = {
  id: 'headcut.chute-slope',
  title: 'Slope of the chute of stone',
  why: 'Steeper than it was tested at, stone slides down by itself.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'robinson-1998', locator: 'tested from 0.02 to 0.40', fromMemory: true },
  applies: ({ standing: { head } }) => head.form === 'rock',
  find: ({ standing: { head, slope } }) => {
    if (head.form !== 'rock') return null;
    const to = 3;
    const says = `Lay it ${to} out for each 1 up`;
    return {
      value: slope,
      limit: 1 / to,
      severity: gradeMax(slope, 1 / to + 1e-9, STEEPEST),
      do: slope > 1 / to + 1e-9 ? say`${says}.` : 'Nothing.',
      ...cureBy(slope > 1 / to + 1e-9, { work: head.id, set: { 'dimensions.slopeHV': to }, says }),
    };
  },
};

const chuteStoneStays: Rule<HeadFacts> = {
  id: 'headcut.stone',
  title: 'Stone that stays in the chute',
  why: 'One stone that rolls lets the next go: the chute unravels from its foot.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'robinson-1998', locator: 'by flow for each metre and slope', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ standing: { head } }) => head.form === 'rock',
  find: (facts) => {
    const over = overLip(facts);
    const { standing } = facts;
    const { head } = standing;
    if (!over || head.form !== 'rock' || over.q <= 0) return null;
    const limit = chuteStone(standing, over);
    const value = head.dimensions.stoneM;
    const to = upToMm(limit);
    const says = say`Lay stone of ${millimetres(to)}`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.9 * limit, limit),
      do: value < limit ? say`${says}, twice as thick as that, on cloth or gravel; or make it wider or flatter.` : 'Nothing.',
      ...cureBy(value < limit && to <= 1.5, { work: head.id, set: { 'dimensions.stoneM': to }, says }),
    };
  },
};

const grassStays: Rule<HeadFacts> = {
  id: 'headcut.grass',
  title: 'Speed on the grass of the chute',
  why: 'Grass lets go all at once, and the head runs back through the chute in one flood.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'chow1959', locator: 'Table 7-6, by cover and slope', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ standing: { head } }) => head.form === 'grass',
  find: (facts) => {
    const { standing } = facts;
    const { head, slope, overM } = standing;
    const over = overLip(facts);
    const at = downFrom(standing, 1);
    const cover = facts.site.soilAt(at)?.cover;
    if (!over || !cover || head.form !== 'grass') return null;
    const { velocityMs, standsMs } = exitFlow({ at, slope, widthM: overM, shape: 'sheet' }, over.peakM3s, cover);
    if (standsMs === null || velocityMs === null)
      return { value: velocityMs, limit: null, severity: 'mend', do: noneCarries(cover, slope) };
    return {
      value: velocityMs,
      limit: standsMs,
      severity: gradeMax(velocityMs, standsMs, 1.2 * standsMs),
      do: velocityMs > standsMs ? 'Make the chute wider or flatter, or line it with stone.' : 'Nothing.',
    };
  },
};

const sides: Rule<HeadFacts> = {
  id: 'headcut.sides',
  title: 'Sides above the water at the lip',
  why: 'What goes over beside it makes a second head, and that one works round the first.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.15 m of freeboard' },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts) => {
    const over = overLip(facts);
    if (!over) return null;
    const { head, sideM } = facts.standing;
    const value = sideM - over.headM;
    const to = upToMm(over.headM + 0.15);
    const says = say`Build its sides to ${millimetres(to)} over the lip`;
    return {
      value,
      limit: 0.15,
      severity: gradeMin(value, 0, 0.15),
      do:
        value >= 0.15
          ? 'Nothing.'
          : isChute(head)
            ? say`${says}, with wings that gather the water to it.`
            : 'Draw it on to where the ground beside it stands higher, or gather the water to it with banks.',
      ...cureBy(value < 0.15 && to <= 3 && isChute(head), { work: head.id, set: { 'dimensions.sideM': to }, says }),
    };
  },
};

const apron = leastRule<HeadFacts>(
  {
    id: 'headcut.apron',
    title: 'Apron at its foot',
    why: 'Water comes down fast: where it meets soft ground it digs, and what was built above slides into the hole.',
    source: {
      key: 'robinson-1998',
      locator: 'fifteen stones long; under grass and what is laid in once and a half its drop by common practice',
      fromMemory: true,
    },
    applies: ({ standing: { head } }) => hasApron(head),
  },
  {
    path: 'dimensions.apronM',
    workOf: ({ standing }) => standing.head,
    limitFor: ({ standing: { head, dropM } }) => (head.form === 'rock' ? 15 * head.dimensions.stoneM : 1.5 * dropM),
    says: (m) => say`Lay an apron ${metres(m)} long`,
    also: ', level, its end set deeper',
    mendUnder: 0.5,
  },
);

const floats: Rule<HeadFacts> = {
  id: 'headcut.floats',
  title: 'Lift on what is laid in, against what holds it',
  why: 'Bales and logs swim off in deep water, and lie across the next culvert; their seed may take all the same.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { key: 'statics', locator: 'Archimedes, in water as deep as runs over the lip; weighed, or dry by common practice' },
  needs: NEEDS_STORM,
  applies: ({ standing: { head } }) => head.form === 'plug',
  find: (facts) => {
    const over = overLip(facts);
    const { standing } = facts;
    const { head } = standing;
    if (!over || head.form !== 'plug') return null;
    const value = floatsBy(standing, over.headM);
    const { heldKgM, plugM } = head.dimensions;
    const weight = plugWeight(head) * plugM * plugM * (head.plug === 'log' ? Math.PI / 4 : 1);
    const to = Math.ceil((value * (weight + heldKgM)) / 0.8 - weight);
    const says = say`Stake it to hold ${amount(to, 'hold')}`;
    return {
      value,
      limit: 0.8,
      severity: gradeMax(value, 0.8, 1),
      do: value > 0.8 ? say`${says}, wired over; it lies in ${metres(over.headM)} of water.` : 'Nothing.',
      ...cureBy(value > 0.8 && to <= 1000, { work: head.id, set: { 'dimensions.heldKgM': to }, says }),
    };
  },
};

const scour: Rule<HeadFacts> = {
  id: 'headcut.scour',
  title: 'Hole a free fall digs at its foot',
  why: 'The hole undercuts the face, the lip falls in, and the head has moved.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'schoklitsch-1932', locator: 'and Veronese 1937: the greater', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ standing: { head } }) => head.form === 'left' || head.form === 'plug',
  find: (facts) => {
    const over = overLip(facts);
    const { standing } = facts;
    if (!over || isChute(standing.head) || standing.head.form === 'batter') return null;
    const dug = dugBy(standing, over);
    if (!dug) return UNSEEN;
    const [least, value] = dug;
    return {
      value,
      limit: 0.3,
      severity: gradeMax(value, 0.3, Math.max(0.3, standing.dropM)),
      do:
        value > 0.3
          ? say`A storm like it digs ${metres(least)} to ${metres(value)} there: slow the water above, lead it round, or build a chute.`
          : 'Nothing.',
    };
  },
};

const retreat: Rule<HeadFacts> = {
  id: 'headcut.reaches',
  title: 'Years until it reaches what stands uphill',
  why: 'A head that is measured tells early; one that is not is found under the wall.',
  unit: 'yr',
  kind: 'years',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'read against a fixed mark, by the rain between' },
  applies: ({ standing: { head } }) => head.threatM !== undefined,
  find: ({ standing: { head } }) => {
    if (head.threatM === undefined) return null;
    const pace = paceOf(head);
    const lacks = (todo: string): Finding => ({ value: null, limit: 30, severity: 'unknown', do: todo });
    if (!pace || pace.per100Mm === null) return lacks('Drive a peg uphill of it and read it at least twice, with the rain between.');
    if (head.yearRainMm === undefined) return lacks('Say how much rain a year brings there.');
    if (pace.reachesInYears === null) return { value: null, limit: 30, severity: 'fine', do: 'Nothing.' };
    const value = pace.reachesInYears;
    return {
      value,
      limit: 30,
      severity: gradeMin(value, 10, 30),
      do:
        value < 30
          ? say`It moves ${millimetres(pace.per100Mm / 1000)} for each 100 mm of rain: stop it, or move what stands there.`
          : 'Nothing.',
    };
  },
};

const designed: Rule<HeadFacts> = {
  id: 'headcut.designed',
  title: 'Height of its drop',
  why: 'Over a high drop a chute is a spillway: stone and cut are heavy, and it kills who stands under an undercut lip.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'over 2 m with a designer, over 4 m not without' },
  find: ({ standing: { dropM } }) => ({
    value: dropM,
    limit: 2,
    severity: gradeMax(dropM, 2, 4),
    do: dropM > 2 ? 'Have it designed and signed for before anybody works under it.' : 'Nothing.',
  }),
};

export const HEAD_RULES: readonly Rule<HeadFacts>[] = [
  above,
  batter,
  overSeed,
  chuteSlope,
  chuteStoneStays,
  grassStays,
  sides,
  apron,
  floats,
  scour,
  retreat,
  designed,
];
