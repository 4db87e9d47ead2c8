// Generates core/formats/crs-table.json, feet-table.json and crs-areas.json from the epsg-index package: projected systems in metres, and in feet, code -> [name, proj4],
// and where those in metres are used.
import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const all = createRequire(import.meta.url)('epsg-index/all.json');
const table = {};
const areas = {};
for (const entry of Object.values(all)) {
  if (entry.kind !== 'CRS-PROJCRS' || entry.unit !== 'metre' || !entry.proj4?.includes('+units=m')) continue;
  // Web maps' Mercator is metric in name only: a metre there is a metre on the ground at the equator alone.
  if (/Mercator/.test(entry.name) && /Pseudo|World/.test(entry.name)) continue;
  areas[entry.code] = (entry.area ?? '').replace(/\.$/, '');
  table[entry.code] = [entry.name, entry.proj4.replace(/ ?\+(no_defs|type=crs)/g, '').trim()];
}
/** Systems in feet are only read, never kept: those within two metres of WGS 84, whose shift needs no files. */
const feet = {};
for (const { kind, code, name, proj4 = '' } of Object.values(all)) {
  if (kind !== 'CRS-PROJCRS' || !/units=(us-)?ft/.test(proj4) || !/towgs84=0,0,0,0,0,0,0/.test(proj4)) continue;
  feet[code] = [name, proj4.replace(/ ?\+(no_defs|type=crs)/g, '').trim()];
}
for (const [file, systems] of Object.entries({ 'crs-table.json': table, 'feet-table.json': feet, 'crs-areas.json': areas })) {
  writeFileSync(
    new URL(`../core/formats/${file}`, import.meta.url),
    `${JSON.stringify(systems).replaceAll(/(\]|"),"(?=\d+":)/g, '$1,\n"')}\n`,
  );
  console.log(`${file}: ${Object.keys(systems).length} systems`);
}
