// The longest way water takes through a catchment, split into the parts it runs differently in.
import { longestSheet } from '../../runoff/index.ts';
import { flowPath, setOf } from '../../terrain/index.ts';
import type { Gathered } from './catchments.ts';
import type { SurfaceMap } from './surfaces.ts';
import type { GroundModel } from './ground-model.ts';

export interface PathPart {
  readonly lengthM: number;
  readonly slope: number;
  /** Sheet: roughness; shallow: velocity over root of slope; channel: Manning's roughness. */
  readonly coefficient: number;
}

export interface FlowParts {
  readonly sheet: PathPart;
  readonly shallow: PathPart;
  readonly channel: PathPart;
  /** Fall from end to end over the whole length. */
  readonly slope: number;
}

/** Ground above a place at which water runs in a channel there [m2], and what such a channel is like: common practice. */
export const CHANNEL_FROM_M2 = 20_000;
export const [CHANNEL_RADIUS_M, CHANNEL_N] = [0.2, 0.05];
/** Level stretches still let water go [m/m]: common practice. */
const LEAST_SLOPE = 0.001;

interface Along {
  readonly atM: readonly number[];
  readonly levelM: readonly number[];
}

/** Level at a distance along, straight between cells. */
function levelAlong({ atM, levelM }: Along, at: number): number {
  const k = Math.max(
    1,
    atM.findIndex((m) => m >= at),
  );
  if (atM.length < 2 || at >= atM[atM.length - 1]) return levelM[levelM.length - 1] ?? 0;
  return levelM[k - 1] + ((at - atM[k - 1]) / (atM[k] - atM[k - 1])) * (levelM[k] - levelM[k - 1]);
}

function slopeBetween(along: Along, from: number, to: number): number {
  const run = to - from;
  return run <= 0 ? LEAST_SLOPE : Math.max(LEAST_SLOPE, (levelAlong(along, from) - levelAlong(along, to)) / run);
}

/** Splits the longest way of a catchment: a sheet at first, then shallow runnels, a channel where enough ground drains in. */
export function flowParts(model: GroundModel, { catchment, members }: Gathered, { surfaces, index }: SurfaceMap): FlowParts {
  const { grid, flow } = model;
  const { mask } = setOf(members, grid.z.length);
  const path = flowPath(model, catchment.farthest, (cell) => mask[cell] === 1);
  // A catchment without a cell has no way of any length: whichever ground is named counts for nothing.
  const surfaceAt = (k: number): (typeof surfaces)[number]['facts']['cover']['surface'] =>
    (surfaces[index[path.cells[k]]] ?? surfaces[0]).facts.cover.surface;
  // Half a cell at either end, as the catchment's own length has it.
  const whole = catchment.longestPathM;
  const n = path.cells.length > 0 ? surfaceAt(0).sheetN : 0.15;
  let sheetM = Math.min(whole, longestSheet(slopeBetween(path, 0, Math.min(30, whole)), n));
  sheetM = Math.min(whole, longestSheet(slopeBetween(path, 0, sheetM), n));
  const begins = path.cells.findIndex((cell) => flow.cells[cell] * grid.cellM ** 2 >= CHANNEL_FROM_M2);
  const channelFrom = begins < 0 ? whole : Math.max(sheetM, path.atM[begins]);
  const between = path.cells.flatMap((_, k) => (path.atM[k] >= sheetM && path.atM[k] < channelFrom ? [1 / surfaceAt(k).shallowK] : []));
  // Times add up, so it is their inverse that is averaged.
  const k =
    between.length === 0 ? surfaceAt(Math.max(0, path.cells.length - 1)).shallowK : between.length / between.reduce((a, v) => a + v, 0);
  return {
    sheet: { lengthM: sheetM, slope: slopeBetween(path, 0, sheetM), coefficient: n },
    shallow: { lengthM: channelFrom - sheetM, slope: slopeBetween(path, sheetM, channelFrom), coefficient: k },
    channel: { lengthM: whole - channelFrom, slope: slopeBetween(path, channelFrom, whole), coefficient: CHANNEL_N },
    slope: slopeBetween(path, 0, whole),
  };
}
