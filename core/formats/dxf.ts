// Drawings of drawing programs (DXF): their points, lines and outlines by layer, in metres.
import DxfParser, { type IEntity, type IPoint } from 'dxf-parser';
import type { Feature, FeatureCollection, Geometry, Position } from 'geojson';
import { type ImportedShapes, type InputFile, refuseFile } from './imported.ts';
import { shapesIn } from './shapes.ts';
import { textOf } from './text.ts';

/** Metres in the unit a drawing says it is in (its $INSUNITS); those that say none are taken as metres. */
const UNITS: Readonly<Record<number, readonly [metres: number, name: string]>> = {
  1: [0.0254, 'inches'],
  2: [0.3048, 'feet'],
  4: [0.001, 'millimetres'],
  5: [0.01, 'centimetres'],
  6: [1, 'metres'],
  21: [1200 / 3937, 'US survey feet'],
};

type Drawn = IEntity & {
  readonly vertices?: readonly IPoint[];
  readonly position?: IPoint;
  readonly elevation?: number;
  readonly shape?: boolean;
};

/** Corners in metres; a level of nothing all along is none. */
function corners(list: readonly IPoint[], perUnit: number, levelM: number | undefined): Position[] {
  const levels = list.map(({ z }) => levelM ?? (z as number | undefined) ?? NO_LEVEL);
  const isFlat = levels.every((z) => z === NO_LEVEL);
  return list.map(({ x, y }, k) => [x * perUnit, y * perUnit, ...(isFlat ? [] : [levels[k] * perUnit])]);
}
const NO_LEVEL = 0;

/** A triangle has a fourth corner to spare. */
const face = (list: readonly IPoint[]): readonly IPoint[] => list.filter((p, k) => k < 3 || Object.keys(p).length > 0);

function geometryOf({ type, vertices = [], position, elevation, shape }: Drawn, perUnit: number): Geometry | null {
  switch (type) {
    case 'POINT':
      return position ? { type: 'Point', coordinates: corners([position], perUnit, undefined)[0] } : null;
    case 'LINE':
    case 'POLYLINE':
    case 'LWPOLYLINE': {
      const line = corners(vertices, perUnit, type === 'LWPOLYLINE' ? elevation : undefined);
      return shape === true && line.length > 2 ? { type: 'Polygon', coordinates: [[...line, line[0]]] } : { type: 'LineString', coordinates: line };
    }
    case '3DFACE':
      return { type: 'Polygon', coordinates: [corners(face(vertices), perUnit, undefined)] };
    default:
      return null;
  }
} // prettier-ignore

type Within = 'file' | 'section' | 'polyline';

/** Where one is after each mark: null where it cannot stand, undefined where all stays. */
const NEXT: Readonly<Record<Within, Readonly<Record<string, Within | 'end' | null | undefined>>>> = {
  file: { SECTION: 'section', EOF: 'end', other: null },
  section: { ENDSEC: 'file', POLYLINE: 'polyline', SECTION: null, EOF: null },
  polyline: { VERTEX: 'polyline', SEQEND: 'section', other: null },
};

const notDrawn = (file: string, line?: number): never =>
  refuseFile(file, 'dxf.broken', {
    what: 'it breaks off, or is no drawing of this kind',
    ...(line === undefined ? {} : { line }),
    do: 'Save it anew as a DXF of text, of 2000 or later.',
  });

/** What a corner of a light polyline is told by: across, up, level, widths and bulge. Each begins with the first and has the second. */
const [ACROSS, UP] = ['10', '20'];
const OF_CORNER: ReadonlySet<string> = new Set([ACROSS, UP, '30', '40', '41', '42']);

/** Which corner of a light polyline a pair tells of. */
type Corner = 'none' | 'not-yet' | 'begun' | 'told';

/**
 * Lines of a drawing stand in pairs, a code and a value, in sections that are closed, up to a mark for its end. Among the corners
 * of a light polyline nothing else may stand (newer programs number them): it is told before them, since its reader would end there,
 * or read them for ever. @throws UserError at the line where a drawing is not so: what follows could be read for ever, too.
 */
function soundPairs(text: string, file: string): string {
  const lines = text.split(/\r\n|\r|\n/g);
  const broken = (k: number): never => notDrawn(file, k + 1);
  const kept: string[] = [];
  let ofCorners: string[] = [];
  let within: Within = 'file';
  let corner: Corner = 'none';
  for (let k = 0; k < lines.length; k += 2) {
    const code = lines[k].trim();
    const value = (lines[k + 1] as string | undefined)?.trim();
    if (!/^-?\d{1,4}$/.test(code) || value === undefined) broken(k);
    if (code !== '0') {
      if (corner === 'begun' && code !== UP) broken(k);
      if (corner !== 'none') corner = code === ACROSS ? 'begun' : code === UP && corner === 'begun' ? 'told' : corner;
      const isOfCorner = (corner === 'begun' || corner === 'told') && OF_CORNER.has(code);
      (isOfCorner ? ofCorners : kept).push(lines[k], lines[k + 1]);
      continue;
    }
    if (corner === 'begun') broken(k);
    for (const line of ofCorners) kept.push(line);
    ofCorners = [];
    corner = value === 'LWPOLYLINE' ? 'not-yet' : 'none';
    kept.push(lines[k], lines[k + 1]);
    const mark: string = value !== undefined && Object.hasOwn(NEXT[within], value) ? value : 'other';
    const next: Within | 'end' | null | undefined = NEXT[within][mark];
    if (next === null) broken(k);
    if (next === 'end') return kept.join('\n');
    within = next ?? within;
  }
  return broken(lines.length - 1);
}

/** Its reader writes what it wonders about to where answers of the command line go. */
function quietly<T>(run: () => T): T {
  const { log, error } = console;
  console.log = console.error = () => undefined;
  try {
    return run();
  } finally {
    Object.assign(console, { log, error });
  }
}

/** The drawing of a text. @throws UserError where it is none. */
function parsed(text: string, file: string): { readonly entities: readonly Drawn[]; readonly units: number } {
  const sound = soundPairs(text, file);
  try {
    const drawing = quietly(() => new DxfParser().parseSync(sound));
    // A drawing may begin without a header.
    const units: unknown = (drawing?.header as Record<string, unknown> | undefined)?.$INSUNITS;
    if (drawing && Array.isArray(drawing.entities)) return { entities: drawing.entities, units: typeof units === 'number' ? units : 0 };
  } catch {
    // Told below, in our words.
  }
  return notDrawn(file);
}

export async function readDxf({ name, bytes }: InputFile, wanted: string | null): Promise<ImportedShapes> {
  const { entities, units } = parsed(textOf(bytes), name);
  const [perUnit, unit] = UNITS[units] ?? [1, null];
  const left = new Map<string, number>();
  const features = entities.flatMap((entity): Feature[] => {
    const geometry = geometryOf(entity, perUnit);
    if (geometry) return [{ type: 'Feature', geometry, properties: { layer: entity.layer } }];
    left.set(entity.type, (left.get(entity.type) ?? 0) + 1);
    return [];
  });
  const collection: FeatureCollection = { type: 'FeatureCollection', features };
  const read = await shapesIn(collection, { file: name, wanted, inMetres: wanted ?? '' });
  const notes = [
    ...(unit === null ? ['It does not say its unit: its numbers are taken as metres.'] : units === 6 ? [] : [`Its numbers are ${unit}: they were turned into metres.`]),
    ...(read.crs === null ? ['It names no system: positions are taken as local metres.'] : []),
    ...[...left].map(([type, count]) => `${count} of the kind ${type} were left out.`),
  ];
  return { ...read, notes: [...read.notes, ...notes] };
} // prettier-ignore
