import * as Comlink from 'comlink';
import { type GroundModel, Memo, derive, groundModel, terrainKey } from '#core/derive';
import { importFile } from '#core/formats';
import { type Project, UserError, fail, gridFromBytes } from '#core/project';
import { type Grid, contourLines, hillshade, levelsEvery, settleOnContour } from '#core/terrain';
import { registry } from '#core/works';
import type { Answer, Compute, TerrainView } from './protocol.ts';

const memo = new Memo();
const grids = new Map<string, Grid>();
let report: (part: string, share: number) => void = () => undefined;

const context = {
  registry,
  memo,
  progress: (part: string, share: number): void => report(part, share),
  grids: (terrain: NonNullable<Project['terrain']>): Grid =>
    (terrain.kind === 'asset' ? grids.get(terrain.sha256) : undefined) ??
    fail('asset.missing', 'the terrain of this project is not in the browser', {
      do: 'Open the project file again, or import the terrain.',
    }),
};

function answer<T>(run: () => T): Answer<T> {
  try {
    return { ok: true, value: run() };
  } catch (error) {
    if (error instanceof UserError) return { ok: false, problems: error.problems };
    throw error;
  }
}

/** Contours close enough to read the slope by, far enough apart to tell them: about forty over the relief. */
function niceInterval(relief: number): number {
  const wanted = relief / 40;
  return [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50].find((v) => v >= wanted) ?? 100;
}

function viewOf(model: GroundModel): TerrainView {
  const { grid, stats, flow } = model;
  const intervalM = niceInterval((stats.maxM ?? 0) - (stats.minM ?? 0));
  const { ncols, nrows, cellM, west, south, baseM } = grid;
  return {
    key: model.key,
    frame: { ncols, nrows, cellM, west, south, baseM },
    z: grid.z.slice(),
    shade: hillshade(grid),
    areaM2: Float32Array.from(flow.cells, (n) => n * cellM * cellM),
    contours: { intervalM, ...contourLines(grid, levelsEvery(grid, intervalM)) },
  };
}

const compute: Compute = {
  keep: (sha256, bytes) => {
    grids.set(sha256, gridFromBytes(bytes));
    return Promise.resolve();
  },
  derive: (project) => Promise.resolve(answer(() => derive(project, context))),
  terrainView: (project) => {
    const result = answer(() => {
      const model = groundModel(project, context);
      return model ? viewOf(model) : null;
    });
    if (!result.ok || !result.value) return Promise.resolve(result);
    const { z, shade, areaM2, contours } = result.value;
    return Promise.resolve(
      Comlink.transfer(result, [z.buffer, shade.buffer, areaM2.buffer, contours.xy.buffer, contours.starts.buffer, contours.levelM.buffer]),
    );
  },
  settle: (project, drawn) => {
    const model = project.terrain && terrainKey(project.terrain) !== '' ? groundModel(project, context) : null;
    return Promise.resolve(model ? settleOnContour(model.grid, drawn) : null);
  },
  import: async (file, crs) => {
    try {
      const value = await importFile(file, crs);
      return value.kind === 'terrain'
        ? Comlink.transfer({ ok: true as const, value }, [value.grid.z.buffer])
        : { ok: true as const, value };
    } catch (error) {
      if (error instanceof UserError) return { ok: false, problems: error.problems };
      throw error;
    }
  },
  onProgress: (to) => {
    report = to;
    return Promise.resolve();
  },
};

Comlink.expose(compute);
