import type { Rule } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, millimetres, upToMm } from '../rules.ts';
import type { WaterLine } from './model.ts';
import { CAUTION_RULES } from './said.ts';
import {
  type WaterLineFacts,
  dripsOf,
  fallOf,
  gives,
  leastHead,
  lossAt,
  panelsFor,
  pipeFor,
  pumpPower,
  restHead,
  undrained,
  unvented,
  velocityAt,
} from './standing.ts';

const byFall = ({ work }: WaterLineFacts): boolean => work.drive === 'fall';
const byPump = ({ work }: WaterLineFacts): boolean => work.drive === 'pump';
const at = ({ work }: WaterLineFacts, atM: number): readonly [number, number] => pointAlong(work.line, atM).point;
const litres = (m3s: number): ReturnType<typeof amount> => amount(m3s, 'tapFlow');

/** Head there is for losses by its fall [m]. */
const headLeft = (work: WaterLine): number => fallOf(work) - work.endHeadM;

const fall: Rule<WaterLineFacts> = {
  id: 'water-line.fall',
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
      limit: 0,
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

const flow: Rule<WaterLineFacts> = {
  id: 'water-line.flow',
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
    const wide = pipeFor(work.flowM3s, headLeft(work), work, ground.lengthM);
    const says = say`Lay a pipe of ${millimetres(wide ?? 0)} inside`;
    return {
      value,
      limit: work.flowM3s,
      severity: gradeMin(value, 0.5 * work.flowM3s, work.flowM3s * (1 - 1e-9)),
      do: !lacks ? 'Nothing.' : wide === null ? 'No usual pipe gives it by so little fall: want less, or lay two.' : say`${says}.`,
      ...cureBy(lacks && wide !== null, { work: work.id, set: { 'pipe.diameterM': wide ?? 0 }, says }),
    };
  },
};

const roof: Rule<WaterLineFacts> = {
  id: 'water-line.passes-roof',
  title: 'Flow it takes of the roof’s hardest five minutes',
  why: 'What the pipe does not take runs over the gutter, down the wall it was to keep dry.',
  unit: 'm³/s',
  kind: 'tapFlow',
  sense: 'min',
  needs: ['rain'],
  source: { ...COMMON_PRACTICE, locator: 'the pipe against the roof’s peak' },
  applies: ({ work, ground }) => (work.roofM2 ?? ground.from?.roofM2 ?? null) !== null,
  find: ({ work, ground, burstMmPerHour = null }) => {
    const areaM2 = work.roofM2 ?? ground.from?.roofM2 ?? 0;
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

const velocity: Rule<WaterLineFacts> = {
  id: 'water-line.velocity',
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

const pressure: Rule<WaterLineFacts> = {
  id: 'water-line.pressure',
  title: 'Head on the pipe at rest, at its lowest place',
  why: 'A pipe at the foot of a hill carries the whole hill when the tap is shut.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'to what the pipe is made for; four fifths of it leaves room for hammer' },
  find: (facts) => {
    const { value, atM } = restHead(facts.work, facts.ground);
    const limit = facts.work.pipe.standsM;
    return {
      value,
      limit,
      at: at(facts, atM),
      severity: gradeMax(value, 0.8 * limit, limit),
      do: value > 0.8 * limit ? 'Lay a stronger pipe there, or break the pressure in a small open tank half way down.' : 'Nothing.',
    };
  },
};

const overHill: Rule<WaterLineFacts> = {
  id: 'water-line.over-hill',
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
      limit: 0,
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

const vents: Rule<WaterLineFacts> = {
  id: 'water-line.vents',
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

const wetLegs: Rule<WaterLineFacts> = {
  id: 'water-line.wet-legs',
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

const cover: Rule<WaterLineFacts> = {
  id: 'water-line.cover',
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

const draw: Rule<WaterLineFacts> = {
  id: 'water-line.draws',
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
    // A gutter is drawn dry by what it is for.
    if (roofM2 !== null) return null;
    const value = work.levels.drawM - floorM;
    const isOver = work.levels.drawM > fullM;
    const to = upToMm(floorM + SILT_M);
    const says = say`Draw from ${amount(to, 'level')}`;
    return {
      value,
      limit: SILT_M,
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

const airGap: Rule<WaterLineFacts> = {
  id: 'water-line.air-gap',
  title: 'Its end over the water it fills',
  why: 'A pipe that ends under water is a siphon: when it stops it empties the store it filled.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'over the overflow, as far as the pipe is wide' },
  applies: ({ ground }) => ground.to !== null,
  find: ({ work, ground }) => {
    const full = ground.to?.fullM ?? 0;
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

const suction: Rule<WaterLineFacts> = {
  id: 'water-line.suction',
  title: 'Height the pump sucks',
  why: 'Water is pushed up by the air alone: from seven metres on it boils off in the pipe and the pump runs dry.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'six metres in practice at the sea, a metre less for each 1000 m up' },
  applies: (facts) => byPump(facts) && facts.work.pump.stands === 'dry',
  find: ({ work }) => {
    const value = work.pump.overM;
    return {
      value,
      limit: 6,
      severity: gradeMax(value, 6, 7),
      do: value > 6 ? 'Stand the pump lower, or hang one in the water.' : 'Nothing.',
    };
  },
};

const pumpLoss: Rule<WaterLineFacts> = {
  id: 'water-line.pump-loss',
  title: 'Head lost in the pipe, of what it lifts and leaves',
  why: 'Head lost in a thin pipe is paid every hour the pump runs.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'losses up to a fifth' },
  applies: (facts) => byPump(facts) && Math.max(0, -fallOf(facts.work)) + facts.work.endHeadM > 0,
  find: ({ work, ground }) => {
    const useful = Math.max(0, -fallOf(work)) + work.endHeadM;
    const value = lossAt(work.flowM3s, work, ground.lengthM) / useful;
    const wide = pipeFor(work.flowM3s, 0.2 * useful, work, ground.lengthM);
    const says = say`Lay a pipe of ${millimetres(wide ?? 0)} inside`;
    return {
      value,
      limit: 0.2,
      severity: gradeMax(value, 0.2, 1),
      do: value <= 0.2 ? 'Nothing.' : wide === null ? 'Pump less for longer.' : say`${says}.`,
      ...cureBy(value > 0.2 && wide !== null, { work: work.id, set: { 'pipe.diameterM': wide ?? 0 }, says }),
    };
  },
};

const plate: Rule<WaterLineFacts> = {
  id: 'water-line.pump-power',
  title: 'Power of the pump, of what it must take',
  why: 'A pump too weak stands and hums against the hill.',
  unit: 'W',
  kind: 'power',
  sense: 'min',
  source: { key: 'geometry', locator: 'weight of water times height over efficiency' },
  applies: byPump,
  find: ({ work, ground }) => {
    const limit = pumpPower(work, ground);
    const value = work.pump.plateW;
    if (value === undefined)
      return {
        value: null,
        limit,
        severity: 'unknown',
        do: say`Choose a pump by its curve that takes about ${amount(limit, 'power')}, and note its plate.`,
      };
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? 'Take a stronger pump, or pump less for longer.' : 'Nothing.',
    };
  },
};

const panels: Rule<WaterLineFacts> = {
  id: 'water-line.panels',
  title: 'Panels, of what the day’s water asks for',
  why: 'With too few panels the pump starts late, stops early, and the tank is empty by August.',
  unit: 'W',
  kind: 'power',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '2.725 Wh a cubic metre and metre, over what pump and panels lose' },
  applies: (facts) => byPump(facts) && facts.work.pump.power === 'sun',
  find: ({ work, ground }) => {
    const limit = panelsFor(work, ground);
    const value = work.pump.panelsW;
    if (value === undefined)
      return {
        value: null,
        limit,
        severity: 'unknown',
        do: say`It asks for panels of ${amount(limit, 'power')} at their peak: note what you have.`,
      };
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? 'Add panels, or ask for less water a day.' : 'Nothing.',
    };
  },
};

const dripEven: Rule<WaterLineFacts> = {
  id: 'water-line.drip-even',
  title: 'Less at the last dripper than at the first',
  why: 'Where the far end of a line gets half, those plants die or all others are drowned.',
  unit: 'ratio',
  kind: 'slope',
  sense: 'max',
  source: { key: 'keller-bliesner-1990', locator: 'a tenth between the ends of a line', fromMemory: true },
  applies: ({ work }) => work.serves === 'drip',
  find: ({ work }) => {
    const value = dripsOf(work).less;
    return {
      value,
      limit: 0.1,
      severity: gradeMax(value, 0.1, 0.2),
      do: value > 0.1 ? 'Lay shorter lines, fed from their middle, or wider ones.' : 'Nothing.',
    };
  },
};

const dripFlow: Rule<WaterLineFacts> = {
  id: 'water-line.drip-flow',
  title: 'Flow wanted, of what the drippers let out',
  why: 'Less than all drippers together let out fills only the first lines.',
  unit: 'm³/s',
  kind: 'tapFlow',
  sense: 'min',
  source: { key: 'keller-bliesner-1990', locator: 'flow of a dripper by its head', fromMemory: true },
  applies: ({ work }) => work.serves === 'drip',
  find: ({ work }) => {
    const limit = dripsOf(work).allM3s;
    const value = work.flowM3s;
    const to = Math.ceil(limit * 1e6) / 1e6;
    const says = say`Ask for ${litres(to)}`;
    const lacks = value < limit * (1 - 1e-9);
    return {
      value,
      limit,
      severity: gradeMin(value, 0.8 * limit, limit * (1 - 1e-9)),
      do: lacks ? say`${says}, or open a part of the lines at a time.` : 'Nothing.',
      ...cureBy(lacks, { work: work.id, set: { flowM3s: to }, says }),
    };
  },
};

export const WATER_LINE_RULES: readonly Rule<WaterLineFacts>[] = [
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
  suction,
  pumpLoss,
  plate,
  panels,
  dripEven,
  dripFlow,
  ...CAUTION_RULES,
];
