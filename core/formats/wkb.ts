// Geometries as bytes (OGC 06-103r4 section 8, "well-known binary"), with the head a GeoPackage puts before them (OGC 12-128r18 section 2.1.3).
import type { LineString, Point, Polygon, Position } from 'geojson';

/** How deep geometries stand within each other at most. */
const DEEPEST = 8;
/** Flag of the older way to say that there are levels. */
const OLD_Z = 0x80000000;

/** What is drawn: several of a kind are told as a collection. */
export type Drawn = Point | LineString | Polygon | DrawnTogether;
export interface DrawnTogether {
  readonly type: 'GeometryCollection';
  readonly geometries: Drawn[];
}

/** Numbers of the kinds; those after a polygon hold others. */
const [POINT, LINE, POLYGON, MOST_KIND] = [1, 2, 3, 7];
/** Bytes of the box in the head by its kind. */
const BOX_BYTES = [0, 32, 48, 48, 64];

/** Bytes read one after the other. @throws RangeError where they end too soon. */
class Bytes {
  constructor(
    private readonly view: DataView,
    private at: number,
  ) {}

  private step(bytes: number): number {
    const from = this.at;
    this.at += bytes;
    return from;
  }

  byte(): number {
    return this.view.getUint8(this.step(1));
  }

  whole(little: boolean): number {
    return this.view.getUint32(this.step(4), little);
  }

  number(little: boolean): number {
    return this.view.getFloat64(this.step(8), little);
  }

  /** How many things follow, each of so many bytes at least. */
  count(little: boolean, least: number): number {
    const count = this.whole(little);
    if (count * least > this.view.byteLength - this.at) throw new RangeError('it claims more than it holds');
    return count;
  }
}

/** One place: its level where there is one, never a measure along the line. */
function place(bytes: Bytes, little: boolean, has: { readonly z: boolean; readonly m: boolean }): Position {
  const at = [bytes.number(little), bytes.number(little)];
  if (has.z) at.push(bytes.number(little));
  if (has.m) bytes.number(little);
  return at;
}

function geometry(bytes: Bytes, depth: number): Drawn | null {
  if (depth > DEEPEST) throw new RangeError('it stands too deep');
  const little = bytes.byte() === 1;
  const said = bytes.whole(little);
  const isOld = said >= OLD_Z;
  const type = isOld ? said - OLD_Z : said % 1000;
  const dimension = Math.floor((isOld ? 0 : said) / 1000);
  if (type < POINT || type > MOST_KIND || dimension > 3) throw new RangeError(`a geometry of the kind ${said}`);
  const has = { z: isOld || dimension === 1 || dimension === 3, m: dimension >= 2 };
  const placeBytes = 8 * (2 + (has.z ? 1 : 0) + (has.m ? 1 : 0));
  const line = (): Position[] => Array.from({ length: bytes.count(little, placeBytes) }, () => place(bytes, little, has));
  if (type === POINT) {
    const at = place(bytes, little, has);
    // A place that is nowhere is written as no numbers.
    return at.some(Number.isNaN) ? null : { type: 'Point', coordinates: at };
  }
  if (type === LINE) return { type: 'LineString', coordinates: line() };
  if (type === POLYGON) return { type: 'Polygon', coordinates: Array.from({ length: bytes.count(little, 4) }, line) };
  // One within another has a head of its own.
  const within = Array.from({ length: bytes.count(little, 5) }, () => geometry(bytes, depth + 1));
  return { type: 'GeometryCollection', geometries: within.flatMap((one) => one ?? []) };
}

/** A geometry as a GeoPackage keeps it; null where it is empty. @throws RangeError where it is none. */
export function packedGeometry(blob: Uint8Array): Drawn | null {
  const view = new DataView(blob.buffer, blob.byteOffset, blob.byteLength);
  if (blob.length < 8 || blob[0] !== 0x47 || blob[1] !== 0x50) throw new RangeError('it has no head');
  const flags = blob[3];
  const box = BOX_BYTES[(flags >> 1) & 7] as number | undefined;
  if (box === undefined) throw new RangeError('its head is none');
  const isEmpty = (flags & 16) !== 0;
  return isEmpty ? null : geometry(new Bytes(view, 8 + box), 0);
}
