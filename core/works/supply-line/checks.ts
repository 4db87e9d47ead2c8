import type { Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, between, cureBy, gradeMax, gradeMin, upToMm } from '../rules.ts';
import type { SupplyLine } from './model.ts';
import { CAUTION_RULES } from './said.ts';
import { PUMPED_RULES } from './pump-checks.ts';
import { DRIP_RULES } from './drip-checks.ts';
import { type SupplyLineFacts, fallOf, gives, leastHead, pipeFor, restHead, undrained, unvented, velocityAt } from './standing.ts';
import { byFall, byPump, litres, widened } from './told.ts';

const at = ({ work }: SupplyLineFacts, atM: number): readonly [number, number] => pointAlong(work.line, atM).point;

/** Head there is for losses by its fall [m]. */
const headLeft = (work: SupplyLine): number => fallOf(work) - work.endHeadM;

const fall: Rule<SupplyLineFacts> = {
  id: 'supply-line.fall',
  title: 'Fall left for the pipe, of its lowest water',
  why: 'Without fall left over what is wanted at its end nothing runs, however wide the pipe.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'geometry' },
  applies: byFall,
  find: ({ work }) => {
    const value = headLeft(work);
    const lacks = amount(Math.max(0, -value), 'length');
    return {
      value,
      limit: value < 1e-6 ? 0 : 0.3,
      severity: gradeMin(value, 1e-6, 0.3),
      do:
        value < 1e-6
          ? say`It lacks ${lacks}: raise the store, end it lower, want less head, or put a pump in.`
          : value < 0.3
            ? 'So little fall asks for a wide pipe laid without a dip: try it with water before it is buried.'
            : 'Nothing.',
    };
  },
};

const flow: Rule<SupplyLineFacts> = {
  id: 'supply-line.flow',
  title: 'Flow it gives, of what is wanted',
  why: 'A pipe too thin fills a can in five minutes, and nobody goes there twice.',
  unit: 'm³/s',
  kind: 'tapFlow',
  sense: 'min',
  source: { key: 'swamee-jain-1976', locator: 'head lost along the pipe and in fittings equals its fall' },
  applies: (facts) => byFall(facts) && headLeft(facts.work) > 0,
  find: ({ work, ground }) => {
    const value = gives(work, ground);
    const lacks = value < work.flowM3s * (1 - 1e-9);
    const wide = pipeFor(work.flowM3s, headLeft(work), { ...work, lengthM: ground.lengthM });
    return {
      value,
      limit: work.flowM3s,
      severity: gradeMin(value, 0.5 * work.flowM3s, work.flowM3s * (1 - 1e-9)),
      ...(lacks ? widened(work, wide, 'No usual pipe gives it by so little fall: want less, or lay two.') : { do: 'Nothing.' }),
    };
  },
};

/** Roof that runs off through it: as it was said, or that it draws from [m2]; null where there is none. */
const roofAbove = ({ work, ground }: SupplyLineFacts): number | null => work.roofM2 ?? ground.from?.roofM2 ?? null;

const roof: Rule<SupplyLineFacts> = {
  id: 'supply-line.passes-roof',
  title: 'Flow it takes of the roof’s hardest five minutes',
  why: 'What the pipe does not take runs over the gutter, down the wall it was to keep dry.',
  unit: 'm³/s',
  kind: 'tapFlow',
  sense: 'min',
  needs: ['rain'],
  source: { ...COMMON_PRACTICE, locator: 'the pipe against the roof’s peak' },
  applies: (facts) => roofAbove(facts) !== null,
  find: (facts) => {
    const { work, ground, burstMmPerHour = null } = facts;
    const areaM2 = roofAbove(facts);
    if (areaM2 === null) return null;
    if (burstMmPerHour === null) return { value: null, limit: null, severity: 'unknown', do: 'Give the rain of five minutes.' };
    const needed = (burstMmPerHour * areaM2) / 3.6e6;
    const value = gives({ ...work, endHeadM: 0 }, ground, Math.max(work.levels.drawM, ground.from?.fullM ?? -Infinity));
    return {
      value,
      limit: needed,
      severity: gradeMin(value, 0.5 * needed, needed),
      do: value < needed ? say`It brings ${litres(needed)} then: lay a wider pipe, or a second one from the other gutter.` : 'Nothing.',
    };
  },
};

const velocity: Rule<SupplyLineFacts> = {
  id: 'supply-line.velocity',
  title: 'Velocity at the flow wanted',
  why: 'Fast water hammers when a tap is shut, and bursts joints.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'to 1.5 m/s; 3 m/s at the most' },
  find: ({ work }) => {
    const value = velocityAt(work.flowM3s, work);
    return {
      value,
      limit: 1.5,
      severity: gradeMax(value, 1.5, 3),
      do: value > 1.5 ? 'Lay a wider pipe, and taps that shut slowly.' : 'Nothing.',
    };
  },
};

const pressure: Rule<SupplyLineFacts> = {
  id: 'supply-line.pressure',
  title: 'Head on the pipe at rest, at its lowest place',
  why: 'A pipe at the foot of a hill carries the whole hill when the tap is shut.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'to what the pipe is made for; four fifths of it leaves room for hammer' },
  find: (facts) => {
    const { value, atM } = restHead(facts.work, facts.ground);
    const { standsM } = facts.work.pipe;
    const easyM = 0.8 * standsM;
    return {
      value,
      limit: value > standsM ? standsM : easyM,
      at: at(facts, atM),
      severity: gradeMax(value, easyM, standsM),
      do: value > easyM ? 'Lay a stronger pipe there, or break the pressure in a small open tank half way down.' : 'Nothing.',
    };
  },
};

const overHill: Rule<SupplyLineFacts> = {
  id: 'supply-line.over-hill',
  title: 'Least head along it while it runs',
  why: 'Where the pipe rises over its own head water pulls air in, and stops; a leak there sucks in dirt.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'a metre over every top' },
  applies: (facts) => byPump(facts) || fallOf(facts.work) > 0,
  find: (facts) => {
    const { value, atM } = leastHead(facts.work, facts.ground);
    return {
      value,
      limit: value < 0 ? 0 : 0.3,
      at: at(facts, atM),
      severity: gradeMin(value, 0, 0.3),
      do:
        value < 0.3
          ? say`At ${amount(atM, 'distance')} along it lies too high: lead it round that rise, dig it in deeper there, or lay the first part wider.`
          : 'Nothing.',
    };
  },
};

const listed = (places: readonly number[]): ReturnType<typeof say> =>
  say`${amount(places[0], 'distance')}${places.length > 1 ? ` and ${places.length - 1} more` : ''}`;

const vents: Rule<SupplyLineFacts> = {
  id: 'supply-line.vents',
  title: 'Tops where air gathers and cannot leave',
  why: 'A bubble at a top shuts a pipe as well as a valve does.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a vent at every top' },
  find: (facts) => {
    const places = unvented(facts.work, facts.ground);
    return {
      value: places.length,
      limit: 0,
      severity: places.length > 0 ? 'weigh' : 'fine',
      ...(places.length > 0 ? { at: at(facts, places[0]) } : {}),
      do: places.length > 0 ? say`Put a vent at ${listed(places)} along it, and note it here.` : 'Nothing.',
    };
  },
};

const wetLegs: Rule<SupplyLineFacts> = {
  id: 'supply-line.wet-legs',
  title: 'Dips in which water stays',
  why: 'Silt settles in a dip, water goes foul there, and frost bursts it.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a drain at every dip' },
  find: (facts) => {
    const places = undrained(facts.work, facts.ground);
    const isGrave = facts.work.frost === 'emptied';
    return {
      value: places.length,
      limit: 0,
      severity: places.length === 0 ? 'fine' : isGrave ? 'mend' : 'weigh',
      ...(places.length > 0 ? { at: at(facts, places[0]) } : {}),
      do: places.length > 0 ? say`Put a drain at ${listed(places)} along it, and note it here.` : 'Nothing.',
    };
  },
};

const cover: Rule<SupplyLineFacts> = {
  id: 'supply-line.cover',
  title: 'Ground over the pipe',
  why: 'A pipe that lies open is cut, trodden and cooked by the sun; a shallow one is ploughed up.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.45 m under beds and fields, 0.75 m under wheels; deeper than frost goes' },
  find: ({ work }) => {
    const value = work.pipe.coverM;
    const isOpen = value < 0.05;
    return {
      value,
      limit: 0.45,
      severity: value < 0.45 ? 'weigh' : 'fine',
      do: isOpen
        ? 'Shade it, tie it down, and mark it where anybody mows or drives; look along it each spring.'
        : value < 0.45
          ? 'Bury it 0.45 m, 0.75 m under wheels, or mark it.'
          : 'Nothing.',
    };
  },
};

/** Silt settles under where water is drawn [m]: common practice. */
const SILT_M = 0.05;

const draw: Rule<SupplyLineFacts> = {
  id: 'supply-line.draws',
  title: 'Lowest water over the floor of its store',
  why: 'Drawn off its floor a line sucks silt; drawn over its overflow it is dry.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'some 75 mm over the floor' },
  find: ({ work, ground }) => {
    if (ground.from === null) {
      return {
        value: null,
        limit: null,
        severity: 'unknown',
        do: 'Say which store it draws from; of a spring or a main, level its lowest water.',
      };
    }
    const { floorM, fullM, roofM2 } = ground.from;
    if (roofM2 !== null) {
      // A gutter is drawn dry by what it is for: a vessel fills from it, and nothing else draws on it.
      if (work.serves === 'vessel') return null;
      return {
        value: null,
        limit: null,
        severity: 'mend',
        do: say`${ground.from.name} keeps no water once the rain is over: draw from a tank it fills.`,
      };
    }
    const value = work.levels.drawM - floorM;
    const isOver = work.levels.drawM > fullM;
    const to = upToMm(floorM + SILT_M);
    const says = say`Draw from ${amount(to, 'level')}`;
    return {
      value,
      ...between(value, [SILT_M, fullM - floorM], 'min'),
      severity: isOver || value < 0 ? 'mend' : value < SILT_M ? 'weigh' : 'fine',
      do: isOver
        ? say`The water of ${ground.from.name} never stands so high: it is let out at ${amount(fullM, 'level')}.`
        : value < SILT_M
          ? say`${says}.`
          : 'Nothing.',
      ...cureBy(!isOver && value < SILT_M, { work: work.id, set: { 'levels.drawM': to }, says }),
    };
  },
};

const airGap: Rule<SupplyLineFacts> = {
  id: 'supply-line.air-gap',
  title: 'Its end over the water it fills',
  why: 'A pipe that ends under water is a siphon: when it stops it empties the store it filled.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'over the overflow, as far as the pipe is wide' },
  applies: ({ ground }) => ground.to !== null,
  find: ({ work, ground }) => {
    if (ground.to === null) return null;
    const full = ground.to.fullM;
    const value = work.levels.endM - full;
    const limit = work.pipe.diameterM;
    const to = upToMm(full + limit);
    const says = say`End it at ${amount(to, 'level')}`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0, limit - 1e-9),
      do: value < limit - 1e-9 ? say`${says}.` : 'Nothing.',
      ...cureBy(value < limit - 1e-9, { work: work.id, set: { 'levels.endM': to }, says }),
    };
  },
};

export const SUPPLY_LINE_RULES: readonly Rule<SupplyLineFacts>[] = [
  fall,
  flow,
  roof,
  velocity,
  pressure,
  overHill,
  vents,
  wetLegs,
  cover,
  draw,
  airGap,
  ...PUMPED_RULES,
  ...DRIP_RULES,
  ...CAUTION_RULES,
];
