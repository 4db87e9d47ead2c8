// Point clouds as LAS, unpacked: points told to be ground are thinned and joined into a surface.
// Layout by ASPRS, LAS Specification 1.4 (R15), tables 3 (header), 7 to 20 (points) and section on variable length records; from memory.
import type { Point } from '../geometry/index.ts';
import { fromLonLat, requireCrs, toLonLat, utmCodeFor } from './crs.ts';
import { type LevelUnit, asSaid, looksLikeDegrees } from './grid-limits.ts';
import { type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { type LasHeader, lasHeader } from './las-header.ts';
import { type LasSystem, systemOfLas } from './las-system.ts';
import { oddLevels } from './levels.ts';
import { surfaceOf } from './point-surface.ts';

/** Classes that are ground: 2, and key points of the model, which versions before 1.4 told apart as 8. */
const [GROUND, KEY_POINT] = [2, 8];
/** At most so many squares points are thinned to, and no square is smaller [m]. */
const [MOST_SQUARES, LEAST_SQUARE_M] = [250_000, 0.25];

/** Bits that say a point is to be left out: of formats to 5 beside its class, of those from 6 in a byte of their own. */
const [WITHHELD, WITHHELD_LATER] = [0x80, 0x04];

interface LasPoints {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
}

/** Ground points in the file's own numbers. */
function groundIn(view: DataView, { count, pointAt, pointBytes, format, scale, offset }: LasHeader): LasPoints {
  const isLater = format >= 6;
  const classAt = isLater ? 16 : 15;
  const isGround = (at: number): boolean => {
    const own = view.getUint8(at + classAt);
    const isOut = isLater ? view.getUint8(at + 15) & WITHHELD_LATER : own & WITHHELD;
    const kind = isLater ? own : own & 0x1f;
    return isOut === 0 && (kind === GROUND || (!isLater && kind === KEY_POINT));
  };
  let found = 0;
  for (let k = 0; k < count; k++) if (isGround(pointAt + k * pointBytes)) found++;
  const [x, y, z] = [new Float64Array(found), new Float64Array(found), new Float64Array(found)];
  for (let k = 0, to = 0; k < count; k++) {
    const at = pointAt + k * pointBytes;
    if (!isGround(at)) continue;
    x[to] = view.getInt32(at, true) * scale[0] + offset[0];
    y[to] = view.getInt32(at + 4, true) * scale[1] + offset[1];
    z[to] = view.getInt32(at + 8, true) * scale[2] + offset[2];
    to++;
  }
  return { x, y, z };
}

/** @throws UserError where points lie outside the box the file itself says they lie in: it is not what it says it is. */
function inItsBox({ x, y, z }: LasPoints, { box, scale }: LasHeader, file: string): void {
  [x, y, z].forEach((list, axis) => {
    const [least, most] = [box[axis][0] - 2 * scale[axis], box[axis][1] + 2 * scale[axis]];
    if (list.some((v) => !(v >= least && v <= most)))
      refuseFile(file, 'las.box', {
        what: `some of its points lie outside the box it says they lie in, ${box[axis].map((v) => Number(v.toFixed(2))).join(' to ')} ${['east', 'north', 'up'][axis]}`,
        do: 'Download or export it again: it is spoilt.',
      });
  });
}

/** One point for each square, in the middle of those in it; a unit of its plan is so many metres. */
function thinned({ x, y, z }: LasPoints, unitM: number): { readonly points: LasPoints; readonly sideM: number } {
  const [west, south] = [x, y].map((list) => list.reduce((a, v) => Math.min(a, v), Infinity));
  const [east, north] = [x, y].map((list) => list.reduce((a, v) => Math.max(a, v), -Infinity));
  const [wide, high] = [east - west, north - south];
  // A strip that is hardly wide has no more squares than a field.
  const side = Math.max(LEAST_SQUARE_M / unitM, Math.sqrt((wide * high) / MOST_SQUARES), (wide + high) / MOST_SQUARES);
  const columns = Math.floor(wide / side) + 1;
  const place = new Int32Array(columns * (Math.floor(high / side) + 1)).fill(-1);
  const sums: [x: number[], y: number[], z: number[], n: number[]] = [[], [], [], []];
  for (let k = 0; k < x.length; k++) {
    const square = Math.floor((y[k] - south) / side) * columns + Math.floor((x[k] - west) / side);
    let to = place[square];
    if (to < 0) {
      to = place[square] = sums[3].length;
      for (const list of sums) list.push(0);
    }
    // From its corner: sums of large numbers lose their last figures.
    sums[0][to] += x[k] - west;
    sums[1][to] += y[k] - south;
    sums[2][to] += z[k];
    sums[3][to]++;
  }
  const [sx, sy, sz, n] = sums;
  const mean = (list: readonly number[], from: number): Float64Array => Float64Array.from(list, (sum, k) => from + sum / n[k]);
  return { points: { x: mean(sx, west), y: mean(sy, south), z: mean(sz, 0) }, sideM: side * unitM };
}

/** Places laid flat in a system in metres; as they are where they lie in one already and no other is wanted. */
async function inMetres(points: LasPoints, { system, wanted, file, notes }: { readonly system: LasSystem; readonly wanted: string | null; readonly file: string; readonly notes: string[] }): Promise<{ readonly points: LasPoints; readonly crs: string | null }> {
  if ('none' in system) return { points, crs: wanted };
  if ('crs' in system && (wanted === null || wanted === system.crs.code)) return { points, crs: system.crs.code };
  const toDegrees = 'from' in system ? system.from.toLonLat : (place: Point) => toLonLat(system.crs, place);
  const lonLats = Array.from(points.x, (x, k) => toDegrees([x, points.y[k]]));
  if (!lonLats.every(([lon, lat]) => Math.abs(lon) <= 180 && Math.abs(lat) <= 84))
    refuseFile(file, 'las.nowhere', { what: 'its points lie nowhere on earth in the system it names', do: 'Check its system, or export it in metres.' });
  const crs = await requireCrs(wanted ?? utmCodeFor([lonLats[0][0], lonLats[0][1]]), file);
  const flat = lonLats.map(([lon, lat]) => fromLonLat(crs, [lon, lat]));
  notes.push(`Its ${'from' in system ? system.from.said : 'places'} were laid flat in ${crs.code} (${crs.name}).`);
  return { points: { x: Float64Array.from(flat, (p) => p[0]), y: Float64Array.from(flat, (p) => p[1]), z: points.z }, crs: crs.code };
} // prettier-ignore

/** A cloud of degrees is no wider than this. */
const MOST_DEGREES = 2;
/** Metres to a degree, and to a foot, as near as the size of a square asks for. */
const [DEGREE_M, FOOT_M] = [111_000, 0.3048];

const unitOf = (system: LasSystem): number => ('from' in system ? (system.from.isDegrees ? DEGREE_M : FOOT_M) : 1);

/** A point cloud as ground. @throws UserError where it is packed, spoilt, or nobody told which of its points are ground. */
export async function readLas({ name, bytes }: InputFile, how: { readonly crs: string | null; readonly levelsIn?: LevelUnit | undefined }): Promise<ImportedTerrain> {
  const header = lasHeader(bytes, name);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const ground = groundIn(view, header);
  if (ground.x.length < 3)
    refuseFile(name, 'las.unclassified', {
      what: header.count === 0 ? 'there are no points in it' : `of its ${header.count} points ${ground.x.length} are told to be ground (class 2)`,
      do: 'Have its points classified, so that trees and roofs are told from ground, and export it again.',
    });
  inItsBox(ground, header, name);
  const notes: string[] = [];
  const system = await systemOfLas(header, bytes, { file: name, notes });
  const perLevel = system.levelM;
  if ('none' in system && looksLikeDegrees({ cell: 0, west: header.box[0][0], south: header.box[1][0] }) && header.box[0][1] - header.box[0][0] < MOST_DEGREES)
    refuseFile(name, 'crs.degrees', { what: 'its places are degrees, though it does not say so', do: 'Export it again with its system, or in metres.' });
  const { z } = ground;
  if (perLevel !== null) for (let k = 0; k < z.length; k++) z[k] *= perLevel;
  else asSaid(z, { said: how.levelsIn, isPlanInFeet: 'from' in system && !system.from.isDegrees, file: name, notes });
  const { marks, apart } = oddLevels(Float64Array.from(z));
  const [odd] = [...apart, ...marks];
  if (odd !== undefined)
    refuseFile(name, 'survey.level', { what: `a level of ${z[odd]} m is far from all the others, or from any ground on earth`, do: 'Have the cloud cleaned of stray points.' });
  const { points: few, sideM } = thinned(ground, unitOf(system));
  const { points, crs } = await inMetres(few, { system, wanted: how.crs, file: name, notes });
  notes.push(`Of ${header.count} points ${ground.x.length} are ground; they were thinned to ${points.x.length}, one in each square of ${Number(sideM.toFixed(2))} m.`);
  if (crs === null) notes.push('It names no coordinate system: positions are taken as local metres, and geographic exports are off.');
  return { ...surfaceOf(points, { file: name, notes }), crs };
} // prettier-ignore
