// Systems in metres found by words: a country, a zone, a name, a code, or where the land is.
import { type Crs, crsOf, epsgOf, utmCodeFor } from './crs.ts';

export interface FoundSystem {
  readonly code: string;
  readonly name: string;
  /** Where it is used, in words. */
  readonly area: string;
}

/** Shown of all that fit. */
const MOST = 30;

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '');

/** A latitude and a longitude, where that is what was typed. */
function placeIn(text: string): readonly [lon: number, lat: number] | null {
  const [, lat, lon] = /^\s*(-?\d{1,2}(?:\.\d+)?)\s*[,;\s]\s*(-?\d{1,3}(?:\.\d+)?)\s*$/.exec(text) ?? [];
  if (lat === undefined || lon === undefined) return null;
  return Math.abs(Number(lat)) <= 80 && Math.abs(Number(lon)) <= 180 ? [Number(lon), Number(lat)] : null;
}

/** How well a system fits: world-wide zones before old national grids, small areas before wide ones. */
const rank = ({ name, area }: FoundSystem, words: readonly string[]): number =>
  words.filter((word) => plain(name).includes(word)).length +
  (/^(WGS 84|ETRS89) \/ UTM zone \w+$/.test(name) ? 1.5 : 0) -
  Math.min(0.4, area.length / 2000);

/** Systems that fit all words of a text, the likeliest first. A latitude and longitude give the zone they lie in. */
export async function findSystems(text: string): Promise<FoundSystem[]> {
  const [{ CRS_TABLE }, { CRS_AREAS }] = await Promise.all([import('./crs-table.ts'), import('./crs-areas.ts')]);
  const told = (crs: Crs | null): FoundSystem[] => (crs ? [{ code: crs.code, name: crs.name, area: CRS_AREAS[epsgOf(crs)] ?? '' }] : []);
  const place = placeIn(text);
  if (place) return told(await crsOf(utmCodeFor(place)));
  const byCode = told(await crsOf(text));
  if (byCode.length > 0) return byCode;
  const words = plain(text).split(/[\s,;]+/).filter((word) => word !== ''); // prettier-ignore
  if (words.length === 0) return [];
  const all = Object.entries(CRS_TABLE).map(([code, [name]]): FoundSystem => ({ code: `EPSG:${code}`, name, area: CRS_AREAS[code] ?? '' }));
  return all
    .filter(({ name, area }) => words.every((word) => plain(name).includes(word) || plain(area).includes(word)))
    .map((one) => ({ one, fits: rank(one, words) }))
    .sort((a, b) => b.fits - a.fits)
    .slice(0, MOST)
    .map(({ one }) => one);
}
