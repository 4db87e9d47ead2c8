// Generates core/formats/crs-table.json from the epsg-index package: projected systems in metres, code -> [name, proj4].
import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const all = createRequire(import.meta.url)('epsg-index/all.json');
const table = {};
for (const entry of Object.values(all)) {
  if (entry.kind !== 'CRS-PROJCRS' || entry.unit !== 'metre' || !entry.proj4?.includes('+units=m')) continue;
  // Web maps' Mercator is metric in name only: a metre there is a metre on the ground at the equator alone.
  if (/Mercator/.test(entry.name) && /Pseudo|World/.test(entry.name)) continue;
  table[entry.code] = [entry.name, entry.proj4.replace(/ ?\+(no_defs|type=crs)/g, '').trim()];
}
writeFileSync(new URL('../core/formats/crs-table.json', import.meta.url), `${JSON.stringify(table).replaceAll('],"', '],\n"')}\n`);
console.log(`${Object.keys(table).length} systems`);
