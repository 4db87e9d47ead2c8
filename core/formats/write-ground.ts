// The ground written for other programs and machines: as a raster, or as triangles that are nowhere farther off than is said.
import { DxfWriter, Units, point3d } from '@tarikjabiri/dxf';
import Delatin from 'delatin';
import type { Grid } from '../terrain/index.ts';
import { writeGeoTiff } from './geotiff.ts';
import { escapeXml } from './marked-up.ts';

export const GROUND_FORMATS = ['tif', 'asc', 'landxml', 'faces'] as const;
export type GroundFormat = (typeof GROUND_FORMATS)[number];

/** How files of each format end. */
export const GROUND_ENDINGS: Readonly<Record<GroundFormat, string>> = { tif: 'tif', asc: 'asc', landxml: 'xml', faces: 'dxf' };

/** Triangles are nowhere farther from the ground than this, unless that takes too many [m]. */
export const WITHIN_M = 0.01;
const MOST_POINTS = 200_000;

/** Triangulated ground: places east, north and up, and triangles of three places each. */
export interface GroundMesh {
  readonly places: readonly (readonly [x: number, y: number, levelM: number])[];
  readonly triangles: readonly (readonly [number, number, number])[];
  /** How far it is from the ground anywhere on it [m]. */
  readonly withinM: number;
}

/** Where the ground is not known triangles have no corner: they would make it up. */
export function meshOf(grid: Grid, withinM = WITHIN_M, mostPoints = MOST_POINTS): GroundMesh {
  const { ncols, nrows, cellM, west, south, z, baseM } = grid;
  const heights = Float32Array.from(z, (v) => (Number.isNaN(v) ? 0 : v));
  const mesh = new Delatin(heights, ncols, nrows);
  while (mesh.getMaxError() > withinM && mesh.coords.length < 2 * mostPoints) mesh.refine();
  const { coords, triangles } = mesh;
  const cellOf = (place: number): number => coords[2 * place + 1] * ncols + coords[2 * place];
  const isKnown = (place: number): boolean => !Number.isNaN(z[cellOf(place)]);
  const kept: [number, number, number][] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [triangles[t], triangles[t + 1], triangles[t + 2]] as [number, number, number];
    if (corners.every(isKnown)) kept.push(corners);
  }
  const numbers = new Map<number, number>();
  const numberOf = (place: number): number => {
    const known = numbers.get(place);
    if (known !== undefined) return known;
    numbers.set(place, numbers.size);
    return numbers.size - 1;
  };
  const named = kept.map(([a, b, c]) => [numberOf(a), numberOf(b), numberOf(c)] as const);
  const places = [...numbers.keys()].map((place) => {
    const [col, row] = [coords[2 * place], coords[2 * place + 1]];
    return [west + (col + 0.5) * cellM, south + (nrows - row - 0.5) * cellM, z[row * ncols + col] + baseM] as const;
  });
  return { places, triangles: named, withinM: Math.max(0, mesh.getMaxError()) };
}

const millimetre = (v: number): string => v.toFixed(3);

/** What is told beside the ground. */
export interface GroundOn {
  readonly name: string;
  /** Number of its system; null for local metres. */
  readonly epsg: number | null;
  readonly when: Date;
}

/** A surface for machine control (LandXML 1.2): places north, east, up. */
function landXml({ places, triangles, withinM }: GroundMesh, { name, epsg, when }: GroundOn): string {
  const [date, time] = when.toISOString().slice(0, 19).split('T');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<LandXML xmlns="http://www.landxml.org/schema/LandXML-1.2" version="1.2" date="${date}" time="${time}" language="English" readOnly="false">`,
    '<Units><Metric areaUnit="squareMeter" linearUnit="meter" volumeUnit="cubicMeter" temperatureUnit="celsius" pressureUnit="HPA"/></Units>',
    ...(epsg === null ? [] : [`<CoordinateSystem epsgCode="${epsg}"/>`]),
    `<Project name="${escapeXml(name)}"/>`,
    `<Surfaces><Surface name="Ground" desc="within ${millimetre(withinM)} m"><Definition surfType="TIN">`,
    `<Pnts>${places.map(([x, y, up], k) => `<P id="${k + 1}">${millimetre(y)} ${millimetre(x)} ${millimetre(up)}</P>`).join('\n')}</Pnts>`,
    `<Faces>${triangles.map((corners) => `<F>${corners.map((k) => k + 1).join(' ')}</F>`).join('\n')}</Faces>`,
    '</Definition></Surface></Surfaces>',
    '</LandXML>',
    '',
  ].join('\n');
}

/** The same as faces of a drawing in metres. */
function faces({ places, triangles }: GroundMesh): string {
  const writer = new DxfWriter();
  writer.setUnits(Units.Meters);
  writer.addLayer('GROUND', LAYER_COLOUR, 'CONTINUOUS');
  const corner = (k: number): ReturnType<typeof point3d> => point3d(...places[k]);
  for (const [a, b, c] of triangles) writer.add3dFace(corner(a), corner(b), corner(c), corner(c), { layerName: 'GROUND' });
  return writer.stringify();
}
const LAYER_COLOUR = 34;

const NO_DATA = -9999;

/** A grid of levels as text, to a millimetre. */
export function writeAsciiGrid({ ncols, nrows, cellM, west, south, z, baseM }: Grid): string {
  const lines = [
    `ncols ${ncols}`,
    `nrows ${nrows}`,
    `xllcorner ${west}`,
    `yllcorner ${south}`,
    `cellsize ${cellM}`,
    `NODATA_value ${NO_DATA}`,
  ];
  for (let row = 0; row < nrows; row++) {
    const levels: string[] = [];
    for (let i = row * ncols; i < (row + 1) * ncols; i++) levels.push(Number.isNaN(z[i]) ? String(NO_DATA) : millimetre(z[i] + baseM));
    lines.push(levels.join(' '));
  }
  return `${lines.join('\n')}\n`;
}

/** The ground in a format, as the bytes of a file. */
export function writeGround(grid: Grid, format: GroundFormat, on: GroundOn): Uint8Array {
  if (format === 'tif') return writeGeoTiff(grid, on.epsg);
  const mesh = format === 'asc' ? null : meshOf(grid);
  const text = mesh === null ? writeAsciiGrid(grid) : format === 'landxml' ? landXml(mesh, on) : faces(mesh);
  return new TextEncoder().encode(text);
} // prettier-ignore
