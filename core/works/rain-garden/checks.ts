import { type Finding, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { GRASSED_SILL_C, GRAVITY } from '../../hydraulics/index.ts';
import { stoneThatStands } from '../exit.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, downToMm, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { leastRule } from '../size-rule.ts';
import { leastLeft, stormAt, whichOf, worstOf } from '../series.ts';
import { setbackRules } from '../setbacks.ts';
import { GARDEN_AREA } from './formulas.ts';
import { type GardenFacts, heldBy } from './standing.ts';

export type { GardenFacts } from './standing.ts';

const of = (k: number, { basins }: GardenFacts): string => whichOf('basin', k, basins);
/** Rate of a garden's floor: as tested, else of the ground there; null where nobody has described it. */
export const rateOf = ({ work, site, basins }: GardenFacts): number | null =>
  work.rateMmPerHour ?? site.soilAt(basins[0].at)?.infiltrationMmPerHour ?? null;

const soaks: Rule<GardenFacts> = {
  id: 'rain-garden.soaks',
  title: 'Hours until no water stands in it',
  why: 'Water that stands for days drowns the plants and breeds mosquitoes.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'gone within 24 hours, 48 at the most' },
  needs: ['ground'],
  find: (facts) => {
    const rate = rateOf(facts);
    const { pondM } = facts.work.dimensions;
    if (rate === null) return null;
    if (rate <= 0) return { value: null, limit: 24, severity: 'mend', do: 'Nothing soaks in there: choose other ground, or lead it on.' };
    const value = (1000 * pondM) / rate;
    const to = downToMm((24 * rate) / 1000);
    const says = say`Let water stand ${millimetres(to)}`;
    return {
      value,
      limit: 24,
      severity: gradeMax(value, 24, 48),
      do: value > 24 ? say`${says}, or loosen its floor deeper and test again.` : 'Nothing.',
      ...cureBy(value > 24 && to >= 0.03, { work: facts.work.id, set: { 'dimensions.pondM': to }, says }),
    };
  },
};

const tested: Rule<GardenFacts> = {
  id: 'rain-garden.tested',
  title: 'Rate of its floor tested there',
  why: 'Under turf and fill of a yard nothing is as the map says: a hole filled with water tells in an evening.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ work }) => ({
    value: work.rateMmPerHour ?? null,
    limit: null,
    severity: work.rateMmPerHour === undefined ? 'unknown' : 'fine',
    do: work.rateMmPerHour === undefined ? 'Dig a hole to its floor, fill it twice, time the second, and give half of that.' : 'Nothing.',
  }),
};

const steps: Rule<GardenFacts> = {
  id: 'rain-garden.steps',
  title: 'Each lower than the one before',
  why: 'Level with the next, water stands in the rock between them and neither fills; too far below, it falls and digs.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'about 50 mm, by water tube' },
  applies: ({ basins }) => basins.length > 1,
  find: (facts) => {
    const { basins } = facts;
    if (basins.length < 2) return null;
    const worst = worstOf(basins.slice(1), (b) => -(basins[basins.indexOf(b) - 1].overflowM - b.overflowM));
    const value = -worst.value;
    const k = basins.indexOf(worst.one);
    const to = downToMm(basins[k - 1].overflowM - 0.05);
    const says = say`Set the overflow of basin ${amount(k + 1, 'count')} ${millimetres(basins[k].overflowM - to)} lower`;
    return {
      value,
      limit: 0.05,
      at: worst.one.at,
      severity: gradeMin(value, 0.02, 0.05),
      do: value < 0.05 ? say`${says}.` : 'Nothing.',
      ...cureBy(value < 0.05, { work: facts.work.id, set: { [`basins.${k}.overflowM`]: to }, says }),
    };
  },
};

const workOf = ({ work }: GardenFacts): GardenFacts['work'] => work;

const bank = leastRule<GardenFacts>(
  {
    id: 'rain-garden.bank',
    title: 'Bank over its overflow',
    why: 'Without a bank all round, water leaves where the gardener dug last, not over the rock.',
    source: { ...COMMON_PRACTICE, locator: '0.1 m all round' },
  },
  {
    path: 'dimensions.bermM',
    workOf,
    limitFor: () => 0.1,
    says: (m) => say`Build its bank ${millimetres(m)} over its overflow`,
    mendUnder: 0.5,
    kind: 'difference',
  },
);

const passes: Rule<GardenFacts> = {
  id: 'rain-garden.passes',
  title: 'Left under its bank at the peak',
  why: 'What goes over the bank takes it along, and the next basins after it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '50 mm left at the peak' },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts) => {
    const worst = leastLeft(facts, facts.basins);
    if (!worst) return null;
    const value = worst.storm.freeboardM;
    const room = facts.work.dimensions.bermM - 0.05;
    const wide = room > 0 ? upToMm(worst.storm.peakOutM3s / GRASSED_SILL_C / room ** 1.5) : Infinity;
    const isRoom = wide <= 2 * worst.one.radiusM && wide > facts.work.dimensions.rockWidthM;
    const says = say`Lay its rock ${metres(wide)} wide`;
    return {
      value,
      limit: 0.05,
      at: worst.one.at,
      severity: gradeMin(value, 0, 0.05),
      do:
        value < 0.05
          ? isRoom
            ? say`${says}${of(worst.k, facts)}.`
            : `Build its bank higher${of(worst.k, facts)}, or lead less water to it.`
          : 'Nothing.',
      ...cureBy(value < 0.05 && isRoom, { work: facts.work.id, set: { 'dimensions.rockWidthM': wide }, says }),
    };
  },
};

const rock: Rule<GardenFacts> = {
  id: 'rain-garden.rock',
  title: 'Rock that stays at each overflow',
  why: 'Pea gravel at an overflow lies in the next basin after the first cloudburst.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'isbash-1936', locator: 'rough flow, at the velocity of critical depth', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const peaks = facts.basins.flatMap((basin) => stormAt(facts, basin.store)?.peakOutM3s ?? []);
    if (peaks.length === 0) return null;
    const V = Math.cbrt((GRAVITY * Math.max(...peaks)) / facts.work.dimensions.rockWidthM);
    const limit = stoneThatStands(V);
    const value = facts.work.dimensions.stoneM;
    const says = say`Lay stone of ${millimetres(upToMm(limit))}`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? say`${says} at each overflow, or make it wider.` : 'Nothing.',
      ...cureBy(value < limit && limit <= 0.6, { work: facts.work.id, set: { 'dimensions.stoneM': upToMm(limit) }, says }),
    };
  },
};

const area: Rule<GardenFacts> = {
  id: 'rain-garden.area',
  title: 'Area of its basins, against what this storm brings',
  why: 'Smaller than that it fills and runs on: that may be meant, and then the last overflow must be good.',
  unit: 'm²',
  kind: 'area',
  sense: 'min',
  source: { key: 'geometry', locator: 'runoff over depth and soil' },
  needs: NEEDS_STORM,
  find: ({ work, basins, runoff }) => {
    if (!runoff) return null;
    const { pondM: depth, voids: n, mediaM: m } = work.dimensions;
    const limit = GARDEN_AREA.evaluate({ V: runoff.volumeM3, d: depth, n, m });
    const value = basins.reduce((a, b) => a + b.areaM2, 0);
    return {
      value,
      limit,
      severity: value < limit ? 'weigh' : 'fine',
      do:
        value < limit
          ? say`It holds ${amount(
              basins.reduce((a, b) => a + heldBy(work, b, b.overflowM).volumeM3, 0),
              'volume',
            )} of ${amount(runoff.volumeM3, 'volume')}: more basins, or see where the rest goes.`
          : 'Nothing.',
    };
  },
};

const depth: Rule<GardenFacts> = {
  id: 'rain-garden.depth',
  title: 'Depth of standing water',
  why: 'A child can drown in a hand’s depth more than this; plants of a garden stand no more.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '0.1 to 0.2 m, 0.3 at the most where people live' },
  find: ({ work }) => {
    const value = work.dimensions.pondM;
    const says = say`Let water stand ${millimetres(0.2)}`;
    return {
      value,
      limit: 0.2,
      severity: gradeMax(value, 0.2, 0.3),
      do: value > 0.2 ? say`${says} and make it wider.` : 'Nothing.',
      ...cureBy(value > 0.2, { work: work.id, set: { 'dimensions.pondM': 0.2 }, says }),
    };
  },
};

const filled: Rule<GardenFacts> = {
  id: 'rain-garden.filled',
  title: 'Overflow above the ground at its lower edge',
  why: 'A basin dug in stays; one built up on a slope breaks at its lower side.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'no more than 0.2 m of water held by fill' },
  find: (facts) => {
    const { one: basin, k, value } = worstOf(facts.basins, (b) => b.overflowM - b.edgeM);
    const to = downToMm(basin.edgeM + 0.2);
    const says = say`Set the overflow of basin ${amount(k, 'count')} ${millimetres(basin.overflowM - to)} lower`;
    return {
      value,
      limit: 0.2,
      at: basin.at,
      severity: gradeMax(value, 0.2, 0.4),
      do: value > 0.2 ? say`${says}, so that it is dug in; smaller basins suit such a slope.` : 'Nothing.',
      ...cureBy(value > 0.2, { work: facts.work.id, set: { [`basins.${k - 1}.overflowM`]: to }, says }),
    };
  },
};

const media = leastRule<GardenFacts>(
  {
    id: 'rain-garden.soil',
    title: 'Loose soil under it',
    why: 'Turf and wheels have closed the ground: unloosened it stays a pond.',
    source: { ...COMMON_PRACTICE, locator: '0.3 to 0.6 m' },
  },
  {
    path: 'dimensions.mediaM',
    workOf,
    limitFor: () => 0.3,
    says: (m) => say`Loosen it ${metres(m)} deep`,
    also: ', with compost',
    mendUnder: 0,
  },
);

const turf: Rule<GardenFacts> = {
  id: 'rain-garden.turf',
  title: 'Turf smothered first',
  why: 'Turf left under the soil comes up through it, and keeps water out until then.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'card and mulch, then wait and look again before planting' },
  find: ({ work }): Finding => ({
    value: work.turf === 'smothered' ? 1 : 0,
    limit: 1,
    severity: work.turf === 'smothered' ? 'fine' : 'mend',
    do: work.turf === 'smothered' ? 'Nothing.' : 'Cover it with card and mulch, wait a season, look again, then dig.',
  }),
};

const mulch = leastRule<GardenFacts>(
  {
    id: 'rain-garden.mulch',
    title: 'Mulch on it',
    why: 'Bare soil seals under the first rain, and weeds come before the plants.',
    source: { ...COMMON_PRACTICE, locator: '50 to 80 mm of shredded wood' },
  },
  {
    path: 'dimensions.mulchM',
    workOf,
    limitFor: () => 0.05,
    says: (m) => say`Lay ${millimetres(m)} of mulch`,
    also: ', of wood that does not float',
    mendUnder: 0,
    kind: 'difference',
  },
);

const plants: Rule<GardenFacts> = {
  id: 'rain-garden.plants',
  title: 'Plants by how wet each part is',
  why: 'What likes wet feet dries out on the bank; what likes it dry drowns on the floor.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ work }): Finding => ({
    value: work.plants === 'zoned' ? 1 : 0,
    limit: 1,
    severity: work.plants === 'zoned' ? 'fine' : 'weigh',
    do:
      work.plants === 'zoned'
        ? 'Nothing.'
        : work.plants === 'none'
          ? 'Plant it before the wet season: rushes and sedges on the floor, what stands both on the sides, dry ones on the bank.'
          : 'Plant what stands wet on the floor, what stands both on the sides, dry ones on the bank.',
  }),
};

/** A drive is taken as smooth as this, and no flatter than this [s/m^(1/3), m/m]: common practice. */
const [DRIVE_N, LEAST_FALL] = [0.015, 0.002];

const drive: Rule<GardenFacts> = {
  id: 'rain-garden.drive',
  title: 'Water over the drive at the peak',
  why: 'A sheet over a drive slips under wheels and feet, and in frost it is ice.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '10 mm for feet, 30 mm for wheels; in frost none' },
  needs: NEEDS_STORM,
  applies: ({ work }) => work.lastOver === 'drive',
  find: (facts) => {
    const { work, basins, endFall } = facts;
    const last = basins[basins.length - 1];
    const storm = stormAt(facts, last.store);
    if (!storm || work.lastOver !== 'drive') return null;
    if (endFall === null)
      return {
        value: null,
        limit: 0.01,
        severity: 'unknown',
        do: 'Bring in the ground of the drive: its fall tells how deep water runs over it.',
      };
    const value = (((storm.peakOutM3s / work.dimensions.rockWidthM) * DRIVE_N) / Math.sqrt(Math.max(LEAST_FALL, endFall))) ** 0.6;
    return {
      value,
      limit: 0.01,
      at: last.lets,
      severity: gradeMax(value, 0.01, 0.03),
      do: value > 0.01 ? 'Lead it under the drive by a pipe or a grate, or spread it far wider; warn of ice.' : 'Nothing.',
    };
  },
};

export const GARDEN_RULES: readonly Rule<GardenFacts>[] = [
  soaks,
  tested,
  steps,
  bank,
  passes,
  rock,
  area,
  depth,
  filled,
  media,
  turf,
  mulch,
  plants,
  drive,
  ...setbackRules<GardenFacts>('rain-garden', ({ work }) => work.line),
];
