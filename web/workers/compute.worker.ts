import * as Comlink from 'comlink';
import {
  type GroundModel,
  type LandQuestions,
  Graph,
  type RainContext,
  askGround,
  askNetwork,
  askLand,
  askRain,
  derive,
  groundModel,
  terrainKey,
} from '#core/derive';
import { type Project, fail, gridFromBytes, isRecord, problemsThrown, recordFromBytes } from '#core/project';
import type { RainRecord } from '#core/rain';
import type { Grid } from '#core/terrain';
import { registry } from '#core/works';
import { Packer } from './parts.ts';
import type { Answer, Compute, TerrainView } from './protocol.ts';

const graph = new Graph();
const packer = new Packer();
const grids = new Map<string, Grid>();
const records = new Map<string, RainRecord>();
let report: (part: string, share: number) => void = () => undefined;

const context = {
  registry,
  graph,
  progress: (part: string, share: number): void => report(part, share),
  grids: (terrain: NonNullable<Project['terrain']>): Grid =>
    (terrain.kind === 'asset' ? grids.get(terrain.sha256) : undefined) ??
    fail('asset.missing', 'the terrain of this project is not in the browser', {
      do: 'Open the project file again, or import the terrain.',
    }),
};

/** The gauge's steps have a graph of their own: a derive forgets what it did not use. */
const rainContext: RainContext = {
  graph: new Graph(),
  records: ({ sha256 }) =>
    records.get(sha256) ??
    fail('asset.missing', 'the gauge record of this project is not in the browser', {
      do: 'Open the project file again, or import the record.',
    }),
};

function answer<T>(run: () => T): Answer<T> {
  try {
    return { ok: true, value: run() };
  } catch (error) {
    return { ok: false, problems: problemsThrown(error, 'the computation') };
  }
}

function viewOf(model: GroundModel, terrain: string): TerrainView {
  const { grid, flow } = model;
  const { ncols, nrows, cellM, west, south, baseM } = grid;
  return {
    key: model.key,
    terrain,
    frame: { ncols, nrows, cellM, west, south, baseM },
    z: grid.z.slice(),
    areaM2: Float32Array.from(flow.cells, (n) => n * cellM * cellM),
  };
}

/** Flat arrays in an answer, to be handed over rather than copied. */
function buffersIn(value: unknown): ArrayBuffer[] {
  if (ArrayBuffer.isView(value)) return [value.buffer as ArrayBuffer];
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return [];
  return Object.values(value).flatMap(buffersIn);
}

/** Questions whose arrays are made anew for each answer. */
const FRESH: ReadonlySet<keyof LandQuestions> = new Set(['layer', 'shade', 'contours', 'departure']);

const compute: Compute = {
  keep: async (sha256, blob) => {
    const bytes = new Uint8Array(await blob.arrayBuffer());
    return answer(() => {
      if (isRecord(bytes)) records.set(sha256, recordFromBytes(bytes));
      else grids.set(sha256, gridFromBytes(bytes));
    });
  },
  derive: (project) => Promise.resolve(answer(() => packer.pack(derive(project, context)))),
  terrainView: (project) => {
    const result = answer(() => {
      const model = groundModel(project, context);
      return model && project.terrain ? viewOf(model, terrainKey(project.terrain)) : null;
    });
    return Promise.resolve(result.ok ? Comlink.transfer(result, buffersIn(result.value)) : result);
  },
  ask: (name, project, args) => {
    const result = answer(() => askLand(name, project, { context, args }));
    // What a step keeps for later must stay here: only fresh arrays are handed over.
    return Promise.resolve(FRESH.has(name) && result.ok ? Comlink.transfer(result, buffersIn(result.value)) : result);
  },
  askRain: (name, project, args) => Promise.resolve(answer(() => askRain(name, project, { context: rainContext, args }))),
  askNetwork: (name, project, args) => Promise.resolve(answer(() => askNetwork(name, project, { context, args }))),
  askGround: (name, project, args) => Promise.resolve(answer(() => askGround(name, project, { context, args }))),
  onProgress: (to) => {
    report = to;
    return Promise.resolve();
  },
};

Comlink.expose(compute);
