// A roof as a store that holds next to nothing: its gutter, the outlets in it, and its rim.
import type { Outlet, Plot, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Point, closed, distance, pointAlong } from '../../geometry/index.ts';
import { DOWNPIPE, HALF_ROUND_GUTTER, crestLaw } from '../../hydraulics/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import { BOX_GUTTER, gutterOutlet } from './formulas.ts';
import { COVERING_SHARE, type Roof, areaOf } from './model.ts';

export interface RoofGround {
  /** Ground under the middle of its lowest side [m]. */
  readonly groundM: number;
  /** Beside its lowest side: where water falls that nothing leads away. */
  readonly lets: Point;
}

/** How far out of the wall water falls [m]. */
const CLEAR_M = 1;

/** The middle of each side, a step outside. */
function sidesOf(ring: Roof['ring']): Point[] {
  const around = closed(ring);
  const middle = ring.reduce<Point>(([x, y], p) => [x + p[0] / ring.length, y + p[1] / ring.length], [0, 0]);
  return ring.map((_, k): Point => {
    const { point } = pointAlong([around[k], around[k + 1]], distance(around[k], around[k + 1]) / 2);
    const away = Math.max(1e-6, distance(middle, point));
    return [point[0] + ((point[0] - middle[0]) / away) * CLEAR_M, point[1] + ((point[1] - middle[1]) / away) * CLEAR_M];
  });
}

export function measureRoof({ ring }: Roof, { grid }: Plot): RoofGround {
  const sides = sidesOf(ring).map((at) => ({ at, groundM: levelAt(grid, at) }));
  const known = sides.filter((s) => !Number.isNaN(s.groundM));
  if (known.length === 0) throw new UnknownGround('the ground beside the roof is not known');
  const low = known.reduce((a, b) => (b.groundM < a.groundM ? b : a));
  return { groundM: low.groundM, lets: low.at };
}

/** Section of its gutter filled to the rim [m2], and how deep it is [m]. */
export const gutterOf = ({ gutter, dimensions: { gutterM: w } }: Roof): { readonly sectionM2: number; readonly deepM: number } =>
  gutter === 'box' ? { sectionM2: w * w, deepM: w } : { sectionM2: (Math.PI * w * w) / 8, deepM: w / 2 };

/** Roughness of a downpipe's wall [mm], and how much of it water fills before it roars (handbook 4.6). */
const DOWN = { f: 0.33, kb: 0.25 } as const;

/** What one downpipe lets down with water so high over the sole of the gutter [m3/s]. */
export function downLaw({ screen, dimensions: { downpipeM } }: Roof): (overM: number) => number {
  const D = downpipeM * 1000;
  const part = screen === 'head' ? 0.5 : 1;
  const most = DOWNPIPE.evaluate({ D, ...DOWN });
  return (overM) => Math.min(part * gutterOutlet(D, Math.max(0, overM) * 1000), most) / 1000;
}
export const downFlow = (roof: Roof, overM: number): number => downLaw(roof)(overM);

/** Longer than fifty times its depth a level gutter carries less: a tenth off for each fifty more, half at the most (from memory). */
const [SHORT, LOSES, LEAST_PART] = [50, 0.1, 0.5];

/** What the gutter of one downpipe carries along to it [m3/s]: the shorter stretch on either side is reckoned half. */
export function gutterFlow(roof: Roof): number {
  const { sectionM2, deepM } = gutterOf(roof);
  const A = sectionM2 * 1e6;
  const ideal = roof.gutter === 'box' ? BOX_GUTTER.evaluate({ A, Fd: 1, Fs: 1 }) : HALF_ROUND_GUTTER.evaluate({ A });
  const along = roof.dimensions.gutterLengthM / roof.dimensions.downpipes / deepM;
  const part = Math.max(LEAST_PART, 1 - (LOSES * Math.max(0, along - SHORT)) / SHORT);
  return (ideal * part) / 1000;
}

/** How far over the rim the table reaches [m]: what comes faster falls off the edge. */
const OVER_M = 0.15;
/** A gutter's rim as a crest. */
const RIM_C = 1.7;

function stageOf(roof: Roof, soleM: number): Stage {
  const { sectionM2, deepM } = gutterOf(roof);
  const { gutterLengthM: L, gutterM: w } = roof.dimensions;
  const full = sectionM2 * L;
  return {
    levelM: Float64Array.of(soleM, soleM + deepM, soleM + deepM + OVER_M),
    volumeM3: Float64Array.of(0, full, full + w * L * OVER_M),
    wettedM2: Float64Array.of(0, 0, 0),
  };
}

/** A roof without a gutter: a drip line of this depth stands for it [m]. */
const DRIP_M = 0.02;

function outletsOf(roof: Roof, on: { readonly soleM: number; readonly rimM: number; readonly lets: Point }): Outlet[] {
  const { soleM, rimM, lets } = on;
  const own = { work: roof.id, dischargeAt: lets };
  const edgeM = roof.dimensions.gutterLengthM;
  const rim: Outlet = {
    ...own,
    id: `${roof.id}#rim`,
    role: 'eaves',
    name: `${roof.name}: over its ${roof.gutter === 'none' ? 'eaves' : 'gutter'}`,
    kind: roof.gutter === 'none' ? 'rated' : 'bank',
    levelM: roof.gutter === 'none' ? soleM : rimM,
    flowAt: crestLaw({ C: RIM_C, lengthM: edgeM, levelM: roof.gutter === 'none' ? soleM : rimM }),
  };
  if (roof.gutter === 'none') return [rim];
  const down = downLaw(roof);
  return [
    {
      ...own,
      id: `${roof.id}#down`,
      role: 'down',
      name: `${roof.name}: its downpipes`,
      kind: 'rated',
      levelM: soleM,
      flowAt: (levelM) => roof.dimensions.downpipes * down(levelM - soleM),
    },
    rim,
  ];
}

export interface Gutter {
  readonly soleM: number;
  readonly rimM: number;
}

export function gutterLevels(roof: Roof, { groundM }: RoofGround): Gutter {
  const rimM = groundM + roof.dimensions.eavesM;
  return { rimM, soleM: rimM - (roof.gutter === 'none' ? DRIP_M : gutterOf(roof).deepM) };
}

export function storeOf(roof: Roof, ground: RoofGround): Store {
  const { soleM, rimM } = gutterLevels(roof, ground);
  const stage = stageOf(roof, soleM);
  return {
    id: roof.id,
    work: roof.id,
    name: roof.name,
    floorM: soleM,
    sillM: soleM,
    wayOutM: soleM,
    crestM: rimM,
    heldM3: 0,
    waterM2: areaOf(roof),
    stage,
    seepsMmPerHour: 0,
    isCovered: true,
    sheds: { share: COVERING_SHARE[roof.covering], firstFlushMm: roof.dimensions.firstFlushMm },
    outlets: outletsOf(roof, { soleM, rimM, lets: ground.lets }),
  };
}

export interface RoofFacts extends StormFacts {
  readonly roof: Roof;
  readonly ground: RoofGround;
}
