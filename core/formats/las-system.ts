// Which system a point cloud lies in: by its keys, as a GeoTIFF has them, or in words.
import { type Crs, requireCrs } from './crs.ts';
import { refuseFile } from './imported.ts';
import type { LasHeader, LasRecord } from './las-header.ts';
import { DEGREES, type Foreign, datumNotes, feetSystem, systemOfPrj } from './systems.ts';

/** Its system, and metres to one of its levels where it says so; null where it does not. */
export type LasSystem = ({ readonly crs: Crs } | { readonly from: Foreign } | { readonly none: true }) & { readonly levelM: number | null };

const PROJECTION = 'LASF_Projection';
const [KEYS, WORDS] = [34735, 2112];
// GeoTIFF 1.1 keys (OGC 19-008r4): model type 2 geographic; units 9001 metre, 9002 foot, 9003 US survey foot.
const [MODEL_TYPE, GEOGRAPHIC_TYPE, PROJECTED_TYPE, VERTICAL_UNITS] = [1024, 2048, 3072, 4099];
const IN_DEGREES = 2;
const USER_DEFINED = 32767;
const UNITS: Readonly<Record<number, number>> = { 9001: 1, 9002: 0.3048, 9003: 1200 / 3937 };

/** Keys whose value is a number, by their own. */
function keysIn(bytes: Uint8Array, { at, bytes: length }: LasRecord): ReadonlyMap<number, number> {
  const view = new DataView(bytes.buffer, bytes.byteOffset + at, length);
  const keys = new Map<number, number>();
  for (let k = 8; k + 8 <= length; k += 8) if (view.getUint16(k + 2, true) === 0) keys.set(view.getUint16(k, true), view.getUint16(k + 6, true));
  return keys;
} // prettier-ignore

/** The part of a text in brackets that begins with a word: a plan within a system of plan and height. */
function bracketed(text: string, word: RegExp): string | null {
  const from = text.search(word);
  if (from < 0) return null;
  for (let k = text.indexOf('[', from), depth = 0; k >= 0 && k < text.length; k++) {
    if (text[k] === '[') depth++;
    else if (text[k] === ']' && --depth === 0) return text.slice(from, k + 1);
  }
  return null;
}

/** Metres to a level by the words of a height's system; null where they do not say. */
function levelIn(text: string): number | null {
  const height = bracketed(text, /VERT_?(CS|CRS)\s*\[/i);
  const unit = height ? /(?:LENGTH)?UNIT\s*\[\s*"[^"]*"\s*,\s*([\d.eE+-]+)/i.exec(height)?.[1] : undefined;
  const metres = Number(unit);
  return unit !== undefined && metres > 0.2 && metres < 1.1 ? metres : null;
}

/** @throws UserError where it names one that is not known, or lies on a datum that may be far off. */
export async function systemOfLas({ records, isInWords }: LasHeader, bytes: Uint8Array, { file, notes }: { readonly file: string; readonly notes: string[] }): Promise<LasSystem> {
  const record = (id: number): LasRecord | undefined => records.find((r) => r.user === PROJECTION && r.id === id);
  const [words, keyed] = [record(WORDS), record(KEYS)];
  if (words && (isInWords || !keyed)) {
    const text = new TextDecoder().decode(bytes.subarray(words.at, words.at + words.bytes)).replace(/\0.*$/s, '');
    const plan = bracketed(text, /PROJ(CS|CRS)\s*\[/i) ?? bracketed(text, /GEO(G|D)(CS|CRS)\s*\[/i) ?? text;
    return { ...(await systemOfPrj(plan, file)), levelM: levelIn(text) };
  }
  if (!keyed) return { none: true, levelM: null };
  const keys = keysIn(bytes, keyed);
  const levelM = UNITS[keys.get(VERTICAL_UNITS) ?? 0] ?? null;
  if (keys.get(MODEL_TYPE) === IN_DEGREES) {
    const datum = keys.get(GEOGRAPHIC_TYPE);
    notes.push(...datumNotes(datum === undefined || datum === USER_DEFINED ? null : datum, { file, field: 'GeographicTypeGeoKey' }));
    return { from: DEGREES, levelM };
  }
  const code = keys.get(PROJECTED_TYPE);
  if (code === undefined || code === USER_DEFINED)
    return refuseFile(file, 'crs.unknown', { what: 'it is in a projected system that it does not name', do: 'Export it in a system with an EPSG code.' });
  const feet = await feetSystem(code);
  return feet ? { from: feet, levelM } : { crs: await requireCrs(`EPSG:${code}`, file), levelM };
} // prettier-ignore
