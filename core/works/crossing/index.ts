import { crossingDescriptor } from './descriptor.ts';
import type { Built, Figure, Host, Outlet, PlacedWork, SectionShape, Store, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { CULVERT_BARREL, FULL_PIPE, INLETS, culvertHead, culvertLaw, grassedSillLaw } from '../../hydraulics/index.ts';
import {
  type Basin,
  type BasinGround,
  type Earthwork,
  type WallEarth,
  basinBuilt,
  basinOf,
  measureBasin,
  storeOf,
  wallEarth,
  waterRings,
  wallGroundAt,
  waterAt,
} from '../basin/index.ts';
import { builtTogether, notchBuilt } from '../built.ts';
import { runRules } from '../rules.ts';
import { CROSSING_RULES, type CrossingFacts } from './checks.ts';
import { type Crossing, pipeLength } from './model.ts';

import { quantitiesOf, stepsOf } from './making.ts';
import { beginCrossing } from './begin.ts';

export * from './model.ts';
export { CROSSING_RULES } from './checks.ts';

/** A road across a valley holds water as a wall does: what its bank makes is worked out as that of a pond. */
const asWall = ({ id, name, line, levels, dimensions }: Crossing): Earthwork => ({
  id,
  name,
  wall: line,
  levels: { crestM: levels.roadM, floorM: levels.inletM },
  dimensions: {
    topWidthM: dimensions.roadWidthM,
    waterSlopeHV: Math.max(0.1, dimensions.sideSlopeHV),
    backSlopeHV: Math.max(0.1, dimensions.sideSlopeHV),
    keyDepthM: 0,
    keyWidthM: 0,
    stripM: 0,
    pitSlopeHV: 2,
  },
  settlementPercent: 0,
  seepageMmPerDay: 3,
  evaporationMmPerDay: 4,
});

interface Made {
  readonly crossing: Crossing;
  readonly ground: BasinGround;
  readonly basin: Basin;
  /** Of its bank; null where it is not known. */
  readonly earth: WallEarth | null;
}

/** Unit vector down the valley, away from the water. */
function downhill({ crossing, ground }: Made, atM: number): Point {
  const { direction } = pointAlong(crossing.line, atM);
  const right: Point = [direction[1], -direction[0]];
  return ground.wall?.waterSide === -1 ? [-right[0], -right[1]] : right;
}

function lowestAt({ crossing, ground }: Made): number {
  const wall = ground.wall;
  if (!wall) return lineLength(crossing.line) / 2;
  return wall.atM[wall.groundM.indexOf(wall.groundM.reduce((a, v) => Math.min(a, v), Infinity))];
}

function beyond(made: Made, atM: number, reachM: number): Point {
  const { point } = pointAlong(made.crossing.line, atM);
  const [dx, dy] = downhill(made, atM);
  return [point[0] + dx * reachM, point[1] + dy * reachM];
}

function pipeOutletOf(made: Made): Outlet | null {
  const { crossing } = made;
  const { barrels, diameterM } = crossing.dimensions;
  if (barrels === 0) return null;
  const { inletM, outletM } = crossing.levels;
  const lengthM = pipeLength(crossing);
  const dischargeAt = beyond(made, lowestAt(made), lengthM / 2 + 2);
  return {
    id: `${crossing.id}#pipe`,
    role: 'pipe',
    work: crossing.id,
    name: `${crossing.name}: pipe`,
    kind: crossing.joins ? 'joint' : 'rated',
    levelM: Math.max(inletM, outletM),
    dischargeAt,
    flowAt: culvertLaw({
      barrels,
      diameterM,
      lengthM,
      slope: 0,
      n: crossing.roughness,
      inlet: crossing.inlet,
      inletM,
      outletM,
      blocked: crossing.blockedPercent / 100,
    }),
    drownsM: outletM,
    ...(crossing.joins ? { to: crossing.joins[1] } : { exit: { at: dischargeAt, slope: 0.01, widthM: diameterM, shape: 'pipe' as const } }),
  };
}

/** The road as a way over: chosen where it was made to be run over, else a crest that is passed. */
function roadOutlet(made: Made): Outlet {
  const { crossing, ground } = made;
  const isChosen = crossing.form !== 'culvert' && crossing.dimensions.dipLengthM > 0;
  const levelM = isChosen ? crossing.levels.dipM : crossing.levels.roadM;
  const lengthM = isChosen ? crossing.dimensions.dipLengthM : (ground.wall?.lengthM ?? lineLength(crossing.line));
  const dischargeAt = beyond(made, lowestAt(made), crossing.dimensions.roadWidthM / 2 + 3);
  return {
    id: `${crossing.id}#road`,
    role: 'road',
    work: crossing.id,
    name: isChosen ? `${crossing.name}: over the road` : `${crossing.name}: road`,
    kind: isChosen ? 'sill' : 'bank',
    levelM,
    ...(isChosen ? {} : { levelBy: 'levels.roadM' }),
    dischargeAt,
    flowAt: grassedSillLaw({ lengthM, levelM }),
    ...(isChosen
      ? { exit: { at: dischargeAt, slope: 0.05, widthM: lengthM, shape: 'sheet' as const } }
      : { breaks: { bottomM: ground.bottomM } }),
  };
}

function crestOutlet(made: Made): Outlet {
  const { crossing, ground } = made;
  const levelM = crossing.levels.roadM;
  const dischargeAt = beyond(made, lowestAt(made), crossing.dimensions.roadWidthM / 2 + 3);
  const lengthM = ground.wall?.lengthM ?? lineLength(crossing.line);
  return {
    id: `${crossing.id}#crest`,
    role: 'crest',
    work: crossing.id,
    name: `${crossing.name}: whole road`,
    kind: 'bank',
    levelM: levelM + 1e-3,
    levelBy: 'levels.roadM',
    dischargeAt,
    flowAt: grassedSillLaw({ lengthM, levelM: levelM + 1e-3 }),
    breaks: { bottomM: ground.bottomM },
  };
}

function storesWith(made: Made, own: readonly Outlet[], guests: readonly Outlet[]): readonly Store[] {
  const { crossing, ground } = made;
  if (crossing.joins || ground.pieces.length === 0) return [];
  const road = roadOutlet(made);
  const brims = road.kind === 'bank' ? [road] : [crestOutlet(made)];
  const chosen = road.kind === 'bank' ? own : [...own, road];
  const wall = asWall(crossing);
  return [storeOf(wall, { basin: made.basin, brims }, [...chosen, ...guests])];
}

function hostOf(made: Made): Host | null {
  const { crossing, ground } = made;
  const { wall } = ground;
  if (crossing.joins || !wall) return null;
  return {
    work: crossing,
    line: crossing.line,
    floorM: crossing.levels.inletM,
    crestM: crossing.levels.roadM,
    downhillAt: (atM) => downhill(made, atM),
    groundAt: (atM) => wallGroundAt(wall, atM),
    crossSlope: 0,
  };
}

/** Sizes pipes are sold in [m]: common practice. */
const SIZES_M = [0.3, 0.375, 0.45, 0.525, 0.6, 0.75, 0.9, 1.05, 1.2, 1.5, 1.8];
/** Water above the inlet it may stand at, in diameters (HDS-5). */
const HEADWATER = 1.2;

/** The least pipe sold that passes the peak, shared by its barrels, with no more water above it than it should have [m]. */
function pipeNeeded(crossing: Crossing, peakM3s: number | null): number | null {
  const { barrels } = crossing.dimensions;
  if (peakM3s === null || barrels === 0) return null;
  const lengthM = pipeLength(crossing);
  const slope = (crossing.levels.inletM - crossing.levels.outletM) / lengthM;
  const passes = (diameterM: number): boolean =>
    culvertHead({ diameterM, lengthM, slope, n: crossing.roughness, inlet: crossing.inlet }, peakM3s / barrels) <= HEADWATER * diameterM;
  return SIZES_M.find(passes) ?? null;
}

function figuresOf(made: Made, facts: CrossingFacts, sheet: Worksheet): Figure[] {
  const { crossing } = made;
  const { barrels, diameterM: D } = crossing.dimensions;
  const L = pipeLength(crossing);
  const water = facts.store ? waterAt(made.basin, facts.store.wayOutM) : null;
  const figures: Figure[] = [
    { id: 'earthM3', label: 'Earth in the bank', value: made.earth?.earthM3 ?? null, kind: 'volume' },
    { id: 'reachM', label: 'Water reaches up the valley', value: crossing.joins ? null : (water?.reachM ?? null), kind: 'length' },
  ];
  if (barrels === 0) return figures;
  const slope = (crossing.levels.inletM - crossing.levels.outletM) / L;
  if (slope > 0) sheet.use(FULL_PIPE, { D, n: crossing.roughness, S: slope });
  const peak = facts.links.find((l) => l.outlet === `${crossing.id}#pipe`)?.peakM3s;
  if (peak !== undefined && peak !== null && peak > 0) {
    const V = peak / (barrels * (Math.PI / 4) * D * D);
    sheet.use(CULVERT_BARREL, { V, Ke: INLETS[crossing.inlet].Ke, n: crossing.roughness, L, R: D / 4 });
  }
  return [
    { id: 'pipeM', label: 'Length of each pipe', value: L, kind: 'length' },
    { id: 'slope', label: 'Fall of the pipe', value: slope, kind: 'slope' },
    {
      id: 'neededDiameterM',
      label: 'Pipe needed',
      value: pipeNeeded(crossing, facts.designPeakM3s),
      kind: 'length',
      sets: 'dimensions.diameterM',
    },
    { id: 'clearM3s', label: 'Passes with water at the road, clear', value: facts.clearLaw?.(crossing.levels.roadM) ?? null, kind: 'flow' },
    ...figures,
  ];
}

function sectionOf({ crossing }: Made, waterM: number | null): SectionShape {
  const { levels, dimensions } = crossing;
  const { roadWidthM, sideSlopeHV, diameterM, overhangM, barrels } = dimensions;
  const half = roadWidthM / 2;
  const bed = Math.min(levels.inletM, levels.outletM);
  const [left, right] = [half + sideSlopeHV * (levels.roadM - levels.inletM), half + sideSlopeHV * (levels.roadM - levels.outletM)];
  const pipe: Point[] = [
    [-left - overhangM, levels.inletM],
    [right + overhangM, levels.outletM],
    [right + overhangM, levels.outletM + diameterM],
    [-left - overhangM, levels.inletM + diameterM],
  ];
  return {
    title: 'Section along the pipe, water comes from the left',
    parts: [
      {
        role: 'earth',
        isArea: true,
        points: [
          [-left, levels.inletM],
          [-half, levels.roadM],
          [half, levels.roadM],
          [right, levels.outletM],
        ],
      },
      {
        role: 'ground',
        points: [
          [-left - 3, levels.inletM],
          [right + 3, bed],
        ],
      },
      ...(barrels > 0 ? [{ role: 'pipe' as const, isArea: true, points: pipe }] : []),
      ...(waterM !== null && waterM > levels.inletM
        ? [
            {
              role: 'water' as const,
              points: [
                [-left - 3, waterM],
                [-half - sideSlopeHV * Math.max(0, levels.roadM - waterM), waterM],
              ] as Point[],
            },
          ]
        : []),
    ],
    levels: [
      { name: 'road', levelM: levels.roadM },
      { name: 'pipe', levelM: levels.inletM },
    ],
  };
}

/** The road's bank, lower where the road dips or water is to run over it. */
function builtOf(made: Made, wall: Earthwork): Built {
  const { form, line, levels, dimensions } = made.crossing;
  const bank = basinBuilt(wall, made.ground);
  if (form === 'culvert' || dimensions.dipLengthM === 0) return bank;
  return builtTogether([bank, notchBuilt(line, { atM: lowestAt(made), lengthM: dimensions.dipLengthM, levelM: levels.dipM })]);
}

function placeCrossing(crossing: Crossing, ground: BasinGround): PlacedWork {
  const wall = asWall(crossing);
  const made: Made = { crossing, ground, basin: basinOf(wall, ground), earth: ground.wall ? wallEarth(wall, ground.wall) : null };
  const pipe = pipeOutletOf(made);
  const own = pipe ? [pipe] : [];
  const clear = pipe ? pipeOutletOf({ ...made, crossing: { ...crossing, blockedPercent: 0 } }) : null;
  const factsOf = (facts: StormFacts): CrossingFacts => ({ ...facts, crossing, clearLaw: clear ? (levelM) => clear.flowAt(levelM) : null });
  const { roadM, inletM, outletM, dipM } = crossing.levels;
  const mark = (id: string, rest: Pick<PlacedWork['marks'][number], 'name' | 'role' | 'levelM' | 'path'>): PlacedWork['marks'][number] => ({
    id: `${crossing.id}:${id}`,
    work: crossing.id,
    ...rest,
  });
  return {
    host: hostOf(made),
    stores: (guests) => storesWith(made, own, guests),
    outlets: crossing.joins ? own : [],
    figures: (facts, sheet) => figuresOf(made, factsOf(facts), sheet),
    checks: (facts) => runRules(CROSSING_RULES, factsOf(facts), crossing.id),
    quantities: () => {
      return quantitiesOf(crossing, { earthM3: made.earth?.earthM3 ?? null, lengthM: lineLength(crossing.line) });
    },
    buildSteps: () => stepsOf(crossing),
    built: () => builtOf(made, wall),
    pegs: () => {
      const ends = [
        { name: 'pipe in', reach: -pipeLength(crossing) / 2, levelM: inletM },
        { name: 'pipe out', reach: pipeLength(crossing) / 2, levelM: outletM },
      ];
      return pipe
        ? ends.map(({ name, reach, levelM }) => {
            const [x, y] = beyond(made, lowestAt(made), reach);
            return { name, role: 'invert', x, y, levelM, groundM: ground.wall ? wallGroundAt(ground.wall, lowestAt(made)) : null };
          })
        : [];
    },
    marks: [
      mark('road', { name: `${crossing.name}: road`, role: 'crest', levelM: roadM, path: 'levels.roadM' }),
      ...(crossing.form === 'culvert'
        ? []
        : [mark('dip', { name: `${crossing.name}: lowest road`, role: 'sill', levelM: dipM, path: 'levels.dipM' })]),
      ...(pipe ? [mark('pipe', { name: `${crossing.name}: pipe`, role: 'floor', levelM: inletM, path: 'levels.inletM' })] : []),
    ],
    section: (waterM) => sectionOf(made, waterM),
    waterRings: (levelM) => (crossing.joins ? [] : waterRings(ground, levelM)),
  };
}

export const crossing: Technique<Crossing, BasinGround> = {
  ...crossingDescriptor,
  formulas: [],
  rules: CROSSING_RULES,
  begin: beginCrossing,
  measure: (work, site) => measureBasin({ wall: work.line }, site),
  place: placeCrossing,
};
