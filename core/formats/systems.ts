// Systems that files name themselves in: known ones in metres, and others whose ground is laid flat in metres when it is read.
import proj4 from 'proj4';
import type { Point } from '../geometry/index.ts';
import { type Crs, crsOf } from './crs.ts';
import { refuseFile } from './imported.ts';

/** A system whose numbers are no metres Outlet keeps: degrees, or feet. */
export interface Foreign {
  /** What its numbers are, as told: "longitudes and latitudes". */
  readonly said: string;
  readonly isDegrees: boolean;
  readonly toLonLat: (place: Point) => Point;
  readonly fromLonLat: (lonLat: Point) => Point;
}

const itself = (place: Point): Point => place;

export const DEGREES: Foreign = { said: 'longitudes and latitudes', isDegrees: true, toLonLat: itself, fromLonLat: itself };

/** A projected system by its definition. */
function projectedBy(said: string, definition: string): Foreign {
  const between = proj4('WGS84', definition);
  return {
    said,
    isDegrees: false,
    toLonLat: ([x, y]) => between.inverse<[number, number]>([x, y]),
    fromLonLat: ([lon, lat]) => between.forward<[number, number]>([lon, lat]),
  };
}

/** A system in feet by its EPSG code; null where it is none that is known. */
export async function feetSystem(code: number): Promise<Foreign | null> {
  const { FEET_TABLE } = await import('./feet-table.ts');
  const entry = FEET_TABLE[String(code)];
  return entry ? projectedBy(`places in ${entry[0]}`, entry[1]) : null;
}

/** Datums within two metres of WGS 84, by how they are written. */
const NEAR_DATUM =
  /WGS_?(19)?84|WGS 84|NORTH_AMERICAN_(DATUM_)?1983|NAD_?83|ETRS|EUROPEAN_TERRESTRIAL|GDA|GEOCENTRIC_DATUM_OF_AUSTRALIA|NZGD_?2000|NEW_ZEALAND_GEODETIC_DATUM_2000|SIRGAS/i;

/** The same by their EPSG codes: ETRS89, NAD83, GDA94, GDA2020, NZGD2000, SIRGAS 2000. */
const NEAR_WGS84: ReadonlySet<number> = new Set([4258, 4269, 4283, 7844, 4167, 4674]);
const WGS84 = 4326;

/** What is told of a datum of degrees; of none where it is null. @throws UserError where it may lie far off. */
export function datumNotes(datum: number | null, { file, field }: { readonly file: string; readonly field: string }): string[] {
  if (datum === WGS84) return [];
  if (datum === null) return ['It names no datum: WGS 84 was taken.'];
  if (!NEAR_WGS84.has(datum))
    refuseFile(file, 'crs.datum', {
      what: `its degrees are on a datum (${datum}) that may lie a hundred metres off WGS 84`,
      field,
      do: 'Convert it to WGS 84 or to a projected system in metres.',
    });
  return [`Its datum (${datum}) was taken as WGS 84: up to two metres off.`];
}

/** Names of systems are written in many ways: by their letters and figures alone they are one. */
const bare = (name: string): string =>
  name
    .toLowerCase()
    .replace(/wgs_?1984/, 'wgs84')
    .replace(/nad_?1983/, 'nad83')
    .replace(/etrs_?1989/, 'etrs89')
    .replace(/[^a-z0-9]/g, '');

/** A known system in metres by the code or the name in a text of a .prj; null where it is none. */
async function knownBy(text: string, name: string): Promise<Crs | null> {
  const codes = [...text.matchAll(/(?:AUTHORITY|ID)\s*\[\s*"EPSG"\s*,\s*"?(\d+)"?\s*\]/gi)];
  // The last of them is that of the whole.
  const whole = /\]\s*\]\s*$/.test(text) ? codes[codes.length - 1] : undefined;
  const byCode = whole ? await crsOf(whole[1]) : null;
  if (byCode) return byCode;
  const { CRS_TABLE } = await import('./crs-table.ts');
  const wanted = bare(name);
  const found = Object.entries(CRS_TABLE).find(([, [title]]) => bare(title) === wanted);
  return found ? crsOf(found[0]) : null;
}

/** What a .prj says of its numbers. @throws UserError where that cannot be known. */
export async function systemOfPrj(text: string, file: string): Promise<{ readonly crs: Crs } | { readonly from: Foreign }> {
  const [, kind, name] = /^\s*(PROJCS|PROJCRS|GEOGCS|GEOGCRS|GEODCRS)\s*\[\s*"([^"]{1,200})"/i.exec(text) ?? [];
  if (kind === undefined || name === undefined)
    return refuseFile(file, 'prj.unknown', {
      what: 'its .prj is in no form that is read',
      do: 'Leave the .prj out and give the system’s EPSG code, or export the grid anew.',
    });
  const isProjected = /^PROJ/i.test(kind);
  const known = isProjected && !isFeetPrj(text) ? await knownBy(text, name) : null;
  if (known) return { crs: known };
  const [, datum = ''] = /DATUM\s*\[\s*"([^"]*)"/i.exec(text) ?? [];
  if (!NEAR_DATUM.test(datum))
    return refuseFile(file, 'crs.datum', {
      what: `its system, ${name}, stands on the datum "${datum}", which may lie a hundred metres off WGS 84`,
      do: 'Give the system’s EPSG code, or convert the file to WGS 84 or to a system in metres.',
    });
  if (!isProjected) return { from: DEGREES };
  try {
    const from = projectedBy(`places in ${name}`, text);
    if (from.toLonLat([0, 0]).every(Number.isFinite)) return { from };
  } catch {
    // Told below: a projection that is not known, or a text that breaks off.
  }
  return refuseFile(file, 'prj.unknown', {
    what: `its system, ${name}, is none that can be reckoned with`,
    do: 'Convert it to the UTM zone of your land.',
  });
} // prettier-ignore

/** Whether the numbers of a .prj's plan are feet. */
export const isFeetPrj = (text: string): boolean => /UNIT\s*\[\s*"[^"]*(foot|feet)[^"]*"/i.test(text);
