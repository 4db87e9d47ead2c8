// A graded drain with a bank on its lower side: it catches water and carries it to a place that can take it.
import { diversionDescriptor } from './descriptor.ts';
import type { Built, Figure, Outlet, PlacedWork, SectionShape, Stage, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { CRITICAL_DEPTH, MANNING, NORMAL_DEPTH, Rating, grassedSillLaw, ratedLaw, trapezoid, uniformFlow } from '../../hydraulics/index.ts';
import { runRules } from '../rules.ts';
import { boxAround, runsOut, seenFrom, sideUp } from '../built.ts';
import { type LipGround, downhillAt, measureLip } from '../lip.ts';
import { DIVERSION_RULES } from './checks.ts';
import { type Diversion, EARTH_N, LEAST_SLOPE, evenFlow, fallOf, stands } from './model.ts';

import { cutM3, quantitiesOf, stepsOf } from './making.ts';
import { beginDiversion } from './begin.ts';
import { suitsDrain } from './suits.ts';

export * from './model.ts';
export { DIVERSION_RULES } from './checks.ts';

/** Flow its end lets go, by the depth of water in it. */
function endRating(drain: Diversion): Rating {
  const { floorWidthM, sideSlopeHV, depthM } = drain.dimensions;
  const section = trapezoid(floorWidthM, sideSlopeHV);
  const slope = Math.max(LEAST_SLOPE, fallOf(drain));
  const most = uniformFlow(section, { slope, n: EARTH_N }, 1.5 * depthM);
  return Rating.by(40, (share) => {
    const q = most * share * share;
    return [evenFlow(drain, q, 'tall').depthM, q];
  });
}

interface Made {
  readonly drain: Diversion;
  readonly ground: LipGround;
}

function outletsOf({ drain, ground }: Made): { readonly end: Outlet; readonly bank: Outlet } {
  const { endM } = drain.levels;
  const { depthM, floorWidthM, sideSlopeHV, stoneM } = drain.dimensions;
  const rating = endRating(drain);
  const length = lineLength(drain.line);
  const { point, direction } = pointAlong(drain.line, length);
  const end: Point = [point[0] + 2 * direction[0], point[1] + 2 * direction[1]];
  const [dx, dy] = downhillAt(drain.line, ground, length / 2);
  const middle = pointAlong(drain.line, length / 2).point;
  const crestM = endM + depthM;
  return {
    end: {
      id: `${drain.id}#end`,
      role: 'end',
      work: drain.id,
      name: `${drain.name}: end`,
      kind: 'rated',
      levelM: endM,
      dischargeAt: end,
      flowAt: ratedLaw(rating, endM),
      exit: {
        at: end,
        slope: Math.max(0.001, fallOf(drain)),
        widthM: floorWidthM,
        shape: 'channel',
        sideHV: sideSlopeHV,
        ...(drain.lining === 'stone' ? { stoneM } : {}),
      },
    },
    bank: {
      id: `${drain.id}#bank`,
      role: 'bank',
      work: drain.id,
      name: 'bank crest',
      kind: 'bank',
      levelM: crestM,
      dischargeAt: [middle[0] + 3 * dx, middle[1] + 3 * dy],
      flowAt: grassedSillLaw({ lengthM: length, levelM: crestM }),
    },
  };
}

/** Freeboard of a diversion (common practice; handbook 5.3) [m]. */
const DRAIN_FREEBOARD_M = 0.15;
const STAGES = 24;

/** Water in the drain by its depth, the same all along: it falls with its floor. */
function stageOf(drain: Diversion): Stage {
  const { floorWidthM, sideSlopeHV, depthM } = drain.dimensions;
  const section = trapezoid(floorWidthM, sideSlopeHV);
  const length = lineLength(drain.line);
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => drain.levels.endM + ((depthM + 0.8) * k) / STAGES);
  const depths = levelM.map((v) => v - drain.levels.endM);
  return { levelM, volumeM3: depths.map((y) => section.area(y) * length), wettedM2: depths.map((y) => section.topWidth(y) * length) };
}

function figuresOf({ drain, ground }: Made, { designPeakM3s: Q }: StormFacts, sheet: Worksheet): Figure[] {
  const { floorWidthM: b, sideSlopeHV: z } = drain.dimensions;
  const S = fallOf(drain);
  const section = trapezoid(b, z);
  const figures: Figure[] = [
    { id: 'lengthM', label: 'Length', value: ground.lengthM, kind: 'length' },
    { id: 'fall', label: 'Fall', value: S, kind: 'slope' },
    { id: 'cutM3', label: 'Cut, without its bank', value: cutM3(drain, ground.lengthM), kind: 'volume' },
  ];
  if (Q === null || Q <= 0 || S <= 0) return figures;
  const deep = evenFlow(drain, Q, 'tall');
  const fast = evenFlow(drain, Q, 'short');
  sheet.use(NORMAL_DEPTH, { Q, b, z, S, n: deep.n });
  sheet.use(CRITICAL_DEPTH, { Q, b, z, alpha: 1 });
  sheet.use(MANNING, { R: section.area(fast.depthM) / section.perimeter(fast.depthM), S, n: fast.n });
  return [
    ...figures,
    { id: 'peakM3s', label: 'Peak it must carry', value: Q, kind: 'flow' },
    { id: 'depthM', label: 'Depth of flow, grass tall', value: deep.depthM, kind: 'length' },
    {
      id: 'neededDepthM',
      label: 'Depth needed, with 0.15 m of freeboard',
      value: Math.ceil(100 * (deep.depthM + DRAIN_FREEBOARD_M)) / 100,
      kind: 'length',
      sets: 'dimensions.depthM',
    },
    { id: 'velocityMs', label: 'Velocity, grass short', value: fast.velocityMs, kind: 'velocity' },
    { id: 'standsMs', label: 'Its lining stands', value: stands(drain), kind: 'velocity' },
  ];
}

/** Top and outer side of the bank its earth makes on the lower side: common practice. */
const [BANK_TOP_M, BANK_HV] = [0.6, 2];

/** Its bed falls evenly from end to end; what is dug makes a bank beside it, as high as it is deep. */
function builtOf({ drain, ground }: Made): Built {
  const { floorWidthM: b, sideSlopeHV: z, depthM } = drain.dimensions;
  const { startM, endM } = drain.levels;
  const see = seenFrom(drain.line);
  const rimM = b / 2 + z * depthM;
  const slope = ground.steepestSlope;
  const deepest = ground.groundM.reduce((a, v) => Math.max(a, v), -Infinity) - Math.min(startM, endM);
  const up = runsOut(b / 2 + z * Math.max(0, deepest), { sideHV: z, slope });
  const down = runsOut(rimM + BANK_TOP_M + BANK_HV * depthM, { sideHV: BANK_HV, slope });
  return {
    box: boxAround(drain.line, 1 + Math.max(up, down)),
    levelAt: (at, { madeM }) => {
      const { atM, asideM, beyondM } = see(at);
      const bedM = startM + ((endM - startM) * atM) / ground.lengthM;
      const side = bedM + sideUp(Math.max(Math.abs(asideM) - b / 2, beyondM), z);
      const downM = -asideM * ground.downhillSide;
      const outer = bedM + depthM - Math.max(0, downM - rimM - BANK_TOP_M, beyondM) / BANK_HV;
      const dug = Math.min(madeM, side);
      return downM > b / 2 ? Math.max(dug, Math.min(side, outer)) : dug;
    },
  };
}

function sectionOf(drain: Diversion, waterM: number | null): SectionShape {
  const { floorWidthM: b, sideSlopeHV: z, depthM } = drain.dimensions;
  const { endM } = drain.levels;
  const top = b / 2 + z * depthM;
  const h = waterM === null ? 0 : Math.min(depthM, Math.max(0, waterM - endM));
  const cut: Point[] = [
    [-top - 1, endM + depthM],
    [-top, endM + depthM],
    [-b / 2, endM],
    [b / 2, endM],
    [top, endM + depthM],
    [top + BANK_TOP_M, endM + depthM],
    [top + BANK_TOP_M + 2 * depthM, endM + 0.2 * depthM],
  ];
  return {
    title: 'Section at its lower end',
    parts: [
      { role: 'cut', points: cut },
      ...(h > 0
        ? [
            {
              role: 'water' as const,
              points: [
                [-b / 2 - z * h, endM + h],
                [b / 2 + z * h, endM + h],
              ] as Point[],
            },
          ]
        : []),
    ],
    levels: [
      { name: 'bank', levelM: endM + depthM },
      { name: 'floor', levelM: endM },
    ],
  };
}

function placeDiversion(drain: Diversion, ground: LipGround): PlacedWork {
  const made: Made = { drain, ground };
  const outlets = outletsOf(made);
  const stage = stageOf(drain);
  const { startM, endM } = drain.levels;
  const crestM = endM + drain.dimensions.depthM;
  const last = ground.groundM.length - 1;
  const mark = (id: 'startM' | 'endM', name: string): PlacedWork['marks'][number] => ({
    id: `${drain.id}:${id}`,
    work: drain.id,
    name,
    role: 'floor',
    levelM: drain.levels[id],
    path: `levels.${id}`,
  });
  return {
    host: null,
    stores: () => [
      {
        id: drain.id,
        work: drain.id,
        name: drain.name,
        floorM: endM,
        sillM: endM,
        wayOutM: endM,
        crestM,
        heldM3: 0,
        stage,
        outlets: [outlets.end, outlets.bank],
      },
    ],
    outlets: [],
    figures: (facts, sheet) => figuresOf(made, facts, sheet),
    checks: (facts) => runRules(DIVERSION_RULES, { ...facts, drain, ground, endM: ground.groundM[last] }, drain.id),
    quantities: () => quantitiesOf(drain, ground.lengthM),
    buildSteps: () => stepsOf(drain),
    built: () => builtOf(made),
    pegs: (intervalM) => {
      const count = Math.max(1, Math.ceil(ground.lengthM / intervalM));
      return Array.from({ length: count + 1 }, (_, k) => {
        const atM = (ground.lengthM * k) / count;
        const [x, y] = pointAlong(drain.line, atM).point;
        const i = Math.min(last, Math.round(atM / ground.stepM));
        return {
          name: `${atM.toFixed(0)} m`,
          role: 'floor',
          x,
          y,
          levelM: startM + ((endM - startM) * k) / count,
          groundM: ground.groundM[i],
        };
      });
    },
    marks: [mark('startM', 'Floor, upper end'), mark('endM', 'Floor, lower end')],
    section: (waterM) => sectionOf(drain, waterM),
  };
}

export const diversion: Technique<Diversion, LipGround> = {
  ...diversionDescriptor,
  formulas: [],
  rules: DIVERSION_RULES,
  suits: suitsDrain,
  begin: beginDiversion,
  measure: (work, site) => measureLip(work.line, site),
  place: placeDiversion,
};
