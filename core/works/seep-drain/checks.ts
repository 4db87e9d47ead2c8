// Rules on seepage drains: what they are for, how they lie, what closes them.
import type { Finding, Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { DRAIN_SPACING } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, downToMm, gradeMax, gradeMin, metres, millimetres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { trenchRules } from '../trenched.ts';
import { type SeepFacts, clearsIn, depthsOf, fallOf, invertAt, pipeCarries, seepsIn } from './standing.ts';

/** A yard is to be dry again in so many hours, to be weighed and to be mended. */
const [DRY_H, LONG_H] = [12, 24];
const floods: Rule<SeepFacts> = {
  id: 'seep-drain.flood',
  title: 'Hours until the yard over it has seeped away',
  why: 'A holed pipe alone never clears a flood: water stands while it waits for the ground to let it through.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  needs: ['ground'],
  source: { ...COMMON_PRACTICE, locator: 'surface water and ground water need different things' },
  applies: ({ ground }) => ground.yard !== null,
  find: (facts) => {
    const { yard } = facts.ground;
    const value = clearsIn(facts);
    if (!yard || value === null) return null;
    return {
      value,
      limit: DRY_H,
      severity: gradeMax(value, DRY_H, LONG_H),
      do: value > DRY_H ? say`${amount(yard.holdsM3, 'volume')} stand there: set basins and whole pipe for what runs, and keep this for what seeps.` : 'Nothing.',
    };
  },
}; // prettier-ignore

const seeps: Rule<SeepFacts> = {
  id: 'seep-drain.takes',
  title: 'What seeps in, against what its pipe carries',
  why: 'A drain that runs full takes no more: water rises round it to where it was.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'two thirds: roots and silt take the rest' },
  find: ({ work, ground }): Finding | null => {
    const q = seepsIn(work, ground);
    if (q === null)
      return { value: null, limit: 0.67, severity: 'unknown', do: 'Dig a metre of it, leave it overnight, and time how it fills; or say how high ground water stands and how fast the soil lets it through.' };
    const carries = pipeCarries(work, ground);
    const value = (q * ground.lengthM) / Math.max(1e-12, carries);
    return {
      value,
      limit: 0.67,
      severity: gradeMax(value, 0.67, 1),
      do: value > 0.67 ? say`${amount(q * ground.lengthM, 'tapFlow')} seep in, ${amount(carries, 'tapFlow')} it carries: a wider pipe, more fall, or two shorter drains.` : 'Nothing.',
    };
  },
}; // prettier-ignore

const nothing: Rule<SeepFacts> = {
  id: 'seep-drain.below-water',
  title: 'Its floor under the ground water',
  why: 'A drain that lies over the ground water lies dry, and the ground stays as wet as it was.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: ({ work }) => work.seepM3s === undefined && work.waterTableM !== undefined,
  find: ({ work, ground }) => {
    const { waterTableM } = work;
    if (waterTableM === undefined) return null;
    const value = depthsOf(work, ground).mean + work.dimensions.underM - waterTableM;
    return { value, limit: 0.2, severity: gradeMin(value, 0, 0.2), do: value < 0.2 ? say`Lay it ${metres(0.2 - value)} deeper, or look for another reason why the ground is wet.` : 'Nothing.' };
  },
}; // prettier-ignore

/** Least fall at buildings and in the open, to weigh and to mend under [m/m] (handbook 5.9). */
const fallLimits = ({ work }: SeepFacts): readonly [weigh: number, mend: number] =>
  work.purpose === 'footing' || work.purpose === 'wall' ? [0.01, 0.005] : [0.005, 0.002];
const fall: Rule<SeepFacts> = {
  id: 'seep-drain.fall',
  title: 'Fall along it',
  why: 'Without fall silt stays, and every hand of sag keeps a puddle that closes the holes.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.5 %, 1 % at buildings' },
  find: (facts) => {
    const { work, ground } = facts;
    const value = fallOf(work, ground);
    const [weigh, mend] = fallLimits(facts);
    const to = downToMm(work.levels.upperM - weigh * ground.lengthM);
    const says = say`Lower its end to ${amount(to, 'level')}`;
    return {
      value,
      limit: weigh,
      severity: gradeMin(value, mend, weigh - 1e-5),
      do: value < weigh - 1e-5 ? say`${says}, or begin it higher.` : 'Nothing.',
      ...cureBy(value < weigh - 1e-5, { work: work.id, set: { 'levels.outletM': to }, says }),
    };
  },
};

/** Between readings water must fall: so much may one lie over a straight line, and a rise is a sag [m]. */
const [HUMP_M, SAG_M] = [0.005, 0.015];
const sags: Rule<SeepFacts> = {
  id: 'seep-drain.sags',
  title: 'Rise from one reading to the next, as laid',
  why: 'A sag is full for good: silt settles there first.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'no humps or sags; a reading every 2 m' },
  applies: ({ work }) => (work.laid ?? []).length > 1,
  find: ({ work }) => {
    const laid = [...(work.laid ?? [])].sort((a, b) => a.atM - b.atM);
    const rises = laid.slice(1).map((r, k) => ({ value: r.levelM - laid[k].levelM, atM: r.atM }));
    const worst = rises.reduce((a, b) => (b.value > a.value ? b : a));
    const value = Math.max(0, worst.value);
    return {
      value,
      limit: HUMP_M,
      at: pointAlong(work.line, worst.atM).point,
      severity: gradeMax(value, HUMP_M, SAG_M),
      do: value > HUMP_M ? say`Lift it and lower the bed at ${amount(worst.atM, 'length')} before it is covered.` : 'Nothing.',
    };
  },
};

const deep: Rule<SeepFacts> = {
  id: 'seep-drain.cover',
  title: 'Ground over its pipe, where it lies shallowest',
  why: 'Roots, spades and frost reach what lies shallow.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.2 to 0.45 m deep in yards; 0.3 m over the pipe' },
  find: ({ work, ground }) => {
    const value = depthsOf(work, ground).least - work.dimensions.pipeM;
    return { value, limit: 0.3, severity: gradeMin(value, 0.1, 0.299), do: value < 0.299 ? say`Lay it ${metres(0.3 - value)} deeper there, or draw it where the ground is higher.` : 'Nothing.' };
  },
}; // prettier-ignore

const pipe: Rule<SeepFacts> = {
  id: 'seep-drain.pipe',
  title: 'Its pipe, inside',
  why: 'A narrow pipe cannot be flushed or rodded.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '100 mm' },
  applies: ({ work }) => work.wrap !== 'bundle',
  find: ({ work }) => {
    const value = work.dimensions.pipeM;
    const says = say`Take ${millimetres(0.1)}`;
    return { value, limit: 0.1, severity: gradeMin(value, 0.05, 0.1), do: value < 0.1 ? say`${says}.` : 'Nothing.', ...cureBy(value < 0.1, { work: work.id, set: { 'dimensions.pipeM': 0.1 }, says }) };
  },
}; // prettier-ignore

const gravel: Rule<SeepFacts> = {
  id: 'seep-drain.gravel',
  title: 'Gravel on each side of its pipe',
  why: 'Gravel keeps the soil off the holes: where there is none, they close.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '75 to 100 mm' },
  applies: ({ work }) => work.wrap !== 'bundle',
  find: ({ work }) => {
    const { widthM, pipeM } = work.dimensions;
    const value = (widthM - pipeM) / 2;
    const to = pipeM + 0.15;
    const says = say`Dig it ${metres(to)} wide`;
    return { value, limit: 0.075, severity: gradeMin(value, 0.03, 0.0749), do: value < 0.0749 ? say`${says}.` : 'Nothing.', ...cureBy(value < 0.0749, { work: work.id, set: { 'dimensions.widthM': to }, says }) };
  },
}; // prettier-ignore

const wrap = saidRule<SeepFacts>(
  {
    id: 'seep-drain.wrap',
    title: 'Cloth for the soil it lies in',
    why: 'In fine soil a sock round the pipe clogs within years, and nobody can wash it; round the gravel there is twenty times as much cloth to clog.',
    source: { ...COMMON_PRACTICE, locator: 'wrap the gravel, not the pipe, in fine soil; a sock in clean sand' },
  },
  ({ work }) => {
    const { soil } = work;
    if (soil === 'not-known') return { severity: 'unknown', do: 'Rub a wet pinch from the bottom of the trench: sand, silt or clay?' };
    if (work.wrap === 'gravel') return FINE;
    if (work.wrap === 'none')
      return soil === 'clay'
        ? { severity: 'weigh', do: 'Wrap the gravel: clay that dries and cracks falls into it.' }
        : { severity: 'mend', do: 'Wrap the gravel: sand and silt wash into it and fill it.' };
    if (soil === 'sand') return FINE;
    return work.wrap === 'pipe'
      ? { severity: 'mend', do: 'Wrap the gravel instead: in silt or clay a sock closes.' }
      : { severity: 'weigh', do: 'A bundle has little cloth and little gravel: in fine soil lay gravel in cloth instead.' };
  },
);

const roof = saidRule<SeepFacts>(
  {
    id: 'seep-drain.roof',
    title: 'Roof water kept out of it',
    why: 'What comes off a roof in a minute floods the ground the drain was to dry, and leaves close its holes.',
    source: { ...COMMON_PRACTICE, locator: 'roof water in whole pipe; in slotted pipe only behind a basin that catches its debris' },
  },
  ({ work }) =>
    ({
      'not-said': { severity: 'unknown', do: 'Look where the downspouts end: does any of it come into this drain?' } as const,
      none: FINE,
      sump: { severity: 'weigh', do: 'Better a whole pipe of its own; else empty the sump each autumn.' } as const,
      straight: { severity: 'mend', do: 'Lead the roof away in whole pipe of its own.' } as const,
    })[work.downspouts],
);

/** What must leave a field in a day [m]: common practice. */
const DRAINS_M_DAY = 0.007;
const spacing: Rule<SeepFacts> = {
  id: 'seep-drain.spacing',
  title: 'The next drain, against how far apart they may lie',
  why: 'Midway between drains that lie too far apart the ground stays wet.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { key: 'ilri-16', locator: 'Hooghoudt; 7 mm a day, water 0.3 m under the ground midway', fromMemory: true },
  needs: ['ground'],
  applies: ({ work }) => work.apartM !== undefined,
  find: ({ work, ground, site }) => {
    const { apartM, soilMmPerHour } = work;
    if (apartM === undefined) return null;
    if (soilMmPerHour === undefined)
      return { value: null, limit: 1, severity: 'unknown', do: 'Find out how fast water moves through the soil there: a hole test below the ground water.' };
    const soil = site.soilAt(pointAlong(work.line, ground.lengthM / 2).point);
    if (!soil) return null;
    const K = (soilMmPerHour * 24) / 1000;
    const D = Math.max(0.05, soil.soilDepthM - depthsOf(work, ground).mean);
    const h = Math.max(0.05, depthsOf(work, ground).mean - 0.3);
    const may = DRAIN_SPACING.evaluate({ K1: K, K2: K, q: DRAINS_M_DAY, h, D, r: work.dimensions.widthM / 2 });
    const value = apartM / may;
    return { value, limit: 1, severity: gradeMax(value, 1, 1.5), do: value > 1 ? say`Lay them ${amount(may, 'distance')} apart, or deeper.` : 'Nothing.' };
  },
}; // prettier-ignore

const meets: Rule<SeepFacts> = {
  id: 'seep-drain.meets',
  title: 'Its end over what takes it',
  why: 'A drain that ends under water takes that water in.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  isOfLevels: true,
  source: { key: 'geometry', locator: 'water runs down' },
  applies: ({ ground }) => ground.taker !== null,
  find: ({ work, ground }) => {
    const { taker } = ground;
    if (!taker) return null;
    const value = work.levels.outletM - taker.levelM;
    return { value, limit: 0, severity: gradeMin(value, -0.001, 0), do: value < 0 ? say`Raise its end ${millimetres(-value)}, or lead it lower.` : 'Nothing.' };
  },
}; // prettier-ignore

const comesOut: Rule<SeepFacts> = {
  id: 'seep-drain.end',
  title: 'Its end under the ground there',
  why: 'An end nobody can see is an end nobody clears: it must come out, or lead into what takes it.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: COMMON_PRACTICE,
  applies: ({ ground }) => ground.taker === null,
  find: ({ work, ground }) => {
    const value = ground.groundM[ground.groundM.length - 1] - work.levels.outletM;
    return { value, limit: 0.1, severity: gradeMax(value, 0.1, 0.2), do: value > 0.1 ? say`It ends ${metres(value)} under the ground: draw it on to lower ground, or lead it into a drain, a soakaway or a sump with a pump.` : 'Nothing.' };
  },
}; // prettier-ignore

const trenched = trenchRules<SeepFacts>('seep-drain', {
  lineOf: ({ work }) => work.line,
  dugOf: ({ work, ground }) => depthsOf(work, ground).most + work.dimensions.underM,
  isAsked: ({ work }) => work.services === 'asked',
  laidAt: ({ work, ground }, atM) => {
    const { pipeM, overM, underM } = work.dimensions;
    const invertM = invertAt(work, ground, atM);
    return { lowM: invertM - underM, topM: invertM + pipeM + overM };
  },
  besideWall: '.',
  nearTree: 'Go round it, or pass it in whole pipe.',
  isAtFooting: ({ work }) => work.purpose === 'footing',
});

const septic: Rule<SeepFacts> = {
  id: 'seep-drain.septic',
  title: 'Distance to the septic field',
  why: 'A drain beside a field carries off what was to be cleaned by the soil.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '10 m, 15 m below it: verify locally' },
  find: ({ work, site }) => {
    const found = nearestFeature(work.line, site.features.filter((f) => f.kind === 'septic'));
    if (!found) return null;
    const value = found.distanceM;
    return { value, limit: 10, at: found.at, severity: gradeMin(value, 5, 10), do: value < 10 ? 'Keep it away from the field, and never below it.' : 'Nothing.' };
  },
}; // prettier-ignore

const mouth = saidRule<SeepFacts>(
  { id: 'seep-drain.mouth', title: 'Its end closed to animals', why: 'What nests in a pipe stops it.', source: COMMON_PRACTICE, applies: ({ ground }) => ground.taker === null },
  ({ work }) => (work.mouth === 'open' ? { severity: 'weigh', do: 'Put a grille on it that can be lifted off.' } : FINE),
); // prettier-ignore
const asked = saidRule<SeepFacts>(
  { id: 'seep-drain.asked', title: 'Whose ground or drain takes its water', why: 'It runs all winter: on a path it is ice.', source: { ...COMMON_PRACTICE, locator: 'verify locally' }, applies: ({ ground }) => ground.taker === null },
  ({ work }) => (work.asked === 'asked' ? FINE : { severity: 'unknown', do: 'Ask whoever owns the ground or the drain, and write down what was allowed.' }),
); // prettier-ignore
export const SEEP_DRAIN_RULES: readonly Rule<SeepFacts>[] = [
  floods,
  seeps,
  nothing,
  fall,
  sags,
  deep,
  pipe,
  gravel,
  wrap,
  roof,
  spacing,
  meets,
  comesOut,
  ...trenched,
  septic,
  mouth,
  asked,
];
