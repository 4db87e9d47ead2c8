import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, metres } from '../rules.ts';
import { LET_GO } from '../exit.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { TANK_FLOATS, TANK_PRESSES } from './formulas.ts';
import { CRATE_RULES, crateKg } from './crates.ts';
import { JOIN_RULES } from './joined.ts';
import { type Tank, rimHeight } from './model.ts';
import { MORTAR_RULES, isMortar, mortarKg } from './mortar.ts';
import { type TankFacts, baseM, fillsOf, floorOf, footM2, holdsM3, lostM3, oneM3, overflowPasses } from './standing.ts';

export type { TankFacts } from './standing.ts';

const isBuried = ({ tank }: TankFacts): boolean => tank.stands === 'buried';
const isUp = (facts: TankFacts): boolean => !isBuried(facts);

const overflowLow: Rule<TankFacts> = {
  id: 'tank.overflow-low',
  title: 'Room lost over a low overflow',
  why: 'All above the overflow is paid for and never filled.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'its pipe just under the rim; a twentieth of the room may go' },
  find: ({ tank }) => {
    const lost = lostM3(tank);
    const value = lost / Math.max(1e-9, holdsM3(tank, rimHeight(tank)));
    const { overflowPipeM } = tank.dimensions;
    const to = Math.floor((rimHeight(tank) - overflowPipeM - 0.02) * 1000) / 1000;
    return {
      value,
      limit: 0.05,
      severity: gradeMax(value, 0.05, 0.15),
      do: value > 0.05 ? say`${amount(lost, 'liquid')} are lost each time it fills: raise the overflow to ${metres(to)} over its floor.` : 'Nothing.',
      ...cureBy(value > 0.05, { work: tank.id, set: { 'dimensions.overflowM': to }, says: say`Raise the overflow to ${metres(to)}` }),
    };
  },
}; // prettier-ignore

const passes: Rule<TankFacts> = {
  id: 'tank.overflow-passes',
  title: 'What the overflow passes against what comes',
  why: 'A vessel that fills faster than it runs over lifts its lid, and washes out what it stands on.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'as able as the inlet, in the worst storm' },
  needs: NEEDS_STORM,
  find: ({ tank, storm }) => {
    if (!storm || !(storm.peakInM3s > 0)) return null;
    const able = tank.count * overflowPasses(tank);
    const value = able / storm.peakInM3s;
    return {
      value,
      limit: 1,
      severity: gradeMin(value, 0.8, 1),
      do: value < 1 ? say`It passes ${amount(able, 'flow')} of the ${amount(storm.peakInM3s, 'flow')} that come: fit a wider pipe, or a second one beside it.` : 'Nothing.',
    };
  },
}; // prettier-ignore

/** Overflow let out this near a footing softens it [m]: common practice. */
const BESIDE_M = 3;
const overflowLeads = saidRule<TankFacts>(
  {
    id: 'tank.overflow-leads',
    title: 'Its overflow leads somewhere',
    why: 'In the wet half of the year a tank is a pipe: what comes runs over, and out at its foot.',
    source: { ...COMMON_PRACTICE, locator: 'led to a planted basin, a swale or a drain, never back to the slope it was to save' },
    applies: ({ links }) => links.length > 0,
  },
  ({ tank, links, site }) => {
    const to = links.find((l) => l.outlet === `${tank.id}#over`)?.to;
    if (to !== undefined && !LET_GO.has(to)) return FINE;
    const near = nearestFeature([tank.at, tank.at], site.features.filter((f) => f.kind === 'building'));
    return near && near.distanceM < BESIDE_M
      ? { severity: 'mend', do: say`It lets go ${metres(near.distanceM)} from a building: lead it to a basin, a swale or a drain.` }
      : { severity: 'weigh', do: 'Say where it leads: to a rain garden, a swale or a soakaway.' };
  },
); // prettier-ignore

const silt: Rule<TankFacts> = {
  id: 'tank.silt',
  title: 'Tap over the floor',
  why: 'Silt settles on the floor: a tap at the floor draws it, and clogs.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'about 75 mm' },
  find: ({ tank }) => {
    const value = tank.dimensions.tapM;
    return {
      value,
      limit: 0.075,
      severity: gradeMin(value, 0.03, 0.075),
      do: value < 0.075 ? 'Set the tap 75 mm over its floor.' : 'Nothing.',
      ...cureBy(value < 0.075, { work: tank.id, set: { 'dimensions.tapM': 0.075 }, says: 'Set the tap 75 mm over its floor' }),
    };
  },
};

const can: Rule<TankFacts> = {
  id: 'tank.can',
  title: 'Tap over the ground',
  why: 'A can must stand under the tap, and a hose needs some fall.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.4 m for a can' },
  applies: (facts) => facts.tank.draws === 'tap' && !(isMortar(facts) && facts.tank.dimensions.standM < 0),
  find: ({ tank }) => {
    const value = tank.dimensions.standM + tank.dimensions.tapM;
    return {
      value,
      limit: 0.4,
      severity: gradeMin(value, 0, 0.4),
      do: value < 0 ? 'A tap under the ground needs a pit; with a high inlet it needs a pump.' : value < 0.4 ? 'Stand it higher, or set the tap up: a can does not fit under it.' : 'Nothing.',
    };
  },
}; // prettier-ignore

/** What soil under a foot carries without settling unevenly, and what packed gravel does [kPa]: common practice. */
const CARRIES = { soil: 25, blocks: 60, slab: 100 } as const;
/** A bought vessel of which nobody has said what it weighs adds to its water this share of it at the most: common practice. */
const UNWEIGHED_SHARE = 0.1;
/** What one of them weighs empty, the soil on it with it [kg]; null where nobody knows. */
export const emptyKgOf = (tank: Tank): number | null =>
  tank.made === 'crates' ? crateKg(tank) : (tank.emptyKg ?? (tank.made === 'mortar' ? mortarKg(tank) : null));
/** What one of them holds, filled to its rim [m3]. */
export const brimM3 = (tank: Tank): number => fillsOf(tank) * oneM3(tank, rimHeight(tank));
/** Pressure under one of them, full to its rim [kPa]; by its water alone where nobody knows what it weighs. */
export const pressureOf = (tank: Tank): number =>
  TANK_PRESSES.evaluate({ V: brimM3(tank), m: emptyKgOf(tank) ?? WATER_ALONE_KG, A: footM2(tank) });
const WATER_ALONE_KG = 0;

const presses: Rule<TankFacts> = {
  id: 'tank.presses',
  title: 'Pressure under it when full',
  why: 'A full vessel is as heavy as cars: what settles unevenly tips, and tears its pipes.',
  unit: 'kPa',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '25 kPa on soil, 60 on blocks, 100 on a slab over packed gravel' },
  applies: isUp,
  find: ({ tank }) => {
    const value = pressureOf(tank);
    const limit = CARRIES[tank.stands === 'buried' ? 'slab' : tank.stands];
    // Nearly as much as the ground carries by its water alone: its own weight decides.
    const hangs = emptyKgOf(tank) === null && value <= limit && value * (1 + UNWEIGHED_SHARE) > limit;
    if (hangs)
      return {
        value: null,
        limit,
        severity: 'unknown',
        do: 'Say what it weighs empty: by its water alone it presses nearly as much as the ground carries.',
      };
    return {
      value,
      limit,
      severity: gradeMax(value, limit, 1.5 * limit),
      do: value > limit ? 'Give it a level, packed bed of gravel with a slab, wider than its foot.' : 'Nothing.',
    };
  },
};

const topples: Rule<TankFacts> = {
  id: 'tank.topples',
  title: 'Height over its least foot',
  why: 'A tall, narrow vessel goes over in wind when it is empty, in a quake when it is full, and on a child.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'twice as high as wide, its stand counted, and tied above that' },
  applies: isUp,
  find: ({ tank }) => {
    const value = (rimHeight(tank) + Math.max(0, tank.dimensions.standM)) / baseM(tank);
    return {
      value,
      limit: 2,
      severity: gradeMax(value, 2, 3),
      do: value > 2 ? 'Tie it to a wall by two straps, or stand it lower; brace the stand crosswise.' : 'Nothing.',
    };
  },
};

const floats: Rule<TankFacts> = {
  id: 'tank.floats',
  title: 'Weight over lift when it is empty',
  why: 'Ground water lifts an empty vessel out of its pit.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '1.1 at least' },
  applies: isBuried,
  find: (facts) => {
    const { tank, ground } = facts;
    if (tank.waterTableM === undefined) return { value: null, limit: 1.1, severity: 'unknown', do: 'Dig or ask how high the ground water stands in the wet season.' };
    const under = ground.groundM - tank.waterTableM - floorOf(tank, ground);
    if (under <= 0) return { value: null, limit: 1.1, severity: 'fine', do: 'Nothing: the ground water stays under it.' };
    const kg = emptyKgOf(tank);
    if (kg === null) return { value: null, limit: 1.1, severity: 'unknown', do: 'Say what it weighs empty.' };
    const value = TANK_FLOATS.evaluate({ m: kg, c: 0, V: fillsOf(tank) * oneM3(tank, Math.min(under, rimHeight(tank))) });
    return {
      value,
      limit: 1.1,
      severity: gradeMin(value, 1, 1.1),
      do: value < 1.1 ? 'Anchor it to a slab, never empty it in the wet season, or drain round it.' : 'Nothing.',
    };
  },
}; // prettier-ignore

const lid = saidRule<TankFacts>(
  {
    id: 'tank.lid',
    title: 'Its top',
    why: 'An open tank drowns children and animals, breeds mosquitoes and dries away.',
    source: { ...COMMON_PRACTICE, locator: 'a lid that locks, and drains' },
  },
  ({ tank }) => (tank.lid === 'open' ? { severity: 'mend', do: 'Close it by a lid that locks and sheds its water.' } : FINE),
);
const mosquitoes = saidRule<TankFacts>(
  {
    id: 'tank.screen',
    title: 'Its openings',
    why: 'Mosquitoes need a hole of two millimetres and ten days.',
    source: { ...COMMON_PRACTICE, locator: 'mesh of 1 mm at inlet, overflow and vent' },
  },
  ({ tank }) =>
    tank.screen === 'none' ? { severity: 'mend', do: 'Screen inlet, overflow and vent by mesh of 1 mm, fixed so that it can be cleaned.' } : FINE,
); // prettier-ignore
const light = saidRule<TankFacts>(
  { id: 'tank.light', title: 'Light kept out', why: 'Light turns stored water green within weeks.', source: COMMON_PRACTICE },
  ({ tank }) => (tank.wall === 'light' ? { severity: 'weigh', do: 'Paint or wrap it dark, or stand it in a shed.' } : FINE),
);
const fitting = saidRule<TankFacts>(
  {
    id: 'tank.fitting',
    title: 'Its tap in its wall',
    why: 'A tap glued or screwed into a thin wall works loose, and all of it runs out in a night.',
    source: { ...COMMON_PRACTICE, locator: 'a fitting bolted through, with a washer on both sides' },
    applies: ({ tank }) => tank.draws === 'tap',
  },
  ({ tank }) => (tank.fitting === 'glued' ? { severity: 'weigh', do: 'Fit a tap that is bolted through the wall.' } : FINE),
);
const frost = saidRule<TankFacts>(
  {
    id: 'tank.frost',
    title: 'Frost',
    why: 'Ice splits taps, pipes and vessels that are full.',
    source: { ...COMMON_PRACTICE, locator: 'emptied before the first hard frost, its tap left open' },
    applies: (facts) => isUp(facts) && facts.tank.frost !== 'none',
  },
  ({ tank }) => {
    if (tank.frost === 'not-said') return { severity: 'unknown', do: 'Say whether it freezes there, and whether it is emptied before.' };
    return tank.frost === 'stays'
      ? { severity: 'mend', do: 'Empty it before the first hard frost and leave its tap open, or bury it.' }
      : FINE;
  },
);
const drinking = saidRule<TankFacts>(
  {
    id: 'tank.drinking',
    title: 'Water to drink',
    why: 'Rain off a roof carries what birds and dust leave there.',
    source: { key: 'common-practice', locator: 'filters of 5 and 1 µm and ultraviolet light or chlorine; local rules first' },
    applies: ({ tank }) => tank.use === 'drinking',
  },
  ({ tank }) =>
    tank.treated === 'filtered'
      ? FINE
      : {
          severity: 'mend',
          do: 'Filter to 5, then 1 µm, and disinfect; have it tested; follow local rules. No lead, no tar, and an air gap before mains.',
        },
);

const fills: Rule<TankFacts> = {
  id: 'tank.fills',
  title: 'Of what the storm brings, kept',
  why: 'A vessel that fills in the first storm was bought too small, or its water has nowhere better to go.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'found full, it keeps nothing: that is told day by day; here by its room alone' },
  needs: NEEDS_STORM,
  find: ({ tank, storm }) => {
    if (!storm || !(storm.inM3 > 0)) return null;
    const value = holdsM3(tank, tank.dimensions.overflowM) / storm.inM3;
    return {
      value,
      limit: 0.5,
      severity: gradeMin(value, 0.1, 0.5),
      do: value < 0.5 ? say`It has room for ${amount(holdsM3(tank, tank.dimensions.overflowM), 'liquid')} of ${amount(storm.inM3, 'liquid')}: see what more room would supply, and lead the rest to where it is wanted.` : 'Nothing.',
    };
  },
}; // prettier-ignore

export const TANK_RULES: readonly Rule<TankFacts>[] = [overflowLow, passes, overflowLeads, fills, silt, can, presses, topples, floats, lid, mosquitoes, light, fitting, frost, drinking, ...JOIN_RULES, ...MORTAR_RULES, ...CRATE_RULES]; // prettier-ignore
