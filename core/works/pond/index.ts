import { pondDescriptor } from './descriptor.ts';
import type { Figure, Host, LevelMark, PegDraft, PlacedWork, SectionShape, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Line, type Point, closed, contains, lineLength, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { WAVE_HAWKSLEY, WAVE_RUNUP } from '../../hydraulics/index.ts';
import { comesBackOf } from '../comes-back.ts';
import { runRules } from '../rules.ts';
import { POND_RULES, freeboardNeeded } from './checks.ts';
import { CREST_WIDTH, PIT_VOLUME, POND_VOLUME, VALLEY_VOLUME, WALL_QUICK, WALL_SECTION } from './formulas.ts';
import {
  type Basin,
  type BasinGround,
  type WallEarth,
  type WallGround,
  basinBuilt,
  basinOf,
  brimOutlets,
  crestOf,
  floorOf,
  measureBasin,
  storeOf,
  wallEarth,
  wallGroundAt,
  waterAt,
  waterRings,
} from '../basin/index.ts';
import { type Pond } from './model.ts';

import { beginPond } from './begin.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { suitsPond } from './suits.ts';

export * from './model.ts';
export * from './formulas.ts';
export { newPond } from './create.ts';
export { POND_RULES } from './checks.ts';

interface Made {
  readonly pond: Pond;
  readonly ground: BasinGround;
  readonly basin: Basin;
  readonly earth: WallEarth | null;
}

/** Unit vector away from the water at a distance along the wall, or along the rim of a pit. */
function outwards({ pond, ground }: Pick<Made, 'pond' | 'ground'>, atM: number): Point {
  const line = pond.wall ?? closed(pond.pit ?? []);
  const { point, direction } = pointAlong(line, atM);
  const right: Point = [direction[1], -direction[0]];
  if (ground.wall) return ground.wall.waterSide === 1 ? right : [-right[0], -right[1]];
  const isInside = contains(pond.pit ?? [], [point[0] + 0.1 * right[0], point[1] + 0.1 * right[1]]);
  return isInside ? [-right[0], -right[1]] : right;
}

/** How far the wall's outer foot lies from its middle [m]. */
function footM({ pond, ground, earth }: Pick<Made, 'pond' | 'ground' | 'earth'>): number {
  const height = (wall: WallGround): number => earth?.toeHeightM ?? Math.max(0, pond.levels.crestM - Math.min(...wall.groundM));
  return pond.dimensions.topWidthM / 2 + (ground.wall ? pond.dimensions.backSlopeHV * height(ground.wall) : 0);
}

function hostOf(made: Made): Host {
  const { pond, ground, basin } = made;
  const line = pond.wall ?? closed(pond.pit ?? []);
  const rimAt = (): number => ground.rim?.lowestM ?? pond.levels.crestM;
  return {
    work: pond,
    line,
    floorM: floorOf(basin, pond),
    crestM: crestOf(pond, ground),
    downhillAt: (atM) => outwards(made, atM),
    groundAt: (atM) => (ground.wall ? wallGroundAt(ground.wall, atM) : rimAt()),
    crossSlope: 0,
  };
}

function figuresOf(made: Made, { store, storm }: StormFacts, sheet: Worksheet): Figure[] {
  const { pond, ground, basin, earth } = made;
  const water = store ? waterAt(basin, store.wayOutM) : null;
  const figures: Figure[] = [
    { id: 'bottomM', label: 'Lowest ground', value: ground.bottomM, kind: 'level' },
    { id: 'waterM2', label: 'Water when full', value: water?.surfaceM2 ?? null, kind: 'area' },
    { id: 'reachM', label: 'Open water from the wall', value: ground.wall ? (water?.reachM ?? null) : null, kind: 'length' },
    { id: 'dugM3', label: 'Dug', value: basin.dugM3, kind: 'volume' },
  ];
  if (store && water && water.surfaceM2 > 0) {
    const d = Math.max(0, store.wayOutM - store.floorM);
    sheet.use(POND_VOLUME, { A: water.surfaceM2, d });
    if (earth && ground.wall) {
      const L = ground.wall.groundM.filter((g) => g < store.wayOutM).length * ground.wall.stepM;
      sheet.use(VALLEY_VOLUME, { L, T: water.reachM, H: d });
    }
  }
  if (!earth) return figures;
  const { topWidthM: w, waterSlopeHV: z1, backSlopeHV: z2 } = pond.dimensions;
  sheet.use(WALL_SECTION, { w, h: earth.heightM, z1, z2 });
  sheet.use(WALL_QUICK, { H: earth.heightM, L: earth.lengthM, C: w, S: z1 + z2 });
  sheet.use(CREST_WIDTH, { z: earth.toeHeightM });
  const reach = storm ? waterAt(basin, storm.peakLevelM).reachM : (water?.reachM ?? null);
  if (reach !== null) sheet.use(WAVE_RUNUP, { h: sheet.use(WAVE_HAWKSLEY, { F: reach }) });
  return [
    ...figures,
    { id: 'heightM', label: 'Height of the wall', value: earth.toeHeightM, kind: 'length' },
    { id: 'wallM', label: 'Length of the wall', value: earth.lengthM, kind: 'length' },
    { id: 'earthM3', label: 'Earth in the wall, settling included', value: earth.earthM3, kind: 'volume' },
    { id: 'keyM3', label: 'Key', value: earth.keyM3, kind: 'volume' },
    { id: 'stripM3', label: 'Topsoil set aside', value: earth.stripM3, kind: 'volume' },
    {
      id: 'buildM',
      label: 'Build the crest to',
      value: pond.levels.crestM + (pond.settlementPercent / 100) * earth.heightM,
      kind: 'level',
    },
    ...(storm && reach !== null
      ? [
          {
            id: 'neededCrestM',
            label: 'Crest needed',
            value: Math.ceil(100 * (storm.peakLevelM + freeboardNeeded(reach))) / 100,
            kind: 'level',
            sets: 'levels.crestM',
          } as const,
        ]
      : []),
    { id: 'freeboardNeededM', label: 'Freeboard to keep', value: reach === null ? null : freeboardNeeded(reach), kind: 'difference' },
  ];
}

/** Pegs of the crest, and flags of the water line. */
function pegsOf({ pond, ground }: Made, intervalM: number, waterM: number | null): PegDraft[] {
  const line: Line = pond.wall ?? closed(pond.pit ?? []);
  const length = lineLength(line);
  const count = Math.floor(length / intervalM + 1e-9);
  const places = Array.from({ length: count + 1 }, (_, i) => i * intervalM);
  if (length - places[places.length - 1] > 0.01) places.push(length);
  const crest = places.map((atM) => {
    const { point } = pointAlong(line, atM);
    return {
      name: `${pond.wall ? 'crest' : 'rim'} ${atM.toFixed(atM % 1 === 0 ? 0 : 1)} m`,
      role: pond.wall ? ('crest' as const) : ('floor' as const),
      x: point[0],
      y: point[1],
      levelM: pond.wall ? pond.levels.crestM : pond.levels.floorM,
      groundM: ground.wall ? wallGroundAt(ground.wall, atM) : (ground.rim?.meanM ?? null),
    };
  });
  return [...crest, ...flagsOf(ringsOf(pond, ground, waterM), { intervalM, waterM })];
}

/** Flags of the water line, before topsoil is spread again. */
function flagsOf(
  rings: readonly Line[],
  { intervalM, waterM }: { readonly intervalM: number; readonly waterM: number | null },
): PegDraft[] {
  if (waterM === null) return [];
  return rings.flatMap((ring) => {
    const length = lineLength(ring);
    const count = Math.min(200, Math.floor(length / intervalM));
    return Array.from({ length: count }, (_, k): PegDraft => {
      const { point } = pointAlong(ring, (length * k) / count);
      return { name: `water line ${k + 1}`, role: 'water-line', x: point[0], y: point[1], levelM: waterM, groundM: waterM };
    });
  });
}

/** Where water stands at a level: round the ground behind the wall, or the pit. */
function ringsOf(pond: Pond, ground: BasinGround, levelM: number | null): Line[] {
  if (levelM === null) return [];
  const pit = pond.pit && levelM > pond.levels.floorM ? [closed(pond.pit)] : [];
  return [...waterRings(ground, levelM), ...pit];
}

/** Freeboard many farms keep by habit: drawn as a reference, common practice [m]. */
const HABIT_M = 1;

function sectionOf({ pond, ground, basin }: Made, waterM: number | null): SectionShape {
  const { topWidthM, waterSlopeHV, backSlopeHV, keyDepthM, keyWidthM, pitSlopeHV } = pond.dimensions;
  const { crestM, floorM } = pond.levels;
  const full = { name: 'full', levelM: waterM ?? crestM };
  if (!ground.wall) {
    const rim = ground.rim?.lowestM ?? crestM;
    const half = Math.max(1, Math.sqrt(basin.areaBefore[basin.areaBefore.length - 1] ?? 4) / 2);
    const foot = Math.max(0.2, half - pitSlopeHV * Math.max(0, rim - floorM));
    const pit: Point[] = [
      [-half - 2, rim],
      [-half, rim],
      [-foot, floorM],
      [foot, floorM],
      [half, rim],
      [half + 2, rim],
    ];
    return { title: 'Section of the pit', parts: [{ role: 'cut', points: pit }], levels: [full, { name: 'floor', levelM: floorM }] };
  }
  const lowest = ground.wall.groundM.indexOf(ground.wall.groundM.reduce((a, v) => Math.min(a, v), Infinity));
  const across = ground.wall.across[lowest];
  const half = (across.length - 1) / 2;
  const stepM = ground.wall.acrossStepM;
  const height = crestM - ground.wall.groundM[lowest];
  const span = Math.min(half * stepM, topWidthM / 2 + Math.max(waterSlopeHV, backSlopeHV) * Math.max(0.5, height) + 3);
  // Outer side left, water right.
  const groundLine: Point[] = Array.from(across, (level, k): Point => [(k - half) * stepM, level]).filter(([x]) => Math.abs(x) <= span);
  const groundAt = (x: number): number => across[Math.min(across.length - 1, Math.max(0, Math.round(x / stepM) + half))];
  const foot = (side: 1 | -1, hv: number): Point => {
    let x = topWidthM / 2;
    while (x < span && crestM - (x - topWidthM / 2) / hv > groundAt(side * x)) x += stepM / 2;
    return [side * x, crestM - (x - topWidthM / 2) / hv];
  };
  const [outer, inner] = [foot(-1, backSlopeHV), foot(1, waterSlopeHV)];
  const base = groundAt(0);
  const parts: SectionShape['parts'] = [
    {
      role: 'earth',
      isArea: true,
      points: [
        outer,
        [-topWidthM / 2, crestM],
        [topWidthM / 2, crestM],
        inner,
        ...groundLine.filter(([x]) => x > outer[0] && x < inner[0]).reverse(),
      ],
    },
    {
      role: 'key',
      isArea: true,
      points: [
        [-keyWidthM / 2 - keyDepthM, base],
        [-keyWidthM / 2, base - keyDepthM],
        [keyWidthM / 2, base - keyDepthM],
        [keyWidthM / 2 + keyDepthM, base],
      ],
    },
    { role: 'ground', points: groundLine },
  ];
  const edge = (level: number): Point[] => [
    [topWidthM / 2 + waterSlopeHV * (crestM - level), level],
    [span, level],
  ];
  const water = waterM === null || waterM <= base ? [] : [{ role: 'water' as const, points: edge(waterM) }];
  const stands =
    waterM === null || waterM <= base
      ? []
      : [
          { name: 'water', levelM: waterM },
          { name: '1 m over', levelM: waterM + HABIT_M },
        ];
  return {
    title: 'Section at the highest place',
    parts: [...parts, ...water],
    levels: [{ name: 'crest', levelM: crestM }, ...stands, { name: 'ground', levelM: base }],
  };
}

function marksOf({ pond, ground }: Made): LevelMark[] {
  const mark = (id: string, rest: Pick<LevelMark, 'name' | 'role' | 'levelM' | 'path'>): LevelMark => ({
    id: `${pond.id}:${id}`,
    work: pond.id,
    ...rest,
  });
  return [
    ...(ground.wall
      ? [mark('crest', { name: 'Crest of the wall', role: 'crest', levelM: pond.levels.crestM, path: 'levels.crestM' })]
      : [mark('rim', { name: 'Lowest rim', role: 'ground', levelM: ground.rim?.lowestM ?? pond.levels.crestM, path: null })]),
    ...(ground.wall && ground.roundM < pond.levels.crestM
      ? [mark('round', { name: 'Ground beside the wall', role: 'low', levelM: ground.roundM, path: null })]
      : []),
    ...(pond.pit
      ? [mark('floor', { name: 'Pit floor', role: 'floor', levelM: pond.levels.floorM, path: 'levels.floorM' })]
      : [mark('ground', { name: 'Lowest ground', role: 'ground', levelM: ground.bottomM, path: null })]),
  ];
}

function placePond(pond: Pond, ground: BasinGround): PlacedWork {
  const basin = basinOf(pond, ground);
  const earth = ground.wall ? wallEarth(pond, ground.wall) : null;
  const made: Made = { pond, ground, basin, earth };
  const away = footM(made) + 2;
  const line = pond.wall ?? closed(pond.pit ?? []);
  const outside = (at: Point): Point => {
    const { atM } = nearestOnLine(at, line);
    const [dx, dy] = outwards(made, atM);
    const { point } = pointAlong(line, atM);
    return [point[0] + dx * away, point[1] + dy * away];
  };
  const brims = brimOutlets(pond, ground, outside);
  return {
    host: hostOf(made),
    stores: (guests) => [{ ...storeOf(pond, { basin, brims }, guests), ...comesBackOf(pond) }],
    outlets: [],
    figures: (facts, sheet) => figuresOf(made, facts, sheet),
    checks: (facts, company) => runRules(POND_RULES, { ...facts, ...made, company }, pond.id),
    quantities: () => quantitiesOf(pond, { earth, dugM3: basin.dugM3 }),
    buildSteps: () => stepsOf(pond, earth),
    built: () => basinBuilt(pond, ground),
    pegs: (intervalM, waterM) => pegsOf(made, intervalM, waterM),
    waterRings: (levelM) => ringsOf(pond, ground, levelM),
    marks: marksOf(made),
    section: (waterM) => sectionOf(made, waterM),
  };
}

export const pond: Technique<Pond, BasinGround> = {
  ...pondDescriptor,
  formulas: [WALL_SECTION, WALL_QUICK, PIT_VOLUME, VALLEY_VOLUME, POND_VOLUME, CREST_WIDTH],
  rules: POND_RULES,
  suits: suitsPond,
  begin: beginPond,
  measure: measureBasin,
  place: placePond,
};
