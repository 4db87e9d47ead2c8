// Water day by day: many sizes of one store, and all stores of the demo through its record.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Graph, type Season, ask } from '#core/derive';
import { openProjectFile } from '#core/formats';
import { type Days, daysOf, trySize } from '#core/season';
import { type Project, gridFromBytes, recordFromBytes } from '#core/project';
import { registry } from '#core/works';

const SIZES = 100;
const YEARS = 50;

/** A hundred sizes through fifty years of days [ms]. */
export function hundredSizes(): number {
  const made = daysOf(null, { rainMm: Array<number>(12).fill(70), wetDays: Array<number>(12).fill(10) });
  if (typeof made === 'string') throw new Error(made);
  const n = Math.round(YEARS * 365.25);
  const rainMm = Float64Array.from({ length: n }, (_, i) => made.rainMm[i % made.rainMm.length]);
  const days: Days = { ...made, day: Int32Array.from({ length: n }, (_, i) => i), rainMm };
  const store = { id: 's', roomM3: 5, deadM3: 0.2, startM3: 0, volumeM3: Float64Array.of(0, 5), areaM2: Float64Array.of(3, 3), isCovered: true, rainedM2: 0, soaksMmPerDay: 0, comesM3: rainMm.map((mm) => mm * 0.09), asksM3: new Float64Array(n).fill(0.2), topUp: null, spills: [], returns: null }; // prettier-ignore
  const start = performance.now();
  for (let k = 1; k <= SIZES; k++) trySize(store, 0.2 * k, { days, years: YEARS, order: 'after', price: null });
  return performance.now() - start;
}

/** All stores of the demo through its record, from the land up, and again after a need was changed [ms]. */
export function demoSeason(): { readonly years: number; readonly firstMs: number; readonly againMs: number } {
  const file = readFileSync(fileURLToPath(new URL('../../demo/demo.outlet', import.meta.url)));
  const { json, assets } = openProjectFile('demo.outlet', new Uint8Array(file));
  const project = json as Project;
  const grid = gridFromBytes(assetOf(assets, project.terrain?.kind === 'asset' ? project.terrain.sha256 : ''));
  const record = recordFromBytes(assetOf(assets, project.gauge?.sha256 ?? ''));
  const context = { registry, grids: () => grid, records: () => record, graph: new Graph() };
  const took = (one: Project): { readonly ms: number; readonly season: Season } => {
    const start = performance.now();
    const season = ask('season', { project: one, context, args: {} }) as Season;
    return { ms: performance.now() - start, season };
  };
  const first = took(project);
  const needs = (project.supply?.needs ?? []).map((n) => ({ ...n, each: n.each * 1.1 }));
  const again = took({ ...project, supply: { ...project.supply, needs } });
  return { years: first.season.years, firstMs: first.ms, againMs: again.ms };
}

function assetOf(assets: ReadonlyMap<string, Uint8Array>, sha256: string): Uint8Array {
  const bytes = assets.get(sha256);
  if (!bytes) throw new Error(`the demo has no asset ${sha256}`);
  return bytes;
}
