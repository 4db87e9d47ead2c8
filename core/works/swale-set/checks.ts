import { NEEDS_STORM, type Finding, type Rule } from '../../contract/index.ts';
import { type Point, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { GRASSED_SILL_C } from '../../hydraulics/index.ts';
import { say } from '../../units/index.ts';
import { COMMON_PRACTICE, between, cureBy, downToMm, gradeMax, gradeMin, metres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { leastLeft, stormAt, whichOf, worstOf } from '../series.ts';
import { setbackRules } from '../setbacks.ts';
import { SHRINK } from '../trough.ts';
import { INTERVAL, MIDDLE_XY } from './formulas.ts';
import { partsOf } from './making.ts';
import { type Row, type SetFacts, balancedBank } from './standing.ts';

export type { SetFacts } from './standing.ts';

const middle = ({ line, ground }: Row): Point => pointAlong(line, ground.lengthM / 2).point;
const of = (k: number, { rows }: SetFacts): string => whichOf('number', k, rows);

const slope: Rule<SetFacts> = {
  id: 'swale-set.slope',
  title: 'Slope they are dug in',
  why: 'On steep ground a ditch holds little, its bank is high and slides, and one that breaks takes the next.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'to 15 %, 20 % at the most; terraces or stone lines beyond' },
  find: (facts) => {
    const { one, k, value } = worstOf(facts.rows, (r) => r.slope);
    return {
      value,
      limit: 0.15,
      at: middle(one),
      severity: gradeMax(value, 0.15, 0.2),
      do: value > 0.15 ? `Lay terraces or lines of stone there instead${of(k, facts)}.` : 'Nothing.',
    };
  },
};

interface Pair {
  readonly row: Row;
  readonly k: number;
  readonly fallM: number;
  readonly apartM: number;
}

const pairs = new WeakMap<readonly Row[], readonly Pair[]>();

/** Each and the nearest one above it: the fall and the ground between them. Found once, whatever storm they are judged by. */
function pairsOf({ rows }: SetFacts): readonly Pair[] {
  const known = pairs.get(rows);
  if (known) return known;
  const found = rows.slice(1).flatMap((row, j): Pair[] => {
    const higher = rows.slice(0, j + 1).filter((r) => r.lipM > row.lipM);
    if (higher.length === 0) return [];
    const at = middle(row);
    const apart = higher.map((r) => ({ r, m: nearestOnLine(at, r.line).distanceM })).reduce((a, b) => (b.m < a.m ? b : a));
    return [{ row, k: j + 2, fallM: apart.r.lipM - row.lipM, apartM: apart.m }];
  });
  pairs.set(rows, found);
  return found;
}

const interval: Rule<SetFacts> = {
  id: 'swale-set.interval',
  title: 'Fall from one to the next',
  why: 'Too far apart, water gathers speed between them and brings more than each can hold or pass.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'asae-s268', locator: 'VI = x·S + y, both in the middle of their ranges', fromMemory: true },
  applies: (facts) => facts.work.by !== 'storage' && pairsOf(facts).length > 0,
  find: (facts) => {
    const pairs = pairsOf(facts);
    if (facts.work.by === 'storage' || pairs.length === 0) return null;
    const limitFor = ({ row }: Pair): number => INTERVAL.evaluate({ ...MIDDLE_XY, S: 100 * row.slope });
    const { one } = worstOf(pairs, (p) => p.fallM / limitFor(p));
    const limit = limitFor(one);
    return {
      value: one.fallM,
      limit,
      at: middle(one.row),
      severity: gradeMax(one.fallM, 1.1 * limit, 1.6 * limit),
      do:
        one.fallM > 1.1 * limit
          ? `Draw one more between them${of(one.k, facts)}, or lay the set again by the fall between them.`
          : 'Nothing.',
    };
  },
};

const even: Rule<SetFacts> = {
  id: 'swale-set.even',
  title: 'Most ground above one, for each of the least',
  why: 'The one with the most above it fills first, spills onto the next, and the set breaks from there.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: COMMON_PRACTICE,
  applies: (facts) => facts.work.by === 'even' && pairsOf(facts).length > 1,
  find: (facts) => {
    const pairs = pairsOf(facts);
    if (facts.work.by !== 'even' || pairs.length < 2) return null;
    const most = worstOf(pairs, (p) => p.apartM);
    const least = worstOf(pairs, (p) => p.apartM, 'least');
    const value = most.value / Math.max(0.1, least.value);
    return {
      value,
      limit: 1.5,
      at: middle(most.one.row),
      severity: gradeMax(value, 1.5, 2.5),
      do:
        value > 1.5
          ? `Take one out where they lie close${of(least.one.k, facts)}, or draw one more above the widest${of(most.one.k, facts)}.`
          : 'Nothing.',
    };
  },
};

const room: Rule<SetFacts> = {
  id: 'swale-set.room',
  title: 'Share of what comes that one must spill',
  why: 'What it has no room for goes over its spill onto the next: that must be grassed ground, all the way down.',
  unit: '%',
  kind: 'percent',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'by routing each into the next' },
  needs: NEEDS_STORM,
  find: (facts) => {
    const known = facts.rows.flatMap((row, k) => {
      const storm = stormAt(facts, row.store);
      return storm && storm.inM3 > 0 ? [{ row, k: k + 1, share: (100 * storm.spilledM3) / storm.inM3 }] : [];
    });
    if (known.length === 0) return null;
    const worst = known.reduce((a, b) => (b.share > a.share ? b : a));
    return {
      value: worst.share,
      limit: 50,
      at: middle(worst.row),
      severity: worst.share > 50 ? 'weigh' : 'fine',
      do: worst.share > 50 ? `Dig them deeper or wider, or lay them closer${of(worst.k, facts)}.` : 'Nothing.',
    };
  },
};

const passes: Rule<SetFacts> = {
  id: 'swale-set.freeboard',
  title: 'Left under the bank at the peak',
  why: 'A bank that is passed anywhere is cut through there, and the next swale gets all of it at once.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.1 to 0.15 m over the water at its spill' },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts): Finding | null => {
    const worst = leastLeft(facts, facts.rows);
    if (!worst) return null;
    const value = worst.storm.freeboardM;
    const { bankM, spillM, spillLengthM } = facts.work.dimensions;
    // Longer, water goes over it thinner.
    const head = bankM - spillM - 0.12;
    const long =
      head > 0 ? Math.ceil(10 * Math.max(spillLengthM + 0.1, worst.storm.peakOutM3s / GRASSED_SILL_C / head ** 1.5)) / 10 : Infinity;
    const isRoom = long <= 0.5 * worst.one.ground.lengthM;
    const says = say`Make each spill ${metres(long)} long`;
    return {
      value,
      limit: 0.1,
      at: middle(worst.one),
      severity: gradeMin(value, 0.02, 0.1),
      do:
        value < 0.1
          ? isRoom
            ? say`${says}, or the banks higher${of(worst.k, facts)}.`
            : `Make the banks higher${of(worst.k, facts)}, or lay one more above.`
          : 'Nothing.',
      ...cureBy(value < 0.1 && isRoom, { work: facts.work.id, set: { 'dimensions.spillLengthM': long }, says }),
    };
  },
};

const handsOn: Rule<SetFacts> = {
  id: 'swale-set.hands-on',
  title: 'Spills that the next swale does not take',
  why: 'What runs past the next one down gathers speed to the foot of the slope, and those below stay dry.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'each spills onto the middle part of the next' },
  needs: NEEDS_STORM,
  applies: ({ rows, links }) => rows.length > 1 && links.length > 0,
  find: (facts) => {
    const { rows, links } = facts;
    if (rows.length < 2 || links.length === 0) return null;
    const own = new Set(rows.map((r) => r.store));
    const lowest = rows.reduce((a, r) => Math.min(a, r.spillM), Infinity);
    const past = rows.filter((r) => r.spillM > lowest && links.some((l) => l.from === r.store && l.role === 'way' && !own.has(l.to)));
    return {
      value: past.length,
      limit: 0,
      ...(past.length > 0 ? { at: pointAlong(past[0].line, past[0].spillAtM).point } : {}),
      severity: past.length > 0 ? 'weigh' : 'fine',
      do:
        past.length > 0
          ? `Let them spill at their other end, or draw the next one longer${of(rows.indexOf(past[0]) + 1, facts)}.`
          : 'Nothing.',
    };
  },
};

const soaks: Rule<SetFacts> = {
  id: 'swale-set.soaks',
  title: 'Hours until they are empty',
  why: 'Full when the next storm comes, they hold nothing of it; and roots drown.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '48 h, 72 at the most' },
  needs: ['ground'],
  find: (facts) => {
    const { depthM, spillM } = facts.work.dimensions;
    const soils = facts.rows.map((r) => facts.site.soilAt(middle(r)));
    const rates = soils.flatMap((s) => (s ? [s.infiltrationMmPerHour] : []));
    if (rates.length < soils.length) return null;
    const slowest = Math.min(...rates);
    if (slowest <= 0)
      return { value: null, limit: 48, severity: 'mend', do: 'Nothing soaks in there: lead the water on, or hold it in a pond.' };
    const value = (1000 * (depthM + spillM)) / slowest;
    const to = downToMm((48 * slowest) / 1000 - spillM);
    const says = say`Dig them ${metres(to)} deep`;
    return {
      value,
      limit: 48,
      severity: gradeMax(value, 48, 72),
      do:
        value > 48
          ? to >= 0.05
            ? say`${says}, and wider.`
            : 'Such ground takes in too little: lead the water on, or hold it in a pond.'
          : 'Nothing.',
      ...cureBy(value > 48 && to >= 0.05, { work: facts.work.id, set: { 'dimensions.depthM': to }, says }),
    };
  },
};

const level: Rule<SetFacts> = {
  id: 'swale-set.level',
  title: 'Ground along a lip under its mean',
  why: 'Where the line leaves the contour the bank is highest, settles most, and is passed first.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const lowest = (r: Row): number => r.ground.groundM.reduce((a, v) => Math.min(a, v), Infinity);
    const { one, k, value } = worstOf(facts.rows, (r) => r.lipM - lowest(r));
    const at = one.ground.points[one.ground.groundM.indexOf(lowest(one))];
    return {
      value,
      limit: 0.1,
      at,
      severity: gradeMax(value, 0.1, 0.25),
      do: value > 0.1 ? `Lay it along the contour${of(k, facts)}, or build its bank up there and watch it.` : 'Nothing.',
    };
  },
};

const earth: Rule<SetFacts> = {
  id: 'swale-set.earth',
  title: 'Earth dug, for each of the banks',
  why: 'Too little, and the banks stay low where it ran out; too much is left lying in the way of water.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'dug earth trodden in takes nine tenths of its room' },
  find: ({ work, rows }) => {
    const { cutM3, bankM3 } = partsOf(work, rows);
    if (cutM3 === null || bankM3 === null)
      return {
        value: null,
        limit: null,
        severity: 'mend',
        do: 'The ground is too steep for such flat sides: make them steeper, or lay terraces.',
      };
    const value = (cutM3 * SHRINK) / bankM3;
    const isOff = value < 0.9 || value > 1.4;
    const bank = isOff ? balancedBank(work, rows) : null;
    const to = bank === null ? null : downToMm(bank);
    const can = isOff && to !== null && to > work.dimensions.spillM + 0.05;
    return {
      value,
      ...between(value, [0.9, 1.4], 'min'),
      severity: isOff ? 'weigh' : 'fine',
      do: !isOff ? 'Nothing.' : to === null ? 'Give all of it a place.' : say`All that is dug makes a bank of ${metres(to)}.`,
      ...cureBy(can, {
        work: work.id,
        set: { 'dimensions.bankM': to ?? work.dimensions.bankM },
        says: say`Make the banks ${metres(to ?? work.dimensions.bankM)} high`,
      }),
    };
  },
};

const floats = saidRule<SetFacts>(
  {
    id: 'swale-set.floats',
    title: 'What fills them stays in them',
    why: 'Wood floats: the first storm carries it to the spill, closes it, and the bank is passed.',
    source: { ...COMMON_PRACTICE, locator: 'staked or netted, a hand under the spill' },
    applies: ({ work }) => work.fill !== 'none',
  },
  ({ work }) => {
    const { fillM, depthM, spillM } = work.dimensions;
    if (work.held === 'loose') return { severity: 'mend', do: 'Stake or net it down, or dig it in under earth.' };
    return fillM > depthM + spillM - 0.05 ? { severity: 'weigh', do: 'Fill them to a hand under the spill.' } : FINE;
  },
);

const bare = saidRule<SetFacts>(
  {
    id: 'swale-set.seeded',
    title: 'Something grows on the banks',
    why: 'A bare bank washes into its ditch in its first winter.',
    source: { ...COMMON_PRACTICE, locator: 'seed and straw in the same week' },
  },
  ({ work }) => (work.bank === 'seeded' ? FINE : { severity: 'mend', do: 'Seed and mulch the banks within the week.' }),
);

const nursed = saidRule<SetFacts>(
  {
    id: 'swale-set.nursed',
    title: 'Nurse trees among those that stay',
    why: 'Long-lived trees alone stand still on bare subsoil: fast ones feed and shade them for their first years.',
    source: { ...COMMON_PRACTICE, locator: 'half and more of the first planting' },
    applies: ({ work }) => work.planting.treesApartM > 0,
  },
  ({ work }) =>
    work.planting.nursePercent >= 50
      ? FINE
      : { severity: 'weigh', do: 'Plant half or more of fast ones that feed the soil, and cut them later.' },
);

const fenced = saidRule<SetFacts>(
  {
    id: 'swale-set.fenced',
    title: 'Stock kept off them',
    why: 'Hooves tread banks down and eat what is planted in a week.',
    source: COMMON_PRACTICE,
    applies: ({ work }) => work.grazed === 'yes',
  },
  ({ work }) =>
    work.fence === 'both-sides'
      ? FINE
      : work.fence === 'one-side'
        ? { severity: 'weigh', do: 'Fence the other side too, or graze that side from behind a line.' }
        : { severity: 'mend', do: 'Fence them on both sides before stock comes back.' },
);

export const SET_RULES: readonly Rule<SetFacts>[] = [
  slope,
  interval,
  even,
  room,
  passes,
  handsOn,
  soaks,
  level,
  earth,
  floats,
  bare,
  nursed,
  fenced,
  ...setbackRules<SetFacts>('swale-set', ({ rows }) => rows[rows.length - 1].line),
];
