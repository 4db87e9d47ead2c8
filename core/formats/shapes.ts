// Points, lines and areas of a map or a track: what they are called, where they lie, and the levels they bear.
import type { FeatureCollection, Geometry, Position } from 'geojson';
import type { Point } from '../geometry/index.ts';
import { fromLonLat, requireCrs, utmCodeFor } from './crs.ts';
import { type DrawnShape, type ImportedShapes, refuseFile } from './imported.ts';

/** Most corners and shapes that are read: more is a map, not what lies on a property. */
const [MOST_CORNERS, MOST_SHAPES] = [1_000_000, 20_000];

interface RawShape {
  readonly name: string;
  readonly group: string;
  readonly form: DrawnShape['form'];
  readonly corners: readonly Position[];
  readonly levelM: number | null;
}

/** Members that name a shape, and that say what it is one of, as maps use them. */
const NAMES = ['name', 'title', 'label', 'id', 'fid'];
const GROUPS = ['layer', 'class', 'category', 'type', 'kind', 'use', 'sym', 'natural', 'highway', 'landuse', 'waterway', 'folder'];
const LEVELS = ['ele', 'elev', 'elevation', 'level', 'contour', 'z', 'rl', 'altitude'];

type Properties = Readonly<Record<string, unknown>> | null;

const member = (properties: Properties, names: readonly string[]): unknown => {
  for (const name of names) {
    const key = Object.keys(properties ?? {}).find((k) => k.toLowerCase() === name);
    const value = key === undefined ? undefined : properties?.[key];
    if (value !== undefined && value !== null && value !== '') return value;
  }
  return undefined;
};

const wordOf = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value).trim().slice(0, LONGEST_NAME) : '';
const LONGEST_NAME = 80;

/** A level told beside a shape, as contours bear it [m]; null where none is. */
function levelOf(properties: Properties): number | null {
  const value = member(properties, LEVELS);
  const level = typeof value === 'number' ? value : typeof value === 'string' && value.trim() !== '' ? Number(value) : NaN;
  return Number.isFinite(level) ? level : null;
}

interface Left {
  holes: number;
  short: number;
}

/** The points, lines and rings of a geometry; what is no place on the ground is counted. */
function partsOf(geometry: Geometry | null, left: Left): (readonly [RawShape['form'], readonly Position[]])[] {
  if (!geometry) return [];
  switch (geometry.type) {
    case 'Point':
      return [['point', [geometry.coordinates]]];
    case 'MultiPoint':
      return geometry.coordinates.map((at) => ['point', [at]]);
    case 'LineString':
      return lineOf(geometry.coordinates, left);
    case 'MultiLineString':
      return geometry.coordinates.flatMap((line) => lineOf(line, left));
    case 'Polygon':
      return ringOf(geometry.coordinates, left);
    case 'MultiPolygon':
      return geometry.coordinates.flatMap((rings) => ringOf(rings, left));
    default:
      return geometry.geometries.flatMap((one) => partsOf(one, left));
  }
}

const isSame = (a: Position, b: Position): boolean => a[0] === b[0] && a[1] === b[1];

function lineOf(line: readonly Position[], left: Left): (readonly [RawShape['form'], readonly Position[]])[] {
  const corners = line.filter((at, k) => k === 0 || !isSame(at, line[k - 1]));
  if (corners.length > 1) return [['line', corners]];
  left.short++;
  return [];
}

function ringOf([outer, ...holes]: readonly Position[][], left: Left): (readonly [RawShape['form'], readonly Position[]])[] {
  left.holes += holes.length;
  const corners = (outer as Position[] | undefined)?.filter((at, k) => k === 0 || !isSame(at, outer[k - 1])) ?? [];
  if (corners.length > 1 && isSame(corners[0], corners[corners.length - 1])) corners.pop();
  if (corners.length > 2) return [['ring', corners]];
  left.short++;
  return [];
}

/** What is wrong with a corner; nothing where it is a place. */
function checkCorners(raw: readonly RawShape[], file: string, isDegrees: boolean): void {
  raw.forEach(({ name, corners }, k) => {
    const bad = corners.find(([x, y, z = 0]) => ![x, y, z].every((v) => typeof v === 'number' && Number.isFinite(v)) || (isDegrees && (Math.abs(x) > 180 || Math.abs(y) > 90)));
    if (!bad) return;
    refuseFile(file, 'shapes.place', {
      what: `shape ${k + 1}${name === '' ? '' : ` ("${name}")`} has a corner at ${bad.slice(0, 2).map(String).join(', ').slice(0, LONGEST_NAME)}, which is no longitude and latitude`,
      do: 'Write it with longitude first, in degrees; or in metres, and say its system.',
    });
  });
} // prettier-ignore

/** Everything drawn in a collection, its groups by what it was filed under. */
export function rawShapes(
  collection: FeatureCollection,
  file: string,
): { readonly raw: readonly RawShape[]; readonly notes: readonly string[] } {
  const left: Left = { holes: 0, short: 0 };
  let corners = 0;
  const raw = collection.features.flatMap(({ geometry, properties, id }): RawShape[] => {
    const name = wordOf(member(properties, NAMES)) || wordOf(id);
    const group = wordOf(member(properties, GROUPS));
    const levelM = levelOf(properties);
    return partsOf(geometry, left).map(([form, list]) => {
      corners += list.length;
      if (corners > MOST_CORNERS) tooMany(file, `more than ${MOST_CORNERS} corners`);
      // A number beside an area is its storey or its height, seldom the level of its edge.
      return { name, group, form, corners: list, levelM: form === 'ring' ? null : levelM };
    });
  });
  if (raw.length > MOST_SHAPES) tooMany(file, `${raw.length} shapes`);
  if (raw.length === 0)
    refuseFile(file, 'shapes.none', { what: 'nothing is drawn in it', do: 'Choose a file with points, lines or areas.' });
  return {
    raw,
    notes: [
      ...(left.holes > 0 ? [`${left.holes} holes in areas were left out.`] : []),
      ...(left.short > 0 ? [`${left.short} lines or areas with too few corners were left out.`] : []),
    ],
  };
}

const tooMany = (file: string, what: string): never =>
  refuseFile(file, 'shapes.many', { what: `it holds ${what}`, do: 'Cut out the part round your land, and bring that in.' });

/** Levels of a shape [m]: of its corners where each has one, else the one it bears; null where neither is. */
function levelsOf({ corners, levelM }: RawShape, isFlat: boolean): number[] | null {
  const own = corners.map((at) => at[2] as number | undefined);
  if (!isFlat && own.every((z) => z !== undefined)) return own;
  return levelM === null ? null : corners.map(() => levelM);
}

/**
 * Shapes as they lie in metres: in the system wanted, else in the UTM zone of their middle. Numbers that are no degrees, and those a
 * file says are metres, are taken as they are.
 */
export async function shapesIn(
  collection: FeatureCollection,
  on: { readonly file: string; readonly wanted: string | null; readonly inMetres: string | null },
): Promise<ImportedShapes> {
  const { file, wanted, inMetres } = on;
  const { raw, notes: left } = rawShapes(collection, file);
  const notes = [...left];
  const isDegrees = inMetres === null;
  checkCorners(raw, file, isDegrees);
  // Many writers put a level of nothing at every corner.
  const isFlat = raw.every(({ corners }) => corners.every((at) => (at[2] ?? NO_LEVEL) === NO_LEVEL));
  if (isFlat && raw.some(({ corners }) => corners.some((at) => at.length > 2)))
    notes.push('A level of 0 at every corner was taken as none.');
  const crs = isDegrees
    ? await requireCrs(wanted ?? utmCodeFor(middleOf(raw)), file)
    : inMetres === ''
      ? null
      : await requireCrs(inMetres, file);
  if (isDegrees && crs) notes.push(`Longitudes and latitudes were laid flat in ${crs.code} (${crs.name}).`);
  const at = (corner: Position): Point => (isDegrees && crs ? fromLonLat(crs, [corner[0], corner[1]]) : [corner[0], corner[1]]);
  const shapes = raw.map((one): DrawnShape => {
    const { name, group, form, corners } = one;
    return { name, group, form, points: corners.map(at), levelsM: levelsOf(one, isFlat) };
  });
  return { kind: 'shapes', shapes, crs: crs?.code ?? null, source: file, notes };
}
const NO_LEVEL = 0;

function middleOf(raw: readonly RawShape[]): [number, number] {
  let [x, y, n] = [0, 0, 0];
  for (const { corners } of raw)
    for (const corner of corners) {
      x += corner[0];
      y += corner[1];
      n++;
    }
  return [x / n, y / n];
}
