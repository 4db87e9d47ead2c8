import type { Outlet, OutletRole, Stage, Store } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { comesBackOf } from '../comes-back.ts';
import { type LipGround, downhillAt, groundAlong } from '../lip.ts';
import { jointOutlet } from './joint.ts';
import type { LowPlace, Swale } from './model.ts';
import { type Section, type Trough, addWater, troughOf } from '../trough.ts';
import { tiltBy } from './water-line.ts';

const STAGES = 48;
/** How far above the crest the stage table reaches, so that routing never runs off it [m]. */
const ABOVE_CREST_M = 1;

/** A swale's trough at a station with the length of line it stands for (trapezoidal rule). */
interface Slice {
  readonly trough: Trough;
  readonly share: number;
}

function slicesOf(swale: Swale, ground: LipGround): Slice[] {
  const last = ground.atM.length - 1;
  return Array.from(ground.groundM, (level, i) => ({
    trough: troughOf({ ...swale.dimensions, lipDepthM: level - swale.levels.floorM, crossSlope: ground.crossSlope[i] }),
    share: (i === 0 || i === last ? 0.5 : 1) * ground.stepM,
  }));
}

/** Section on mean ground, for drawing and for the worked formulas. */
export function meanSection(swale: Swale, ground: LipGround): Section {
  return { ...swale.dimensions, lipDepthM: ground.meanGroundM - swale.levels.floorM, crossSlope: ground.meanSlope };
}

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

function contentOf(slices: readonly Slice[], depthM: number): Content {
  const sum = new Float64Array(2);
  for (const { trough, share } of slices) addWater(sum, trough, { depthM, share });
  return { volumeM3: sum[0], wettedM2: sum[1] };
}

/** Volume and water surface at a level, summed over the stations. */
export function contentAt(swale: Swale, ground: LipGround, levelM: number): Content {
  return contentOf(slicesOf(swale, ground), levelM - swale.levels.floorM);
}

function stageOf(swale: Swale, ground: LipGround): Stage {
  const { floorM, bankCrestM } = swale.levels;
  const top = bankCrestM + ABOVE_CREST_M;
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => floorM + ((top - floorM) * k) / STAGES);
  const slices = slicesOf(swale, ground);
  const content = Array.from(levelM, (level) => contentOf(slices, level - floorM));
  return { levelM, volumeM3: Float64Array.from(content, (c) => c.volumeM3), wettedM2: Float64Array.from(content, (c) => c.wettedM2) };
}

/** Low places that still lie below the designed crest. */
export function lowPlacesOf(swale: Swale): LowPlace[] {
  return (swale.lowPlaces ?? []).filter((p) => p.levelM < swale.levels.bankCrestM).sort((p, q) => p.levelM - q.levelM);
}

/** The stretch of bank that is to go first, while it lies under the crest. */
export const fuseOf = (swale: Swale): NonNullable<Swale['fuse']>[] =>
  swale.fuse && swale.fuse.crestM < swale.levels.bankCrestM ? [swale.fuse] : [];

/** Crest of its bank as designed, by distance along it: lower where it is to go first. */
export const crestAlong = (swale: Swale): ((atM: number) => number) => {
  const fuses = fuseOf(swale);
  return (atM) => fuses.find((f) => atM >= f.fromM && atM <= f.toM)?.crestM ?? swale.levels.bankCrestM;
};

/** The bank as a way out: each low place a weir of its own, then the whole crest. */
function bankOutlets(swale: Swale, ground: LipGround): Outlet[] {
  const outside = (atM: number): Point => {
    const [dx, dy] = downhillAt(swale.line, ground, atM);
    const { point } = pointAlong(swale.line, atM);
    const reach = swale.dimensions.bankTopM + 2 * swale.dimensions.bankSlopeHV * Math.max(0, swale.levels.bankCrestM - ground.meanGroundM);
    return [point[0] + dx * reach, point[1] + dy * reach];
  };
  const weir = (
    role: OutletRole,
    [id, name]: readonly [string, string],
    spec: { atM: number; lengthM: number; levelM: number; levelBy?: string },
  ): Outlet => ({
    id: `${swale.id}#${id}`,
    role,
    work: swale.id,
    name,
    kind: 'bank',
    levelM: spec.levelM,
    ...(spec.levelBy === undefined ? {} : { levelBy: spec.levelBy }),
    dischargeAt: outside(spec.atM),
    flowAt: grassedSillLaw(spec),
    breaks: { bottomM: groundAlong(ground, spec.atM), ...(role === 'fuse' ? { mostM: spec.lengthM } : {}) },
  });
  return [
    ...fuseOf(swale).map((fuse) =>
      weir('fuse', ['fuse', 'fuse in the bank'], {
        atM: (fuse.fromM + fuse.toM) / 2,
        lengthM: fuse.toM - fuse.fromM,
        levelM: fuse.crestM,
        levelBy: 'fuse.crestM',
      }),
    ),
    ...lowPlacesOf(swale).map((low, k) => weir('low', [`low${k + 1}`, 'low place in the bank'], low)),
    weir('bank', ['bank', 'bank crest'], {
      atM: lowestGroundAt(ground),
      lengthM: ground.lengthM,
      levelM: swale.levels.bankCrestM,
      levelBy: 'levels.bankCrestM',
    }),
  ];
}

function lowestGroundAt(ground: LipGround): number {
  let at = 0;
  for (let i = 1; i < ground.groundM.length; i++) if (ground.groundM[i] < ground.groundM[at]) at = i;
  return ground.atM[at];
}

/** The swale as a store with the sills it hosts. "Held" is below the lowest way out, designed or not. */
export function storeOf(swale: Swale, ground: LipGround, guests: readonly Outlet[]): Store {
  const ways = [...guests, ...bankOutlets(swale, ground)].sort((a, b) => a.levelM - b.levelM);
  const outlets = [...ways, ...jointOutlet(swale, guests)];
  const wayOutM = Math.max(swale.levels.floorM, ways.filter((o) => o.kind !== 'joint')[0].levelM);
  const full = contentAt(swale, ground, wayOutM);
  const chosen = guests.filter((g) => g.kind !== 'joint');
  const tilt = tiltBy(swale, guests, [
    { levelM: swale.levels.bankCrestM },
    ...lowPlacesOf(swale).map(({ levelM, atM, lengthM }) => ({ levelM, fromM: atM - lengthM / 2, toM: atM + lengthM / 2 })),
    ...fuseOf(swale).map(({ crestM, fromM, toM }) => ({ levelM: crestM, fromM, toM })),
  ]);
  return {
    id: swale.id,
    work: swale.id,
    name: swale.name,
    floorM: swale.levels.floorM,
    sillM: chosen.length > 0 ? Math.min(...chosen.map((g) => g.levelM)) : null,
    wayOutM,
    crestM: Math.min(swale.levels.bankCrestM, ...lowPlacesOf(swale).map((p) => p.levelM), ...fuseOf(swale).map((f) => f.crestM)),
    heldM3: full.volumeM3,
    waterM2: full.wettedM2,
    ...comesBackOf(swale),
    ...(swale.purpose === 'hold' ? { keeps: true as const } : {}),
    stage: stageOf(swale, ground),
    outlets,
    ...(tilt ? { tilt } : {}),
  };
}
