// A trench filled with stone that leads away from a pond: a dug floor, a spill level, and the top of the stone.
import { stoneTrenchDescriptor } from './descriptor.ts';
import {
  type Figure,
  type Host,
  NEEDS_STORM,
  type Outlet,
  type PlacedWork,
  type Rule,
  type SectionShape,
  type StormFacts,
  type Technique,
} from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type FlowLaw, GRASSED_SILL_C, ROCK_SEEPAGE, ROCK_VOIDS, Rating, VOID_RADIUS, ratedLaw } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { stoneRoughness, stoneStands } from '../exit.ts';
import { beginWayOut } from '../beginning.ts';
import { quantitiesOf, stepsOf, stoneM3 } from './making.ts';
import { type StoneTrench, newTrench } from './model.ts';
import { type HostPlace, pegAt, placeOnHost } from '../on-host.ts';
import { cureBy, downToMm, gradeMin, runRules, upToMm } from '../rules.ts';
import { type WayOutFacts, exitBelow, exitVelocityRule, onNaturalGroundRule, GROUND_BELOW_UNKNOWN } from '../ways-out.ts';

export type { StoneTrench } from './model.ts';

/** Flow by the level of the pond: through the stone from the lip up, and over its top. */
export function trenchLaw({ levels, dimensions }: Pick<StoneTrench, 'levels' | 'dimensions'>): FlowLaw {
  const { widthM, lengthM, stoneM } = dimensions;
  const { sillM, rockTopM } = levels;
  const m = VOID_RADIUS.evaluate({ D: stoneM, p: ROCK_VOIDS });
  const thickM = Math.max(0, rockTopM - sillM);
  const rating = Rating.by(40, (share) => {
    const head = Math.max(0.05, 1.5 * thickM + 0.3) * share;
    const inside = Math.min(head, thickM);
    // Water stands to the top of the stone at its near end and falls out at its far end.
    const through = inside > 0 ? widthM * ROCK_SEEPAGE.evaluate({ h1: inside, h2: 0, L: lengthM, m, p: ROCK_VOIDS }) : 0;
    const over = GRASSED_SILL_C * widthM * Math.max(0, head - thickM) ** 1.5;
    return [head, through + over];
  });
  return ratedLaw(rating, sillM);
}

interface TrenchFacts extends WayOutFacts {
  readonly trench: StoneTrench;
}

const threeLevels: Rule<TrenchFacts> = {
  id: 'stone-trench.levels',
  isOfLevels: true,
  title: 'Floor, lip and top of the stone',
  why: 'They are three levels: a floor as high as the lip drains nothing, stone no higher than the lip lets nothing through.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'its own dug floor, stone top and spill level' },
  find: ({ trench }) => {
    const { floorM, sillM, rockTopM } = trench.levels;
    const value = Math.min(sillM - floorM, rockTopM - sillM);
    return {
      value,
      limit: 0.1,
      severity: gradeMin(value, 0, 0.1),
      do: value < 0.1 ? say`Set the floor ${amount(0.1, 'difference')} or more below the lip, and the stone as much above it.` : 'Nothing.',
      ...cureBy(value < 0.1, {
        work: trench.id,
        set: { 'levels.floorM': Math.min(floorM, downToMm(sillM - 0.1)), 'levels.rockTopM': Math.max(rockTopM, upToMm(sillM + 0.1)) },
        says: say`Set floor and stone ${amount(0.1, 'difference')} from the lip`,
      }),
    };
  },
};

const fallsAway: Rule<TrenchFacts> = {
  id: 'stone-trench.fall',
  title: 'Falling away from the pond',
  why: 'A trench that falls towards the pond stands full of water and silt.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { key: 'common-practice', locator: 'falling away from the pond, ending on your own land' },
  find: ({ trench, place }) => {
    const value = (trench.levels.sillM - trench.levels.floorM) / trench.dimensions.lengthM;
    const meets = place.groundM !== null && place.slopeBelow !== null && place.slopeBelow > 0;
    return {
      value,
      limit: 0.01,
      at: place.at,
      severity: value <= 0 ? 'mend' : value < 0.01 || !meets ? 'weigh' : 'fine',
      do:
        value < 0.01
          ? 'Dig its far end deeper, or end it sooner.'
          : !meets
            ? 'The ground below hardly falls: check that its end meets the day.'
            : 'Nothing.',
      ...cureBy(value < 0.01, {
        work: trench.id,
        set: { 'levels.floorM': downToMm(trench.levels.sillM - 0.01 * trench.dimensions.lengthM) },
        says: say`Dig its far end ${amount((0.01 - value) * trench.dimensions.lengthM, 'difference')} deeper`,
      }),
    };
  },
};

const stoneInIt: Rule<TrenchFacts> = {
  id: 'stone-trench.stone',
  title: 'Stone that stays when water runs over it',
  why: 'Stone that rolls leaves a bare trench in the wall’s shoulder.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'isbash-1936', locator: 'rough flow', fromMemory: true },
  needs: NEEDS_STORM,
  find: ({ trench, outlet, links, place }) => {
    const peak = links.find((l) => l.outlet === outlet.id)?.peakM3s;
    if (peak === undefined || peak === null) return null;
    const { widthM, stoneM } = trench.dimensions;
    if (place.slopeBelow === null)
      return { value: null, limit: stoneStands(stoneM), at: place.dischargeAt, severity: 'unknown', do: GROUND_BELOW_UNKNOWN };
    const slope = Math.max(0.01, place.slopeBelow);
    const over = Math.max(0, peak - trenchLaw(trench)(trench.levels.rockTopM));
    const value = over > 0 ? (Math.cbrt(over / widthM) ** 2 * (Math.sqrt(slope) / stoneRoughness(stoneM))) ** 0.6 : 0;
    const limit = stoneStands(stoneM);
    return {
      value,
      limit,
      severity: value > limit ? 'mend' : 'fine',
      do: value > limit ? 'Lay larger stone on top, or widen it.' : 'Nothing.',
    };
  },
};

export const TRENCH_RULES: readonly Rule<TrenchFacts>[] = [
  threeLevels,
  fallsAway,
  stoneInIt,
  exitVelocityRule('stone-trench.exit-velocity', 'Widen it, carry its stone further down, or lead it to gentler ground.'),
  onNaturalGroundRule('stone-trench.on-fill'),
];

function outletOf(trench: StoneTrench, place: HostPlace): Outlet {
  return {
    id: trench.id,
    role: 'way',
    work: trench.id,
    name: trench.name,
    kind: 'rated',
    levelM: trench.levels.sillM,
    dischargeAt: place.dischargeAt,
    flowAt: trenchLaw(trench),
    exit: exitBelow(place, { shape: 'sheet', widthM: trench.dimensions.widthM }),
  };
}

function figuresOf(trench: StoneTrench, sheet: Worksheet): Figure[] {
  const { widthM, lengthM, stoneM } = trench.dimensions;
  const { sillM, rockTopM } = trench.levels;
  const m = sheet.use(VOID_RADIUS, { D: stoneM, p: ROCK_VOIDS });
  const h1 = Math.max(0, rockTopM - sillM);
  const q = sheet.use(ROCK_SEEPAGE, { h1, h2: 0, L: lengthM, m, p: ROCK_VOIDS });
  return [
    { id: 'throughM3s', label: 'Passes through the stone before it runs over', value: q * widthM, kind: 'flow' },
    { id: 'stoneM3', label: 'Stone', value: stoneM3(trench), kind: 'volume' },
  ];
}

function sectionOf({ levels, dimensions }: StoneTrench, place: HostPlace): SectionShape {
  const { floorM, sillM, rockTopM } = levels;
  const L = dimensions.lengthM;
  const { groundM, slopeBelow } = place;
  const groundDrawn: SectionShape['parts'] =
    groundM === null || slopeBelow === null
      ? []
      : [
          {
            role: 'ground',
            points: [
              [-2, groundM],
              [0, groundM],
              [L, groundM - slopeBelow * L],
            ],
          },
        ];
  return {
    title: 'Section along the trench, pond left',
    parts: [
      {
        role: 'stone',
        isArea: true,
        points: [
          [0, sillM],
          [L, floorM],
          [L, floorM + rockTopM - sillM],
          [0, rockTopM],
        ],
      },
      ...groundDrawn,
    ],
    levels: [
      { name: 'stone', levelM: rockTopM },
      { name: 'spill', levelM: sillM },
      { name: 'floor', levelM: floorM },
    ],
  };
}

function placeTrench(trench: StoneTrench, place: HostPlace, host: Host | null): PlacedWork {
  const outlet = outletOf(trench, place);
  const factsOf = (facts: StormFacts): TrenchFacts => ({ ...facts, trench, place, outlet });
  const mark = (path: 'floorM' | 'sillM' | 'rockTopM', name: string): PlacedWork['marks'][number] => ({
    id: `${trench.id}:${path}`,
    work: trench.id,
    name,
    role: path === 'sillM' ? 'sill' : 'floor',
    levelM: trench.levels[path],
    path: `levels.${path}`,
  });
  return {
    host: null,
    stores: () => [],
    outlets: !host ? [] : [outlet],
    figures: (_facts, sheet) => figuresOf(trench, sheet),
    checks: (facts) => runRules(TRENCH_RULES, factsOf(facts), trench.id),
    quantities: () => quantitiesOf(trench, place),
    buildSteps: () => stepsOf(trench, place),
    pegs: () => [
      ...pegAt(place, { name: 'spill lip', role: 'sill', levelM: trench.levels.sillM }),
      ...pegAt(place, { name: 'top of stone', role: 'stone', levelM: trench.levels.rockTopM }),
    ],
    marks: [mark('rockTopM', `${trench.name}: stone`), mark('sillM', trench.name), mark('floorM', `${trench.name}: floor`)],
    section: () => sectionOf(trench, place),
  };
}

export const stoneTrench: Technique<StoneTrench, HostPlace> = {
  ...stoneTrenchDescriptor,
  formulas: [],
  rules: TRENCH_RULES,
  begin: (drawn, land) => beginWayOut(drawn, land, { kind: 'stone-trench', title: 'Stone-filled trench', work: newTrench }),
  measure: (work, site, host) => placeOnHost(work.atM, site, { host, lengthM: work.dimensions.lengthM }),
  place: placeTrench,
};
