import { type Finding, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, downToMm, gradeMax, gradeMin, metres, upToMm } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { siltedShare, stormAt } from '../series.ts';
import { setbackRules } from '../setbacks.ts';
import { siltedRule } from '../silt-rule.ts';
import { AS_EMPTY, type SoakawayFacts, hoursDownTo, openOf, rateOf } from './standing.ts';

export type { SoakawayFacts } from './standing.ts';

const isStone = ({ work }: SoakawayFacts): boolean => work.fill !== 'open';

/** A rule on how long it takes to soak down to a share of its room. */
const soakRule = (
  card: Pick<Rule<SoakawayFacts>, 'id' | 'title' | 'why' | 'source'>,
  { share, weighH, mendH }: { readonly share: number; readonly weighH: number; readonly mendH: number },
): Rule<SoakawayFacts> => ({
  ...card,
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  needs: ['ground'],
  find: (facts) => {
    const rate = rateOf(facts);
    if (rate === null) return null;
    const value = hoursDownTo(facts.work, facts.hole, { share, rateMmPerHour: rate });
    if (!Number.isFinite(value))
      return { value: null, limit: weighH, severity: 'mend', do: 'Nothing lets its water through: choose other ground, or lead it on.' };
    return {
      value,
      limit: weighH,
      severity: gradeMax(value, weighH, mendH),
      do: value > weighH ? 'Make it shallower and longer, or several small ones: base and sides let through, depth does not.' : 'Nothing.',
    };
  },
});

const half = soakRule(
  {
    id: 'soakaway.half',
    title: 'Hours until it is half empty',
    why: 'The next storm comes while it is still full: then it is as good as none.',
    source: { key: 'bre-365', locator: 'half empty within 24 h', fromMemory: true },
  },
  { share: 0.5, weighH: 24, mendH: 48 },
);

const empties = soakRule(
  {
    id: 'soakaway.empties',
    title: 'Hours until it is all but empty',
    why: 'Water that stands for days goes foul, breeds mosquitoes and closes the ground under it.',
    source: { key: 'mde-2000', locator: '48 h, 72 h at the most; a fiftieth of its room left', fromMemory: true },
  },
  { share: AS_EMPTY, weighH: 48, mendH: 72 },
);

const tested: Rule<SoakawayFacts> = {
  id: 'soakaway.tested',
  title: 'Rate tested at its depth',
  why: 'Under the plough layer the ground is another one: only a hole as deep as it tells.',
  unit: 'mm/h',
  kind: 'intensity',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '13 mm/h and more; under 7 it stays full' },
  find: ({ work }) => {
    const { testedMmPerHour: value } = work;
    if (value === undefined)
      return { value: null, limit: 13, severity: 'unknown', do: 'Dig a hole as deep as it, fill it three times, note the slowest fall.' };
    return {
      value,
      limit: 13,
      severity: gradeMin(value, 7, 13),
      do: value < 13 ? 'Such ground takes in too little: spread the water over a planted field, or lead it on.' : 'Nothing.',
    };
  },
};

/** Clean ground of one day is not the ground of ten years. */
const [LEAST_SAFETY, WELL_SAFE] = [1.5, 2];
const safety: Rule<SoakawayFacts> = {
  id: 'soakaway.safety',
  title: 'Tested rate divided by',
  why: 'What was found in clean ground on one day falls as silt, roots and fines close it.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '2 where it can be cleaned; 1.5 at the least' },
  find: ({ work }) => {
    if (work.testedMmPerHour === undefined) return null;
    const value = work.dimensions.safety;
    return {
      value,
      limit: WELL_SAFE,
      severity: gradeMin(value, LEAST_SAFETY, WELL_SAFE),
      do: value < WELL_SAFE ? 'Divide its rate by 2.' : 'Nothing.',
      ...cureBy(value < WELL_SAFE, { work: work.id, set: { 'dimensions.safety': WELL_SAFE }, says: 'Divide its rate by 2' }),
    };
  },
};

const trap = saidRule<SoakawayFacts>(
  {
    id: 'soakaway.trap',
    title: 'Silt kept out before it',
    why: 'Silt in stone is never got out again: a soakaway without a trap is a hole full of mud in three years.',
    source: { ...COMMON_PRACTICE, locator: 'a grass strip or a sump before every one' },
  },
  ({ work }) =>
    work.trap === 'none'
      ? { severity: 'mend', do: 'Lead water to it over a strip of dense grass, or through a sump that somebody empties.' }
      : FINE,
);

const wrap = saidRule<SoakawayFacts>(
  {
    id: 'soakaway.wrap',
    title: 'Cloth between earth and stone',
    why: 'Fine earth moves into the gaps from the sides and from above.',
    source: { ...COMMON_PRACTICE, locator: 'sides and top; the base left open' },
    applies: isStone,
  },
  ({ work }) =>
    work.wrap === 'none' ? { severity: 'weigh', do: 'Lay filter cloth on its sides and over its stone; none on its floor.' } : FINE,
);

/** A hole deeper than this is a fall, and drowns a child [m]: common practice. */
const FALL_M = 0.6;

const cover = saidRule<SoakawayFacts>(
  {
    id: 'soakaway.cover',
    title: 'Nobody can fall into it',
    why: 'An open hole is not seen in grass, at night or under water.',
    source: { ...COMMON_PRACTICE, locator: 'a lid or fence over anything deeper than 0.6 m' },
    applies: ({ work }) => work.fill !== 'stone' && work.dimensions.depthM > FALL_M,
  },
  ({ work }) =>
    work.cover === 'none'
      ? { severity: 'mend', do: 'Lay a grate or a lid over it that carries a beast, and that a child cannot lift.' }
      : FINE,
);

const asked = saidRule<SoakawayFacts>(
  {
    id: 'soakaway.asked',
    title: 'Water let straight into a deeper layer',
    why: 'Others drink from that layer, and in most places it needs a permit.',
    source: { ...COMMON_PRACTICE, locator: 'verify locally' },
    applies: ({ work }) => work.form === 'shaft',
  },
  ({ work }) =>
    work.asked === 'allowed'
      ? FINE
      : { severity: 'unknown', do: 'Ask those who look after ground water whether it may be built, and what may run into it.' },
);

const table: Rule<SoakawayFacts> = {
  id: 'soakaway.water-table',
  title: 'Ground left between its floor and ground water',
  why: 'What soaks is cleaned on its way through dry ground; in wet ground it does not soak at all.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.6 to 1.2 m: verify locally' },
  find: ({ work }) => {
    const { waterTableM, dimensions } = work;
    if (waterTableM === undefined)
      return {
        value: null,
        limit: 1.2,
        severity: 'unknown',
        do: 'Look in the wettest month how deep the water stands in a hole or a well near it.',
      };
    const value = waterTableM - dimensions.depthM;
    const to = downToMm(waterTableM - 1.2);
    const says = say`Dig it ${metres(to)} deep`;
    return {
      value,
      limit: 1.2,
      severity: gradeMin(value, 0.6, 1.2),
      do: value < 1.2 ? (to >= 0.2 ? say`${says}, and longer.` : 'Ground water stands too high there for one.') : 'Nothing.',
      ...cureBy(value < 1.2 && to >= 0.2, { work: work.id, set: { 'dimensions.depthM': to }, says }),
    };
  },
};

const rock: Rule<SoakawayFacts> = {
  id: 'soakaway.rock',
  title: 'Soil left under its floor',
  why: 'On rock or a hard pan water runs along it and comes out lower down.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.6 m over rock: verify locally' },
  applies: ({ work }) => work.form !== 'shaft',
  find: ({ work, hole, site }) => {
    if (work.form === 'shaft') return null;
    const soil = site.soilAt(hole.ground.points[Math.floor(hole.ground.points.length / 2)]);
    if (soil === null) return { value: null, limit: null, severity: 'unknown', do: 'Describe the ground: how deep its soil is.' };
    const value = soil.soilDepthM - work.dimensions.depthM;
    const to = downToMm(soil.soilDepthM - 0.6);
    const says = say`Dig it ${metres(to)} deep`;
    return {
      value,
      limit: 0.6,
      severity: gradeMin(value, 0.3, 0.6),
      do:
        value < 0.6
          ? to >= 0.2
            ? say`${says}, and longer.`
            : 'The soil is too shallow there for one: a planted basin or a swale suits it.'
          : 'Nothing.',
      ...cureBy(value < 0.6 && to >= 0.2, { work: work.id, set: { 'dimensions.depthM': to }, says }),
    };
  },
};

const slope: Rule<SoakawayFacts> = {
  id: 'soakaway.slope',
  title: 'Slope it is dug in',
  why: 'Water let into a steep slope comes out of it again, and may take the slope along.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'none over 15 to 20 %, none where the ground has slipped' },
  find: ({ hole }) => ({
    value: hole.slope,
    limit: 0.15,
    severity: gradeMax(hole.slope, 0.15, 0.2),
    do: hole.slope > 0.15 ? 'Choose gentler ground, well back from the edge of a slope.' : 'Nothing.',
  }),
};

const level: Rule<SoakawayFacts> = {
  id: 'soakaway.level',
  title: 'Fall of the ground along it',
  why: 'Water stands level: what lies higher than its lowest place is dug for nothing.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  applies: ({ work }) => work.form === 'trench',
  find: ({ work, hole }) => {
    const value = hole.ground.groundM.reduce((a, v) => Math.max(a, v), -Infinity) - hole.rimM;
    const limit = 0.2 * work.dimensions.depthM;
    return {
      value,
      limit,
      severity: gradeMax(value, limit, 3 * limit),
      do: value > limit ? 'Turn it along the slope, or make two of it, each level.' : 'Nothing.',
    };
  },
};

/** Stone of one size holds no more than this, whatever was hoped. */
const MOST_VOIDS = 0.4;
const voids: Rule<SoakawayFacts> = {
  id: 'soakaway.voids',
  title: 'Share of its stone that water fills',
  why: 'A bucket of stone and a measure tell: what is counted on and not there runs over.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '0.35 to 0.40 for clean stone of 25 to 60 mm' },
  applies: isStone,
  find: ({ work }): Finding | null => {
    if (work.fill === 'open') return null;
    const value = work.dimensions.voids;
    return {
      value,
      limit: MOST_VOIDS,
      severity: gradeMax(value, MOST_VOIDS, 0.45),
      do: value > MOST_VOIDS ? 'Count on 0.40, or fill a bucket of the stone with water and measure.' : 'Nothing.',
      ...cureBy(value > MOST_VOIDS, { work: work.id, set: { 'dimensions.voids': MOST_VOIDS }, says: 'Count on 0.40 of its stone' }),
    };
  },
};

const room: Rule<SoakawayFacts> = {
  id: 'soakaway.room',
  title: 'Room, against what this storm brings',
  why: 'What it has no room for runs over its lower side: that may be meant, and then the ground below must be good.',
  unit: 'm³',
  kind: 'volume',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'by routing what comes through it' },
  needs: NEEDS_STORM,
  find: (facts) => {
    const storm = stormAt(facts, facts.work.id);
    if (!storm) return null;
    const open = openOf(facts.work, facts.hole);
    const limit = open + storm.spilledM3;
    return {
      value: open,
      limit,
      severity: storm.spilledM3 > 0.001 * limit ? 'weigh' : 'fine',
      do:
        storm.spilledM3 > 0.001 * limit
          ? say`${amount(storm.spilledM3, 'volume')} of ${amount(storm.inM3, 'volume')} run over it: make it larger, or see where they go.`
          : 'Nothing.',
    };
  },
};

const passes: Rule<SoakawayFacts> = {
  id: 'soakaway.passes',
  title: 'Left under its bank at the peak',
  why: 'Over the bank it goes where nobody chose, and takes the bank along.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '50 mm left at the peak' },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts) => {
    const storm = stormAt(facts, facts.work.id);
    if (!storm) return null;
    const value = storm.freeboardM;
    // As much more bank as lacks, above what stands in the way already.
    const to = upToMm(facts.work.dimensions.bermM + (0.05 - value) + 0.02);
    const says = say`Make its bank ${metres(to)} high`;
    return {
      value,
      limit: 0.05,
      severity: gradeMin(value, 0, 0.05),
      do:
        value < 0.05
          ? to <= 0.6
            ? say`${says}, or its way over wider.`
            : 'Make its way over wider, or lead less water to it.'
          : 'Nothing.',
      ...cureBy(value < 0.05 && to <= 0.6, { work: facts.work.id, set: { 'dimensions.bermM': to }, says }),
    };
  },
};

/** Nobody works unheld in an upright trench deeper than this [m]; deeper still it is for those who do it for a living. */
const [HELD_M, LICENSED_M] = [1.2, 3];
const digging: Rule<SoakawayFacts> = {
  id: 'soakaway.digging',
  title: 'Depth somebody digs it to',
  why: 'A trench wall falls without a sound, and a cubic metre of earth weighs as much as a car.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'sides held or sloped from 1.2 to 1.5 m on; wells by those who dig them: verify locally' },
  find: ({ work }) => {
    const { depthM: value } = work.dimensions;
    return {
      value,
      limit: HELD_M,
      severity: gradeMax(value, HELD_M, LICENSED_M),
      do:
        value > LICENSED_M
          ? 'Leave it to those who sink wells: shoring, air and a way out at every metre.'
          : value > HELD_M
            ? 'Dig it by machine with nobody in it, or hold its sides; fill the stone from outside.'
            : 'Nothing.',
    };
  },
};

export const SOAKAWAY_RULES: readonly Rule<SoakawayFacts>[] = [
  half,
  empties,
  tested,
  safety,
  room,
  passes,
  trap,
  wrap,
  cover,
  asked,
  table,
  rock,
  slope,
  level,
  voids,
  digging,
  siltedRule<SoakawayFacts>('soakaway', {
    why: 'What silt fills no storm finds, and it lies where water should go through.',
    limit: 10,
    shareOf: ({ work }) => siltedShare(work),
    does: 'Empty its trap; where its stone is full of silt, dig it out and wash it.',
  }),
  ...setbackRules<SoakawayFacts>('soakaway', ({ work }) => work.line),
];
