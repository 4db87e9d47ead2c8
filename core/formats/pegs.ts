import type { Peg } from '../survey/index.ts';
import { fail } from '../project/index.ts';
import Papa from 'papaparse';
import { type Crs, toLonLat } from './crs.ts';
import { escapeXml, gpxFile, harmless } from './marked-up.ts';

export type PegFormat = 'csv' | 'gpx' | 'geojson';

const metres = (v: number | null): string => (v === null ? '' : v.toFixed(3));

/** Pegs with what is written on them. Heights and coordinates in metres. */
export function writePegs(
  pegs: readonly Peg[],
  format: PegFormat,
  on: { readonly crs: Crs | null; readonly workNames: ReadonlyMap<string, string> },
): string {
  const nameOf = (peg: Peg): string => on.workNames.get(peg.work) ?? peg.work;
  const isSaid = pegs.some((p) => p.groundKnownM !== undefined);
  if (format === 'csv') {
    return (
      Papa.unparse(
        pegs.map((p) => ({
          work: harmless(nameOf(p)),
          peg: harmless(p.name),
          x_m: metres(p.x),
          y_m: metres(p.y),
          ground_m: metres(p.groundM),
          ...(isSaid ? { ground_known_m: metres(p.groundKnownM ?? null) } : {}),
          design_level_m: metres(p.levelM),
          cut_m: metres(p.cutM),
          staff_reading_m: metres(p.staffM),
        })),
        { newline: '\n' },
      ) + '\n'
    );
  }
  const { crs } = on;
  if (!crs) {
    return fail('crs.none', 'the project is in local metres, so its pegs have no latitude and longitude', {
      where: { field: 'site.crs' },
      do: 'Export CSV, or give the project its coordinate system.',
    });
  }
  const said = (p: Peg): string =>
    `design ${metres(p.levelM)} m, cut ${metres(p.cutM) || 'unknown'} m${p.staffM === null ? '' : `, staff ${metres(p.staffM)} m`}${p.groundKnownM ? `, ground known to ${metres(p.groundKnownM)} m` : ''}`;
  return format === 'gpx' ? gpx(pegs, { crs, nameOf, said }) : geoJson(pegs, { crs, nameOf });
}

function gpx(pegs: readonly Peg[], on: { crs: Crs; nameOf: (p: Peg) => string; said: (p: Peg) => string }): string {
  const points = pegs.map((p) => {
    const [lon, lat] = toLonLat(on.crs, [p.x, p.y]);
    return ` <wpt lat="${lat.toFixed(8)}" lon="${lon.toFixed(8)}"><ele>${p.levelM.toFixed(3)}</ele><name>${escapeXml(`${on.nameOf(p)} ${p.name}`)}</name><desc>${escapeXml(on.said(p))}</desc></wpt>`;
  });
  return gpxFile(points);
}

function geoJson(pegs: readonly Peg[], on: { crs: Crs; nameOf: (p: Peg) => string }): string {
  const features = pegs.map((p) => ({
    type: 'Feature',
    geometry: {
      type: 'Point',
      coordinates: [...toLonLat(on.crs, [p.x, p.y]).map((v) => Number(v.toFixed(9))), Number(p.levelM.toFixed(3))],
    },
    properties: {
      work: on.nameOf(p),
      peg: p.name,
      xM: p.x,
      yM: p.y,
      groundM: p.groundM,
      ...(p.groundKnownM === undefined ? {} : { groundKnownM: p.groundKnownM }),
      levelM: p.levelM,
      cutM: p.cutM,
      staffM: p.staffM,
    },
  }));
  return `${JSON.stringify({ type: 'FeatureCollection', features }, null, 1)}\n`;
}
