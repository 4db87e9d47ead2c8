// Each dam as a store: the wedge of water behind it by the real bed, its notch, its ends, and what it lets through.
import type { Channel, Exit, Outlet, Stage, Store } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import {
  type ChannelSection,
  ROCK_SEEPAGE,
  ROCK_VOIDS,
  Rating,
  VOID_RADIUS,
  crestLaw,
  grassedSillLaw,
  ratedLaw,
  trapezoid,
} from '../../hydraulics/index.ts';
import { siltedShare, storeIdOf } from '../series.ts';
import { siltedStage } from '../silt.ts';
import { type Bed, bedAt, fallBetween, placeIn } from '../bed.ts';
import { bodyOf } from './forms.ts';
import { type CheckDams, type Dam, inOrder, lostShare } from './model.ts';

/** Discharge of a rough notch (Heede & Mufich 1973; from memory). */
export const NOTCH_C = 1.65;
/** How far above the ends the stage table reaches [m]. */
const ABOVE_M = 1;

/** The bed along its line, and the measured channel it stands in. */
export interface DamsGround {
  readonly bed: Bed;
  readonly channel: Channel | null;
}

/** All of them on their bed. */
export interface Series {
  readonly work: CheckDams;
  readonly bed: Bed;
  readonly dams: readonly Standing[];
}

/** One dam on its bed. */
export interface Standing {
  readonly dam: Dam;
  /** Its store; the first is the work's own. */
  readonly store: string;
  readonly name: string;
  readonly bedM: number;
  /** The notch as it stands, and its ends [m]. */
  readonly notchM: number;
  readonly endsM: number;
  readonly section: ChannelSection;
  /** Sides of its channel, out per 1 up. */
  readonly sideHV: number;
  /** Where the dam above it stands, or the line begins: its water is told no further up. */
  readonly fromM: number;
}

export function standingDams(work: CheckDams, bed: Bed): readonly Standing[] {
  const dams = inOrder(work);
  return dams.map((dam, k) => {
    const bedM = bedAt(bed, dam.atM);
    const heightM = dam.heightM * (1 - lostShare(dam));
    const sideHV = (dam.bankWidthM - dam.bedWidthM) / 2 / dam.depthM;
    return {
      dam,
      store: storeIdOf(work.id, k),
      name: dams.length === 1 ? work.name : `${work.name}, dam ${k + 1}`,
      bedM,
      notchM: bedM + heightM,
      endsM: bedM + heightM + work.dimensions.notchDepthM,
      section: trapezoid(dam.bedWidthM, sideHV),
      sideHV,
      fromM: k === 0 ? 0 : dams[k - 1].atM,
    };
  });
}

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

/** Water behind a dam at a level, and its surface: section by section up the bed until it comes out of the water. */
export function waterBehind({ dam, section, fromM }: Standing, bed: Bed, levelM: number): Content {
  let volumeM3 = 0;
  let wettedM2 = 0;
  let at = dam.atM;
  let depth = levelM - bedAt(bed, at);
  while (depth > 0 && at > fromM + 1e-9) {
    const next = Math.max(fromM, (Math.ceil(at / bed.stepM - 1e-9) - 1) * bed.stepM);
    const there = levelM - bedAt(bed, next);
    // Where it comes out of the water within the stretch, only so much of it is wet.
    const length = there < 0 ? ((at - next) * depth) / (depth - there) : at - next;
    const end = Math.max(0, there);
    // Areas are of the second power in depth, and depth is straight along a stretch: three places tell it all.
    const middle = (depth + end) / 2;
    volumeM3 += (length * (section.area(depth) + 4 * section.area(middle) + section.area(end))) / 6;
    wettedM2 += length * section.topWidth(middle);
    if (there < 0) break;
    at = next;
    depth = there;
  }
  return { volumeM3, wettedM2 };
}

/** Room behind a dam up to its notch, silt and all [m3]. */
export const roomBehind = (one: Standing, bed: Bed): number => waterBehind(one, bed, one.notchM).volumeM3;

/** Levels and water over the silt that lies there. */
const stageOf = (one: Standing, bed: Bed): Stage =>
  siltedStage((level) => waterBehind(one, bed, level), {
    bedM: one.bedM,
    fullM: one.notchM,
    topM: one.endsM + ABOVE_M,
    siltM3: roomBehind(one, bed) * siltedShare(one.dam),
  });

/** What lets water through, by what it is made of: stone by its size; brush as stone with as wide gaps (a guess); others nothing. */
const PIECES_M: Readonly<Record<CheckDams['form'], (pieceM: number) => number | null>> = {
  rock: (pieceM) => pieceM,
  brush: () => 0.1,
  log: () => null,
  sandbag: () => null,
};

/** Flow through a dam by the depth of water before it, free behind: none where it holds, the less the more silt lies in it. */
export function leakRating(work: CheckDams, { dam, section }: Standing): Rating | null {
  const piece = PIECES_M[work.form](work.dimensions.pieceM);
  const open = 1 - siltedShare(dam);
  if (piece === null || open <= 0) return null;
  const { crestWidthM, upSlopeHV, downSlopeHV } = bodyOf(work);
  const m = VOID_RADIUS.evaluate({ D: piece, p: ROCK_VOIDS });
  const most = dam.heightM + work.dimensions.notchDepthM;
  return Rating.by(16, (share) => {
    const y = most * share;
    // Half as high, the mean way through it is as long as it is thick there.
    const L = crestWidthM + (upSlopeHV + downSlopeHV) * (dam.heightM - y / 2);
    const perM = ROCK_SEEPAGE.evaluate({ h1: y, h2: 0, L: Math.max(crestWidthM, L), m, p: ROCK_VOIDS });
    return [y, (open * perM * section.area(y)) / y];
  });
}

/** Where water lands below a dam. */
function belowOf(work: CheckDams, { dam }: Standing): Point {
  const { point, direction } = pointAlong(work.line, dam.atM);
  const { crestWidthM, downSlopeHV } = bodyOf(work);
  const away = crestWidthM / 2 + downSlopeHV * dam.heightM + 1;
  return [point[0] + direction[0] * away, point[1] + direction[1] * away];
}

/** The store a dam lets go to by its series; the next along the channel it stands in, whosever that is; or none. */
type Next = { readonly store: string } | 'channel' | null;

function outletsOf(work: CheckDams, bed: Bed, on: { readonly one: Standing; readonly to: Next; readonly floorM: number }): Outlet[] {
  const { one, to, floorM } = on;
  const { store, dam, section } = one;
  const dischargeAt = belowOf(work, one);
  const leads = to === null ? {} : to === 'channel' ? { staysIn: true as const } : { to: to.store };
  const slope = Math.max(0.005, fallBetween(bed, [Math.max(0, dam.atM - 5), Math.min(bed.lengthM, dam.atM + 5)]));
  const exit: Exit = { at: dischargeAt, slope, widthM: work.dimensions.notchWidthM, shape: 'sheet' };
  const way = { work: work.id, dischargeAt, ...leads };
  const notch: Outlet = {
    ...way,
    id: `${store}#notch`,
    role: 'way',
    name: `${one.name}: notch`,
    kind: 'sill',
    levelM: one.notchM,
    flowAt: crestLaw({ C: NOTCH_C, lengthM: work.dimensions.notchWidthM, levelM: one.notchM }),
    exit: work.form === 'rock' ? { ...exit, stoneM: work.dimensions.pieceM } : exit,
  };
  const ends: Outlet = {
    ...way,
    id: `${store}#ends`,
    role: 'bank',
    name: `${one.name}: its ends`,
    kind: 'bank',
    levelM: one.endsM,
    flowAt: grassedSillLaw({
      lengthM: Math.max(0.5, section.topWidth(one.endsM - one.bedM) - work.dimensions.notchWidthM),
      levelM: one.endsM,
    }),
  };
  const through = leakRating(work, one);
  const leak: Outlet[] = through
    ? [
        {
          ...way,
          id: `${store}#stone`,
          role: 'through',
          name: `${one.name}: through it`,
          kind: 'rated',
          // Only what stands over the silt finds a way through.
          levelM: floorM,
          flowAt: ratedLaw(through, floorM),
        },
      ]
    : [];
  return [...leak, notch, ends];
}

function storeOf(work: CheckDams, bed: Bed, on: { readonly one: Standing; readonly to: Next; readonly along: Store['along'] }): Store {
  const { one } = on;
  const stage = stageOf(one, bed);
  const floorM = stage.levelM[0];
  const outlets = outletsOf(work, bed, { ...on, floorM });
  const isTight = outlets.every((o) => o.role !== 'through');
  const full = waterBehind(one, bed, one.notchM);
  return {
    id: one.store,
    work: work.id,
    name: one.name,
    floorM,
    sillM: one.notchM,
    wayOutM: isTight ? Math.max(floorM, one.notchM) : floorM,
    crestM: one.endsM,
    heldM3: isTight ? full.volumeM3 * (1 - siltedShare(one.dam)) : 0,
    waterM2: full.wettedM2,
    stage,
    outlets,
    ...(on.along ? { along: on.along } : {}),
  };
}

/** Stores made before on a bed: a dam that nothing of it or of the one below has changed stays the same thing, and is not routed anew. */
const made = new WeakMap<Bed, Map<string, Store>>();
const MOST_MADE = 2000;

/** All dams as stores, each letting go to the next of them, or to what is next in its channel. `ground` is as it was measured, the same thing while the line is. */
export function storesOf(work: CheckDams, bed: Bed, ground: DamsGround = { bed, channel: null }): readonly Store[] {
  const { bed: measured, channel } = ground;
  const all = standingDams(work, bed);
  const known = made.get(measured) ?? new Map<string, Store>();
  if (known.size > MOST_MADE) known.clear();
  made.set(measured, known);
  const shape = JSON.stringify([work.id, work.form, work.dimensions]);
  return all.map((one, k) => {
    const inM = channel && placeIn(channel, pointAlong(work.line, one.dam.atM).point);
    const along = channel && inM !== null ? { channel: channel.work, atM: inM } : undefined;
    const next = all[k + 1];
    const to: Next = along ? 'channel' : next ? { store: next.store } : null;
    const key = JSON.stringify([shape, one.dam, one.store, one.name, one.fromM, to, along ?? null]);
    const store = known.get(key) ?? storeOf(work, bed, { one, to, along });
    known.set(key, store);
    return store;
  });
}
