import { type Finding, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, between, cureBy, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { leastRule } from '../size-rule.ts';
import { siltedRule } from '../silt-rule.ts';
import { RUN_ON_RATIO } from './formulas.ts';
import { siltedShare, whichOf, worstOf, stormAt } from '../series.ts';
import { brokenIn, cropOf } from './model.ts';
import { type MoonsFacts, type Row, basinAreaM2, deepestM, runOnM2 } from './standing.ts';

export type { MoonsFacts } from './standing.ts';

const isMoon = ({ work }: MoonsFacts): boolean => work.form === 'half-moon';
const of = (k: number, { rows }: MoonsFacts): string => whichOf('row', k, rows);
const middle = ({ line, ground }: Row) => pointAlong(line, ground.lengthM / 2).point;

/** Half-moons this large are for gentle ground only [m]. */
const LARGE_M = 6;

const slope: Rule<MoonsFacts> = {
  id: 'half-moons.slope',
  title: 'Slope they lie on',
  why: 'The steeper, the higher the bund in its middle, the less it holds, and the harder it breaks.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'fao-1991', locator: 'to 2 % large ones, to 5 % small ones', fromMemory: true },
  find: (facts) => {
    const { one: row, k, value } = worstOf(facts.rows, (r) => r.slope);
    const limit = facts.work.dimensions.radiusM > LARGE_M ? 0.02 : 0.05;
    return {
      value,
      limit,
      at: middle(row),
      severity: gradeMax(value, limit, 2 * limit),
      do: value > limit ? `Make them smaller there${of(k, facts)}, or lay terraces.` : 'Nothing.',
    };
  },
};

const tips: Rule<MoonsFacts> = {
  id: 'half-moons.level',
  title: 'One tip higher than the other',
  why: 'All of the overflow leaves by the lower tip, and cuts it down.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'both tips by water tube, within a finger' },
  applies: isMoon,
  find: (facts) => {
    if (!isMoon(facts)) return null;
    const { one: row, k, value } = worstOf(facts.rows, (r) => r.unevenM);
    const most = Math.max(0.05, facts.work.dimensions.overTipsM);
    return {
      value,
      limit: 0.05,
      at: row.unevenAt,
      severity: gradeMax(value, 0.05, most),
      do: value > 0.05 ? `Swing them anew from pegs on the contour${of(k, facts)}: the bund must be level from tip to tip.` : 'Nothing.',
    };
  },
};

const runOn: Rule<MoonsFacts> = {
  id: 'half-moons.run-on',
  title: 'Run-on ground for each part of planted ground',
  why: 'Too little leaves the crop dry; too much drowns it and breaks the bunds.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { key: 'fao-1991', locator: 'section 4.3, examples a and b', fromMemory: true },
  find: ({ work, rows }) => {
    const crop = cropOf(work);
    const runs = runOnM2(work, rows);
    if (!crop || runs === null)
      return {
        value: null,
        limit: null,
        severity: 'unknown',
        do:
          runs === null
            ? 'Lay a second row, so that it is known what feeds each.'
            : 'Say what the crop needs, the rain of two years in three, and what share of it runs off there.',
      };
    const limit = RUN_ON_RATIO.evaluate(crop);
    const value = runs / basinAreaM2(work);
    const most = 2 * Math.max(0.5, limit);
    const isFar = value > most;
    return {
      value,
      ...between(value, [limit, most], 'min'),
      severity: value < 0.7 * limit ? 'mend' : value < limit || isFar ? 'weigh' : 'fine',
      do:
        value < limit
          ? say`Lay the rows further apart, to ${amount(limit, 'number')} parts of run-on ground for one, or choose what needs less.`
          : isFar
            ? say`Twice what the crop asks (${amount(limit, 'number')}) comes to them: lay rows closer, or see that they let it pass.`
            : 'Nothing.',
    };
  },
};

const workOf = ({ work }: MoonsFacts): MoonsFacts['work'] => work;

const gap = leastRule<MoonsFacts>(
  {
    id: 'half-moons.gap',
    title: 'Gap that lets overflow pass',
    why: 'Without a way past them water goes over the bunds, row after row.',
    source: { ...COMMON_PRACTICE, locator: 'a third to half of the radius between tips' },
    applies: isMoon,
  },
  {
    path: 'dimensions.gapM',
    workOf,
    limitFor: ({ work }) => work.dimensions.radiusM / 3,
    says: (m) => say`Leave ${metres(m)} between two`,
    mendUnder: 1 / 3,
  },
);

const overTips = leastRule<MoonsFacts>(
  {
    id: 'half-moons.over-tips',
    title: 'Bund above its tips',
    why: 'It must leave by the tips, which are set for it, not over the fresh earth of the middle.',
    source: { ...COMMON_PRACTICE, locator: '0.1 m after it has settled' },
    applies: isMoon,
  },
  {
    path: 'dimensions.overTipsM',
    workOf,
    limitFor: () => 0.1,
    says: (m) => say`Build the bunds ${millimetres(m)} over their tips`,
    mendUnder: 0.5,
    kind: 'difference',
  },
);

const height: Rule<MoonsFacts> = {
  id: 'half-moons.height',
  title: 'Bund in its middle, from the ground',
  why: 'A high bund of loose earth with a hand’s top gives way as a whole.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'to about 0.5 m by hand' },
  applies: isMoon,
  find: (facts) => {
    const { work } = facts;
    if (work.form !== 'half-moon') return null;
    const { one: row, k, value } = worstOf(facts.rows, (r) => r.slope * work.dimensions.radiusM + work.dimensions.overTipsM);
    return {
      value,
      limit: 0.5,
      at: middle(row),
      severity: gradeMax(value, 0.5, 0.8),
      do: value > 0.5 ? `Make them smaller${of(k, facts)}: the bund grows with the radius and the slope.` : 'Nothing.',
    };
  },
};

const passes: Rule<MoonsFacts> = {
  id: 'half-moons.passes',
  title: 'Left under the bunds at the peak',
  why: 'Once one bund is over-run its water comes to the next row at once.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.05 m left at the peak' },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts) => {
    const { work, rows } = facts;
    const known = rows.flatMap((row, k) => {
      const storm = stormAt(facts, row.store);
      return storm ? [{ row, k: k + 1, left: storm.freeboardM }] : [];
    });
    if (known.length === 0) return null;
    const worst = known.reduce((a, b) => (b.left < a.left ? b : a));
    const value = worst.left;
    const to = upToMm(work.dimensions.overTipsM + 0.05 - value);
    const says = say`Build the bunds ${millimetres(to)} over their tips`;
    return {
      value,
      limit: 0.05,
      at: middle(worst.row),
      severity: gradeMin(value, 0, 0.05),
      do:
        value >= 0.05
          ? 'Nothing.'
          : work.form === 'pit'
            ? `They fill and run over${of(worst.k, facts)}: slow the water above them with a line of stone.`
            : say`${says}${of(worst.k, facts)}, or leave wider gaps.`,
      ...cureBy(value < 0.05 && work.form === 'half-moon' && to <= 1, { work: work.id, set: { 'dimensions.overTipsM': to }, says }),
    };
  },
};

const tipStone: Rule<MoonsFacts> = {
  id: 'half-moons.tips',
  title: 'Tips set with stone',
  why: 'The tips carry all that overflows: of earth they wear down, and the next flood leaves lower.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  needs: NEEDS_STORM,
  applies: isMoon,
  find: (facts) => {
    const { work, rows } = facts;
    if (work.form !== 'half-moon') return null;
    const spills = rows.some((row) => (stormAt(facts, row.store)?.spilledM3 ?? NOTHING) > 0);
    const isSet = work.tips === 'stone';
    return {
      value: isSet ? 1 : 0,
      limit: 1,
      severity: isSet ? 'fine' : spills ? 'mend' : 'weigh',
      do: isSet ? 'Nothing.' : 'Set both tips of each with a few flat stones, flush with the level they let go at.',
    };
  },
};
const NOTHING = 0;

const drains: Rule<MoonsFacts> = {
  id: 'half-moons.drains',
  title: 'Hours until they are dry again',
  why: 'Seedlings drown in water that stands for days.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '48 hours; 72 at the most' },
  needs: ['ground'],
  find: (facts) => {
    const { one: row, k, value: deep } = worstOf(facts.rows, (r) => deepestM(facts.work, r));
    const rate = facts.site.soilAt(middle(row))?.infiltrationMmPerHour;
    if (rate === undefined) return null;
    if (rate <= 0)
      return { value: null, limit: 48, severity: 'mend', do: 'Nothing soaks in there: break the ground deeper, or choose another place.' };
    const value = (1000 * deep) / rate;
    return {
      value,
      limit: 48,
      at: middle(row),
      severity: gradeMax(value, 48, 72),
      do: value > 48 ? `Dig them shallower, or plant on the bund${of(k, facts)}.` : 'Nothing.',
    };
  },
};

const crust: Rule<MoonsFacts> = {
  id: 'half-moons.crust',
  title: 'Crust inside broken',
  why: 'On a crust the water they hold dries off before it goes in.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ work }) => ({
    value: work.crust === 'broken' ? 1 : 0,
    limit: 1,
    severity: work.crust === 'broken' ? 'fine' : 'mend',
    do: work.crust === 'broken' ? 'Nothing.' : 'Break it with hoe or fork, a hand deep, and leave it rough.',
  }),
};

const manure: Rule<MoonsFacts> = {
  id: 'half-moons.manure',
  title: 'Manure for each square metre of them, in kg',
  why: 'Water alone grows little on such ground: manure feeds, and it opens the crust through termites and roots.',
  unit: 'kg/m²',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'about 3 kg/m², a barrow in a half-moon of 2 m' },
  find: ({ work }) => {
    const area = basinAreaM2(work);
    const value = work.inputs.manureKg / area;
    const to = Math.ceil(30 * area) / 10;
    const says = say`Put ${amount(to, 'number')} kg of manure in each`;
    return {
      value,
      limit: 3,
      severity: value < 3 ? 'weigh' : 'fine',
      do: value < 3 ? say`${says}, or plant what does without.` : 'Nothing.',
      ...cureBy(value < 3 && to <= 500, { work: work.id, set: { 'inputs.manureKg': to }, says }),
    };
  },
};

const rest: Rule<MoonsFacts> = {
  id: 'half-moons.rest',
  title: 'Years without stock',
  why: 'Stock stand on the bunds and eat what was planted first.',
  unit: 'yr',
  kind: 'years',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'one season for grass, two years and more for trees' },
  find: ({ work }) => {
    const value = work.inputs.restYears;
    return {
      value,
      limit: 1,
      severity: value < 1 ? 'weigh' : 'fine',
      do: value < 1 ? 'Agree with whoever grazes there to keep stock off for a season at the least.' : 'Nothing.',
    };
  },
};

const broken: Rule<MoonsFacts> = {
  id: 'half-moons.broken',
  title: 'Broken ones',
  why: 'Each that is broken sends its water, all at once, to the one below.',
  unit: '%',
  kind: 'percent',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts): Finding => {
    const { work, rows } = facts;
    const gone = rows.reduce((a, _, k) => a + brokenIn(work, k), 0);
    const value = (100 * gone) / Math.max(1, rows.reduce((a, r) => a + r.count, 0)); // prettier-ignore
    return {
      value,
      limit: 0,
      severity: value > 5 ? 'mend' : value > 0 ? 'weigh' : 'fine',
      do:
        value > 0
          ? say`Mend ${amount(gone, 'count')}, the highest first, and set the tips of those above them lower or with stone.`
          : 'Nothing.',
    };
  },
};

const silted = siltedRule<MoonsFacts>('half-moons', {
  why: 'Silt is good soil: plant in it, and raise the bund by as much.',
  limit: 50,
  shareOf: ({ work }) => siltedShare(work),
  does: 'Dig the silt onto the bund, or plant it and let it be.',
});

export const MOONS_RULES: readonly Rule<MoonsFacts>[] = [
  slope,
  tips,
  runOn,
  gap,
  overTips,
  height,
  passes,
  tipStone,
  drains,
  crust,
  manure,
  rest,
  broken,
  silted,
];
