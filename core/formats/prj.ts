// What tells the system of a grid in text: the .prj that lies beside it.
import { strToU8, zipSync } from 'fflate';
import proj4 from 'proj4';
import type { Crs } from './crs.ts';

/** Degrees in radians, as every .prj has them. */
const DEGREE = '0.0174532925199433';
/** Middle, and scale, of a UTM zone, and how far its numbers are moved [m]. */
const UTM = { scale: 0.9996, eastM: 500_000, southM: 10_000_000 } as const;

type Named = readonly (readonly [name: string, value: number])[];

/** The members of a definition: "+lat_0=46.5" as lat_0. */
const membersOf = (definition: string): ReadonlyMap<string, string> =>
  new Map(
    definition.split(/\s+/).map((word) => {
      const [name, value = ''] = word.replace(/^\+/, '').split('=');
      return [name, value] as const;
    }),
  );

/** Projections that are written, with their numbers; null for others. */
function projectionOf(members: ReadonlyMap<string, string>): { readonly name: string; readonly numbers: Named } | null {
  const number = (name: string, otherwise: number): number => (members.has(name) ? Number(members.get(name)) : otherwise);
  const moved: Named = [
    ['False_Easting', number('x_0', 0)],
    ['False_Northing', number('y_0', 0)],
    ['Central_Meridian', number('lon_0', 0)],
  ];
  const scale = number('k_0', number('k', 1));
  const origin: Named = [['Latitude_Of_Origin', number('lat_0', 0)]];
  if (members.get('proj') === 'tmerc') return { name: 'Transverse_Mercator', numbers: [...moved, ['Scale_Factor', scale], ...origin] };
  if (members.get('proj') === 'utm') {
    const north = members.has('south') ? UTM.southM : 0;
    const zone: Named = [['False_Easting', UTM.eastM], ['False_Northing', north], ['Central_Meridian', 6 * number('zone', NaN) - 183]]; // prettier-ignore
    return { name: 'Transverse_Mercator', numbers: [...zone, ['Scale_Factor', UTM.scale], ...origin] };
  }
  if (members.get('proj') !== 'lcc') return null;
  const first = number('lat_1', number('lat_0', 0));
  const along: Named = members.has('lat_2')
    ? [['Standard_Parallel_1', first], ['Standard_Parallel_2', number('lat_2', first)]] // prettier-ignore
    : [['Standard_Parallel_1', first], ['Scale_Factor', scale]]; // prettier-ignore
  return { name: 'Lambert_Conformal_Conic', numbers: [...moved, ...along, ...origin] };
}

/** Letters and figures joined by underscores, as names of datums are. */
const joined = (name: string): string => name.trim().replaceAll(/[^A-Za-z0-9]+/g, '_');

/** The .prj of a system; null where its projection, or its meridian, is none that is written. */
export function prjOf({ code, name, proj4: definition }: Crs): string | null {
  const members = membersOf(definition);
  const projection = projectionOf(members);
  if (!projection || members.has('pm') || members.has('axis') || members.get('units') !== 'm') return null;
  const { a, b } = proj4.Proj(definition) as unknown as { readonly a: number; readonly b: number };
  const isWgs84 = members.get('datum') === 'WGS84';
  const datum = isWgs84 ? 'WGS_1984' : joined(name.split(' / ')[0]);
  const flattening = a === b ? 0 : Number((a / (a - b)).toPrecision(12));
  const numbers = projection.numbers.map(([title, value]) => `PARAMETER["${title}",${value}]`).join(',');
  return (
    `PROJCS["${joined(name)}",GEOGCS["GCS_${datum}",DATUM["D_${datum}",SPHEROID["${members.get('ellps') ?? datum}",${a},${flattening}]],` +
    `PRIMEM["Greenwich",0],UNIT["Degree",${DEGREE}]],PROJECTION["${projection.name}"],${numbers},UNIT["Meter",1],` +
    `AUTHORITY["EPSG","${code.replace('EPSG:', '')}"]]\n`
  );
}

/** A grid in text and the .prj beside it, in one file. */
export const withPrj = (grid: Uint8Array, prj: string): Uint8Array => zipSync({ 'ground.asc': grid, 'ground.prj': strToU8(prj) });
