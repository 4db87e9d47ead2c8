// Each basin on the real ground: what it holds in the open and in its soil, and how it lets go.
import type { Outlet, Plot, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Line, type Point, distance } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import { across } from './descriptor.ts';
import { storeIdOf } from '../series.ts';
import { type GardenBasin, type RainGarden, radiusOf } from './model.ts';

/** Ground at each place of its line, and at the lower edge of each basin. */
export interface GardenGround {
  readonly placesM: readonly number[];
  readonly edgesM: readonly number[];
  /** Fall of the ground about the place where the last lets go, as the water runs [m/m]; null where it is not known. */
  readonly endFall: number | null;
}

/** So far to both sides of a place its fall is read [m]. */
const ABOUT_M = 2;

function fallAbout(line: Line, levelOf: (at: Point) => number): number | null {
  const [[ax, ay], [x, y]] = line.slice(-2);
  const length = Math.max(1e-9, Math.hypot(x - ax, y - ay));
  const to = (away: number): Point => [x + ((x - ax) / length) * away, y + ((y - ay) / length) * away];
  const fall = Math.abs(levelOf(to(-ABOUT_M)) - levelOf(to(ABOUT_M))) / (2 * ABOUT_M);
  return Number.isNaN(fall) ? null : fall;
}

/** @throws UnknownGround where a place of it has none. */
export function measureGarden({ line, basins }: RainGarden, { grid }: Plot): GardenGround {
  const known = (at: Point): number => {
    const level = levelAt(grid, at);
    if (Number.isNaN(level)) throw new UnknownGround('No level is known under it');
    return level;
  };
  return {
    endFall: fallAbout(line, (at) => levelAt(grid, at)),
    placesM: line.map(known),
    edgesM: basins.map((basin, k) => {
      const [[ax, ay], [bx, by]] = [line[k], line[k + 1]];
      const length = Math.max(1e-9, Math.hypot(bx - ax, by - ay));
      const r = radiusOf(basin);
      return known([ax + ((bx - ax) / length) * r, ay + ((by - ay) / length) * r]);
    }),
  };
}

export interface Basin extends GardenBasin {
  readonly store: string;
  readonly name: string;
  readonly at: Point;
  readonly radiusM: number;
  readonly groundM: number;
  readonly edgeM: number;
  readonly floorM: number;
  /** Across it, for what soaks in and what is drawn. */
  readonly across: Line;
  /** Where its water goes, how far and how much lower that lies [m, m/m]. */
  readonly lets: Point;
  readonly fall: number;
}

export function basinsOf(work: RainGarden, ground: GardenGround): readonly Basin[] {
  return work.basins.map((basin, k): Basin => {
    const apart = Math.max(0.5, distance(work.line[k], work.line[k + 1]));
    return {
      ...basin,
      store: storeIdOf(work.id, k),
      name: work.basins.length === 1 ? work.name : `${work.name}, basin ${k + 1}`,
      at: work.line[k],
      radiusM: radiusOf(basin),
      groundM: ground.placesM[k],
      edgeM: ground.edgesM[k],
      floorM: basin.overflowM - work.dimensions.pondM,
      across: across(work, k),
      lets: work.line[k + 1],
      fall: Math.max(0.001, (basin.overflowM - ground.placesM[k + 1]) / apart),
    };
  });
}

/** Open water and water in its soil up to a level, and the area it stands on. */
export function heldBy(work: RainGarden, basin: Basin, levelM: number): { readonly volumeM3: number; readonly wettedM2: number } {
  const { pondM, sideHV, mediaM, voids } = work.dimensions;
  const under = Math.PI * (basin.radiusM - sideHV * pondM) ** 2;
  const y = levelM - basin.floorM;
  const soil = voids * under * Math.max(0, Math.min(mediaM, y + mediaM));
  if (y <= 0) return { volumeM3: soil, wettedM2: under };
  // A cone cut off: by the prismoid it is exact.
  const r = (depth: number): number => basin.radiusM - sideHV * (pondM - depth);
  const area = (depth: number): number => Math.PI * r(depth) ** 2;
  return { volumeM3: soil + (y * (area(0) + 4 * area(y / 2) + area(y))) / 6, wettedM2: area(y) };
}

const STAGES = 30;
/** How far over its bank the table reaches [m]. */
const ABOVE_M = 0.4;

const stageOf = (work: RainGarden, basin: Basin): Stage => {
  const { mediaM, bermM } = work.dimensions;
  const [low, top] = [basin.floorM - mediaM, basin.overflowM + bermM + ABOVE_M];
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => low + ((top - low) * k) / STAGES);
  const held = Array.from(levelM, (level) => heldBy(work, basin, level));
  let least = 0;
  const volumeM3 = Float64Array.from(held, (h) => (least = Math.max(least + 1e-9, h.volumeM3)) - 1e-9);
  return { levelM, volumeM3, wettedM2: Float64Array.from(held, (h) => Math.max(1e-3, h.wettedM2)) };
};

function outletsOf(work: RainGarden, basin: Basin, to: string | null): Outlet[] {
  const { rockWidthM, bermM, stoneM } = work.dimensions;
  const own = { work: work.id, dischargeAt: basin.lets, ...(to === null ? {} : { to }) };
  const bermTop = basin.overflowM + bermM;
  return [
    {
      ...own,
      id: `${basin.store}#rock`,
      role: 'way',
      name: `${basin.name}: rock`,
      kind: 'sill',
      levelM: basin.overflowM,
      flowAt: grassedSillLaw({ lengthM: rockWidthM, levelM: basin.overflowM }),
      exit: { at: basin.lets, slope: basin.fall, widthM: rockWidthM, shape: 'sheet', ...(to === null ? {} : { stoneM }) },
    },
    {
      ...own,
      id: `${basin.store}#berm`,
      role: 'bank',
      name: `${basin.name}: its bank`,
      kind: 'bank',
      levelM: bermTop,
      flowAt: grassedSillLaw({ lengthM: Math.PI * basin.radiusM, levelM: bermTop }),
    },
  ];
}

/** Every basin a store that lets go into the next. */
export const storesOf = (work: RainGarden, basins: readonly Basin[]): readonly Store[] =>
  basins.map((basin, k): Store => {
    const full = heldBy(work, basin, basin.overflowM);
    return {
      id: basin.store,
      work: work.id,
      name: basin.name,
      floorM: basin.floorM - work.dimensions.mediaM,
      sillM: basin.overflowM,
      wayOutM: basin.overflowM,
      crestM: basin.overflowM + work.dimensions.bermM,
      heldM3: full.volumeM3,
      waterM2: basin.areaM2,
      stage: stageOf(work, basin),
      outlets: outletsOf(work, basin, basins[k + 1]?.store ?? null),
      ...(work.rateMmPerHour === undefined ? {} : { seepsMmPerHour: work.rateMmPerHour }),
    };
  });

export interface GardenFacts extends StormFacts {
  readonly work: RainGarden;
  readonly basins: readonly Basin[];
  readonly endFall: number | null;
}
