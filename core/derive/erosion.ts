// Soil worn off the property in a mean year, cell by cell, and what of it reaches each work.
import type { Store } from '../contract/index.ts';
import { Worksheet, type WorksheetLine } from '../formula/index.ts';
import type { Erosion, Ground } from '../project/index.ts';
import {
  DELIVERY,
  PLOT_M,
  RAIN_EROSIVITY,
  RUSLE_LENGTH,
  RUSLE_STEEPNESS,
  SILT_DENSITY,
  SOIL_LOSS,
  contourPractice,
  terrainFactor,
} from '../runoff/index.ts';
import type { Gathered, Interception } from './catchments.ts';
import type { Memo } from './memo.ts';
import type { SurfaceMap } from './surfaces.ts';
import { type GroundModel, slopesIn } from './terrain-steps.ts';
import type { DerivedErosion, SedimentIn } from './types.ts';

/** A road or a drain that holds no more than this silts up along its bed, not by years [m3]. */
const LEAST_HELD_M3 = 1;
/** Share of a store taken by silt at which it is time to dig: common practice. */
const SILT_SHARE = 0.2;

const erosivityOf = ({ erosivity, annualMm }: Erosion): number => erosivity ?? RAIN_EROSIVITY.evaluate({ P: annualMm });

export interface ErosionOn {
  readonly model: GroundModel;
  readonly memo: Memo;
  readonly map: SurfaceMap;
  readonly met: Interception;
}

/** Soil loss of each cell [t/(ha yr)], NaN without ground. Works that catch water cut slopes short. */
export function soilLossMap(erosion: Erosion, { model, memo, map, met }: ErosionOn): Float32Array {
  const slopes = slopesIn(model, memo);
  const terrain = memo.step('terrain-factor', `${model.key}|${met.key}`, () =>
    terrainFactor({ grid: model.grid, filled: model.filled, flow: model.flow, slopes, stops: met.works.length > 0 ? met.owner : null }),
  );
  const facts = map.surfaces.map((s) => s.facts);
  const key = `${memo.stamp('terrain-factor')}|${memo.stamp('surfaces')}|${JSON.stringify([erosion, facts])}`;
  return memo.step('soil-loss', key, () => {
    const R = erosivityOf(erosion);
    // Sealed ground wears off nothing.
    const wear = facts.map((f) => (f.cover.isSealed ? 0 : R * f.texture.erodibility * f.cover.surface.soilC));
    return terrain.map((ls, i) => ls * wear[map.index[i]] * (erosion.onContour ? contourPractice(slopes[i]) : 1));
  });
}

function sumOver(loss: Float32Array, members: Int32Array, cellM: number): number {
  let sum = 0;
  for (let k = 0; k < members.length; k++) sum += loss[members[k]] || 0;
  return (sum * cellM * cellM) / 1e4;
}

/** Soil that reaches each store in a mean year, and how long until a fifth of it is silt. */
function sedimentIn(
  loss: Float32Array,
  on: { readonly model: GroundModel; readonly memo: Memo; readonly stores: readonly Store[]; readonly gathered: readonly Gathered[] },
): { readonly works: SedimentIn[]; readonly lines: WorksheetLine[] } {
  const lines: WorksheetLine[] = [];
  const works = on.stores.flatMap((store): SedimentIn[] => {
    const own = on.gathered.find((g) => g.catchment.of === store.work);
    if (!own || own.catchment.areaM2 === 0) return [];
    const sheet = new Worksheet(store.work);
    const key = `${own.key}|${on.memo.stamp('soil-loss')}`;
    const wornT = on.memo.step(`worn:${store.work}`, key, () => sumOver(loss, own.members, on.model.grid.cellM));
    const arrivesT = wornT * sheet.use(DELIVERY, { A: own.catchment.areaM2 / 1e6 });
    const arrivesM3 = arrivesT / SILT_DENSITY;
    lines.push(...sheet.lines);
    return [
      {
        of: store.work,
        wornT,
        arrivesT,
        arrivesM3,
        yearsToFifth: arrivesM3 > 0 && store.heldM3 > LEAST_HELD_M3 ? (SILT_SHARE * store.heldM3) / arrivesM3 : null,
      },
    ];
  });
  return { works, lines };
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

/** Everything about soil loss of a derive; null where the yearly rain is not given. */
export function erosionOf(
  ground: Ground | null,
  on: Omit<ErosionOn, 'map'> & {
    readonly map: SurfaceMap | null;
    readonly stores: readonly Store[];
    readonly gathered: readonly Gathered[];
    readonly inside: Uint8Array;
  },
): { readonly told: DerivedErosion; readonly lines: readonly WorksheetLine[] } | null {
  const { model, map, inside, memo } = on;
  if (!ground?.erosion || !map) return null;
  const loss = soilLossMap(ground.erosion, { ...on, map });
  const key = `${memo.stamp('soil-loss')}|${memo.stamp('inside')}`;
  const sums = memo.step('soil-loss-sums', key, () => sumsOf(loss, map, inside));
  const count = sums.reduce((a, s) => a + s.count, 0);
  const sum = sums.reduce((a, s) => a + s.sum, 0);
  const { works, lines } = sedimentIn(loss, on);
  const hectares = (count * model.grid.cellM ** 2) / 1e4;
  const perHa = count > 0 ? sum / count : 0;
  return {
    told: {
      erosivity: erosivityOf(ground.erosion),
      perHaT: perHa,
      wholeT: perHa * hectares,
      bySurface: map.surfaces.map(({ id, name }, k) => ({ id, name, perHaT: sums[k].count > 0 ? sums[k].sum / sums[k].count : null })),
      works,
    },
    lines: [...plotWorking(ground.erosion, map), ...lines],
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
