import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { GRASSED_SILL_C, GRAVITY } from '../../hydraulics/index.ts';
import { stoneThatStands } from '../exit.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, between, cureBy, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { leastRule } from '../size-rule.ts';
import { siltedRule } from '../silt-rule.ts';
import { spacingFor } from './formulas.ts';
import { siltedShare, whichOf, worstOf, stormAt } from '../series.ts';
import { type LinesFacts, type Row, topOf } from './standing.ts';
import { stoneOf } from './making.ts';

export type { LinesFacts } from './standing.ts';

const lowPlace = (row: Row) => pointAlong(row.line, row.lowAtM).point;
const of = (k: number, { rows }: LinesFacts): string => whichOf('line', k, rows);

const slope: Rule<LinesFacts> = {
  id: 'stone-lines.slope',
  title: 'Slope they lie on',
  why: 'On a steep slope the wedge behind a line is a handful, and water through it runs on as fast as before.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'fao-1991', locator: 'contour stone bunds to 5 %; beyond, terraces or small basins', fromMemory: true },
  find: (facts) => {
    const { one: row, k, value } = worstOf(facts.rows, (r) => r.slope);
    return {
      value,
      limit: 0.05,
      at: lowPlace(row),
      severity: gradeMax(value, 0.05, 0.08),
      do: value > 0.05 ? `Lay terraces or half-moons there${of(k, facts)}; keep lines for where it is gentler.` : 'Nothing.',
    };
  },
};

const height: Rule<LinesFacts> = {
  id: 'stone-lines.height',
  title: 'Height of the lines',
  why: 'Lower is drowned by the first sheet; higher holds water back, which then breaks through in one place.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'fao-1991', locator: '0.25 m and more, 0.25 to 0.3 usual', fromMemory: true },
  find: ({ work }) => {
    const value = work.dimensions.heightM;
    const isLow = value < 0.25;
    const isHigh = value > 0.4;
    const to = isLow ? 0.25 : 0.3;
    const says = say`Lay them ${metres(to)} high`;
    return {
      value,
      ...between(value, [0.25, 0.4], 'min'),
      severity: value < 0.15 || value > 0.6 ? 'mend' : isLow || isHigh ? 'weigh' : 'fine',
      do: isLow || isHigh ? say`${says}.` : 'Nothing.',
      ...cureBy(isLow || isHigh, { work: work.id, set: { 'dimensions.heightM': to }, says }),
    };
  },
};

/** Ground between two lines, the upper over the lower, by their fall and slope [m]. */
function apartOf(upper: Row, lower: Row): number {
  const fall = (upper.ground.meanGroundM - lower.ground.meanGroundM) / ((upper.slope + lower.slope) / 2);
  return fall;
}

const spacing: Rule<LinesFacts> = {
  id: 'stone-lines.spacing',
  title: 'Ground between two lines',
  why: 'Further apart, water runs together between them and comes to the next in streams.',
  unit: 'm',
  kind: 'distance',
  sense: 'max',
  source: { key: 'fao-1991', locator: '20 m apart under 1 %, 15 m to 2 %; closer beyond by common practice', fromMemory: true },
  applies: ({ rows }) => rows.length > 1,
  find: (facts) => {
    const { rows } = facts;
    if (rows.length < 2) return null;
    const order = [...rows].sort((a, b) => b.ground.meanGroundM - a.ground.meanGroundM);
    const gaps = order.slice(1).map((row, k) => {
      const apart = apartOf(order[k], row);
      return { row, apart, limit: spacingFor(Math.max(row.slope, order[k].slope)) };
    });
    const worst = gaps.reduce((a, b) => (b.apart / b.limit > a.apart / a.limit ? b : a));
    return {
      value: worst.apart,
      limit: worst.limit,
      at: lowPlace(worst.row),
      severity: gradeMax(worst.apart, 1.15 * worst.limit, 1.6 * worst.limit),
      do:
        worst.apart > 1.15 * worst.limit
          ? say`Lay one more between: ${amount(worst.limit, 'distance')} apart on such a slope.`
          : 'Nothing.',
    };
  },
};

const departure: Rule<LinesFacts> = {
  id: 'stone-lines.departure',
  title: 'How far a line leaves the contour',
  why: 'Water runs along a line to its lowest place, and goes through there with all it gathered.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'within 100 mm; a row that is nearly level will do where its low places are heightened' },
  find: (facts) => {
    const { one: row, k, value } = worstOf(facts.rows, (r) => r.highM - r.lowM);
    const most = Math.max(0.1, facts.work.dimensions.heightM);
    return {
      value,
      limit: 0.1,
      at: lowPlace(row),
      severity: gradeMax(value, 0.1, most),
      do:
        value > 0.1
          ? say`Water gathers ${metres(row.lowAtM)} along it${of(k, facts)}: peg it again by level, or lay that place ${millimetres(Math.min(value, 0.3))} higher and wider.`
          : 'Nothing.',
    };
  },
};

const ends: Rule<LinesFacts> = {
  id: 'stone-lines.ends',
  title: 'Ends above the lowest of its top',
  why: 'Water that finds the end of a line runs round it and cuts there.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'ends turned uphill until they stand level with its top' },
  find: (facts) => {
    const worst = worstOf(facts.rows, (r) => -(r.endM + facts.work.dimensions.endsUpM - topOf(r, facts.work)));
    const value = -worst.value;
    const to = upToMm(facts.work.dimensions.endsUpM - value);
    const says = say`Carry their ends ${millimetres(to)} uphill`;
    return {
      value,
      limit: 0,
      at: lowPlace(worst.one),
      severity: gradeMin(value, -0.15, 0),
      do: value < 0 ? say`${says}${of(worst.k, facts)}.` : 'Nothing.',
      ...cureBy(value < 0 && to <= 2, { work: facts.work.id, set: { 'dimensions.endsUpM': to }, says }),
    };
  },
};

/** Sheet over the top of a line at its peak, for each metre of it [m2/s]; null where no storm tells. */
function overTop(facts: LinesFacts, row: Row): number | null {
  const own = stormAt(facts, row.store);
  if (!own) return null;
  const head = Math.max(0, own.peakLevelM - topOf(row, facts.work));
  return GRASSED_SILL_C * head ** 1.5;
}

const stays: Rule<LinesFacts> = {
  id: 'stone-lines.stone',
  title: 'Stone that stays with water over it',
  why: 'At its low place all of the water goes over the same few stones.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'isbash-1936', locator: 'rough flow, at the velocity of critical depth', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const known = facts.rows.flatMap((row) => {
      const q = overTop(facts, row);
      return q === null ? [] : [{ row, q }];
    });
    if (known.length === 0) return null;
    const worst = known.reduce((a, b) => (b.q > a.q ? b : a));
    const V = Math.cbrt(GRAVITY * worst.q);
    const limit = stoneThatStands(V);
    const value = facts.work.dimensions.pieceM;
    const to = upToMm(limit);
    const says = say`Lay stone of ${millimetres(to)}`;
    return {
      value,
      limit,
      at: lowPlace(worst.row),
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? say`${says} where water goes over, or lay the lines closer.` : 'Nothing.',
      ...cureBy(value < limit && to <= 0.6, { work: facts.work.id, set: { 'dimensions.pieceM': to }, says }),
    };
  },
};

const workOf = ({ work }: LinesFacts): LinesFacts['work'] => work;

const trench = leastRule<LinesFacts>(
  {
    id: 'stone-lines.trench',
    title: 'Set into the ground',
    why: 'Laid on the crust, water finds the way under it first.',
    source: { key: 'fao-1991', locator: 'a trench of 0.05 to 0.1 m', fromMemory: true },
  },
  {
    path: 'dimensions.trenchM',
    workOf,
    limitFor: () => 0.05,
    says: (m) => say`Set it ${millimetres(m)} into the ground`,
    mendUnder: 0.4,
    kind: 'difference',
  },
);

const width = leastRule<LinesFacts>(
  {
    id: 'stone-lines.width',
    title: 'Width at the ground, against its height',
    why: 'A thin line is pushed over by stock and by the first branch that drifts onto it.',
    source: { key: 'fao-1991', locator: '0.35 to 0.4 m for 0.25 m of height', fromMemory: true },
  },
  {
    path: 'dimensions.baseWidthM',
    workOf,
    limitFor: ({ work }) => 1.4 * work.dimensions.heightM,
    says: (m) => say`Make it ${metres(m)} wide at the ground`,
    mendUnder: 0.7,
  },
);

const grass: Rule<LinesFacts> = {
  id: 'stone-lines.grass',
  title: 'Between two plants of the grass row',
  why: 'A row of grass works where it is dense: through each gap runs what the rest holds back.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '100 to 150 mm between slips; 300 at the most' },
  applies: ({ work }) => work.grass === 'behind',
  find: ({ work }) => {
    if (work.grass !== 'behind') return null;
    const value = work.dimensions.plantSpacingM;
    const says = say`Plant ${millimetres(0.15)} apart`;
    return {
      value,
      limit: 0.15,
      severity: gradeMax(value, 0.15, 0.3),
      do: value > 0.15 ? say`${says}, or a second row in the gaps of the first.` : 'Nothing.',
      ...cureBy(value > 0.15, { work: work.id, set: { 'dimensions.plantSpacingM': 0.15 }, says }),
    };
  },
};

const gaps: Rule<LinesFacts> = {
  id: 'stone-lines.gaps',
  title: 'Widest gap found',
  why: 'Water that was spread along the row goes through the gap in a stream, and the gap grows.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '0.3 m; a metre lets through what ten metres hold back' },
  applies: ({ work }) => (work.gaps ?? []).length > 0,
  find: ({ work, rows }) => {
    const { gaps: found = [] } = work;
    if (found.length === 0) return null;
    const worst = found.reduce((a, b) => (b.widthM > a.widthM ? b : a));
    const row = rows[worst.row - 1];
    return {
      value: worst.widthM,
      limit: 0.3,
      ...(row ? { at: pointAlong(row.line, worst.atM).point } : {}),
      severity: gradeMax(worst.widthM, 0.3, 1),
      do:
        worst.widthM > 0.3
          ? say`Close it with stone today and with slips in the next rain: line ${amount(worst.row, 'count')}, ${metres(worst.atM)} along.`
          : 'Nothing.',
    };
  },
};

const silted = siltedRule<LinesFacts>('stone-lines', {
  why: 'Silt to the top is a terrace begun: the next stones are laid on it, or the grass grows up through it.',
  limit: 80,
  shareOf: ({ work }) => siltedShare(work),
  does: 'Lay one more course a hand further uphill, and plant the silt.',
});

const stoneNear: Rule<LinesFacts> = {
  id: 'stone-lines.stone-near',
  title: 'Loose stone near, against what they take',
  why: 'Carrying is most of the work; stone prised from a slope takes away what holds it.',
  unit: 'm³',
  kind: 'volume',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: ({ work }) => work.rockNearM3 !== undefined,
  find: ({ work }) => {
    const { rockNearM3: value } = work;
    if (value === undefined) return null;
    const limit = stoneOf(work);
    return {
      value,
      limit,
      severity: value < limit ? 'weigh' : 'fine',
      do:
        value < limit
          ? say`${amount(limit - value, 'volume')} more is to be carried from further off: lay the upper lines first, or grass rows alone.`
          : 'Nothing.',
    };
  },
};

export const LINES_RULES: readonly Rule<LinesFacts>[] = [
  slope,
  height,
  spacing,
  departure,
  ends,
  stays,
  trench,
  width,
  grass,
  gaps,
  silted,
  stoneNear,
];
