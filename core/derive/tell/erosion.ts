// Soil worn off the property in a mean year, cell by cell, and what of it reaches each work.
import type { Drained, Store } from '../../contract/index.ts';
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import type { Erosion, Ground } from '../../project/index.ts';
import {
  DELIVERY,
  PLOT_M,
  RAIN_EROSIVITY,
  RUSLE_LENGTH,
  RUSLE_STEEPNESS,
  SILT_DENSITY,
  SOIL_LOSS,
  contourPractice,
  type TerrainFactors,
  terrainFactors,
} from '../../runoff/index.ts';
import type { Gathered } from '../world/catchments.ts';
import type { Interception } from '../world/interception.ts';
import { type Graph, asItself } from '../graph/graph.ts';
import type { SurfaceMap } from '../world/surfaces.ts';
import { type GroundModel, slopesIn } from '../world/ground-model.ts';
import type { DerivedErosion, SedimentIn } from '../types.ts';

/** A road or a drain that holds no more than this silts up along its bed, not by years [m3]. */
const LEAST_HELD_M3 = 1;
/** Share of a store taken by silt at which it is time to dig: common practice. */
const SILT_SHARE = 0.2;

const erosivityOf = ({ erosivity, annualMm }: Erosion): number => erosivity ?? RAIN_EROSIVITY.evaluate({ P: annualMm });

export interface ErosionOn {
  readonly model: GroundModel;
  readonly graph: Graph;
  readonly map: SurfaceMap;
  readonly met: Interception;
}

type Factors = TerrainFactors & { readonly model: GroundModel };

/** Soil loss of each cell [t/(ha yr)], NaN without ground. Works that catch water cut slopes short. */
export function soilLossMap(erosion: Erosion, { model, graph, map, met }: ErosionOn): Float32Array {
  const slopes = slopesIn(model, graph);
  const { factor: terrain } = graph.goingOn('terrain-factor', [model, met], (last: Factors | undefined, on, { stores, owner }): Factors => {
    const { grid, filled, flow } = on;
    const stops = stores.length > 0 ? owner.read() : null;
    return { model: on, ...terrainFactors({ grid, filled, flow, slopes, stops }, last?.model === on ? last : null) };
  });
  return graph.step('soil-loss', [asItself(terrain), map, erosion], (factor, { surfaces, index }, on) => {
    const R = erosivityOf(on);
    // Sealed ground wears off nothing.
    const wear = surfaces.map(({ facts: f }) => (f.cover.isSealed ? 0 : R * f.texture.erodibility * f.cover.surface.soilC));
    return factor.map((ls, i) => ls * wear[index[i]] * (on.onContour ? contourPractice(slopes[i]) : 1));
  });
}

function sumOver(loss: Float32Array, members: Int32Array, cellM: number): number {
  let sum = 0;
  for (let k = 0; k < members.length; k++) sum += loss[members[k]] || 0;
  return (sum * cellM * cellM) / 1e4;
}

interface Sediment {
  readonly told: SedimentIn;
  readonly lines: readonly WorksheetLine[];
}

function sedimentIn({ id, heldM3 }: Store, { areaM2 }: Drained, wornT: number): Sediment {
  const sheet = new Worksheet(id);
  const arrivesT = wornT * sheet.use(DELIVERY, { A: areaM2 / 1e6 });
  const arrivesM3 = arrivesT / SILT_DENSITY;
  const yearsToFifth = arrivesM3 > 0 && heldM3 > LEAST_HELD_M3 ? (SILT_SHARE * heldM3) / arrivesM3 : null;
  return { told: { of: id, wornT, arrivesT, arrivesM3, yearsToFifth }, lines: sheet.lines };
}

/** Soil that reaches each store in a mean year, and how long until a fifth of it is silt. */
function sedimentIntoAll(
  loss: Float32Array,
  {
    model,
    graph,
    stores,
    gathered,
  }: Pick<ErosionOn, 'model' | 'graph'> & { readonly stores: readonly Store[]; readonly gathered: readonly Gathered[] },
): Sediment[] {
  const { cellM } = model.grid;
  const byId = new Map(gathered.map((g) => [g.catchment.of, g]));
  return stores.flatMap((store) => {
    const own = byId.get(store.id);
    if (!own || own.catchment.areaM2 === 0) return [];
    const wornT = graph.step(`worn:${store.id}`, [loss, own, cellM], (all, { members }, cell) => sumOver(all, members, cell));
    return [graph.step(`sediment:${store.id}`, [store, own, wornT], (of, { catchment }, worn) => sedimentIn(of, catchment, worn))];
  });
}

/** Sum and number of cells of each surface inside the property line. */
function sumsOf(loss: Float32Array, { surfaces, index }: SurfaceMap, inside: Uint8Array): { sum: number; count: number }[] {
  const sums = surfaces.map(() => ({ sum: 0, count: 0 }));
  for (let i = 0; i < loss.length; i++) {
    if (loss[i] !== loss[i] || inside[i] === 0) continue;
    const own = sums[index[i]];
    own.sum += loss[i];
    own.count++;
  }
  return sums;
}

/** Everything about soil loss; null where the yearly rain is not given. */
export function erosionOf(
  ground: Ground | null,
  on: Omit<ErosionOn, 'map'> & {
    readonly map: SurfaceMap | null;
    readonly stores: readonly Store[];
    readonly gathered: readonly Gathered[];
    readonly inside: Uint8Array;
  },
): { readonly told: DerivedErosion; readonly lines: readonly WorksheetLine[] } | null {
  const { model, map, inside, graph } = on;
  if (!ground?.erosion || !map) return null;
  const loss = soilLossMap(ground.erosion, { ...on, map });
  const sums = graph.step('soil-loss-sums', [loss, map, inside], sumsOf);
  const count = sums.reduce((a, s) => a + s.count, 0);
  const sum = sums.reduce((a, s) => a + s.sum, 0);
  const sediment = sedimentIntoAll(loss, on);
  const hectares = (count * model.grid.cellM ** 2) / 1e4;
  const perHa = count > 0 ? sum / count : 0;
  return {
    told: {
      erosivity: erosivityOf(ground.erosion),
      perHaT: perHa,
      wholeT: perHa * hectares,
      bySurface: map.surfaces.map(({ id, name }, k) => ({ id, name, perHaT: sums[k].count > 0 ? sums[k].sum / sums[k].count : null })),
      works: sediment.map((s) => s.told),
    },
    lines: [...graph.step('plot-working', [ground.erosion, map], plotWorking), ...sediment.flatMap((s) => s.lines)],
  };
}

/** The working of one slope of the plot the equation was made on, for each kind of ground: what the map does cell by cell. */
function plotWorking(erosion: Erosion, { surfaces }: SurfaceMap): WorksheetLine[] {
  return surfaces.flatMap(({ id, facts }) => {
    if (facts.cover.isSealed) return [];
    const sheet = new Worksheet(id);
    const R = erosion.erosivity ?? sheet.use(RAIN_EROSIVITY, { P: erosion.annualMm });
    const [λ, S] = [PLOT_M, 0.09];
    const LS = sheet.use(RUSLE_LENGTH, { λ, S }) * sheet.use(RUSLE_STEEPNESS, { s: S });
    sheet.use(SOIL_LOSS, {
      R,
      K: facts.texture.erodibility,
      LS,
      C: facts.cover.surface.soilC,
      P: erosion.onContour ? contourPractice(S) : 1,
    });
    return sheet.lines;
  });
}
