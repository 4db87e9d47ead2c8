import * as Comlink from 'comlink';
import {
  type AskContext,
  Graph,
  type GroundModel,
  type QuestionName,
  begunAnswer,
  deriveSlowly,
  finishSlowly,
  groundModel,
  terrainKey,
} from '#core/derive';
import { type Project, fail, gridFromBytes, isRecord, problemsThrown, recordFromBytes } from '#core/project';
import type { RainRecord } from '#core/rain';
import { type Grid, perCell } from '#core/terrain';
import { registry } from '#core/works';
import { Receiver } from './document.ts';
import { Packer } from './parts.ts';
import type { Answer, Compute, TerrainView } from './protocol.ts';
import { Turns } from './turns.ts';

const packer = new Packer();
const receiver = new Receiver();
const grids = new Map<string, Grid>();
const records = new Map<string, RainRecord>();
let report: (part: string, share: number) => void = () => undefined;

/** Nothing is asked of an asset the browser has not kept. */
const missing = (what: string, again: string): never =>
  fail('asset.missing', `the ${what} of this project is not in the browser`, {
    do: `Open the project file again, or import the ${again}.`,
  });

/** The one context everything is worked out with. */
const context: AskContext = {
  registry,
  graph: new Graph(),
  progress: (part, share) => report(part, share),
  grids: (terrain) => (terrain.kind === 'asset' ? grids.get(terrain.sha256) : undefined) ?? missing('terrain', 'terrain'),
  records: ({ sha256 }) => records.get(sha256) ?? missing('gauge record', 'record'),
};

function answer<T>(run: () => T): Answer<T> {
  try {
    return { ok: true, value: run() };
  } catch (error) {
    return { ok: false, problems: problemsThrown(error, 'the computation') };
  }
}

function viewOf(model: GroundModel, terrain: string): TerrainView {
  const { grid, flow, stats } = model;
  const { ncols, nrows, cellM, west, south, baseM } = grid;
  return {
    key: model.key,
    terrain,
    frame: { ncols, nrows, cellM, west, south, baseM },
    reliefM: (stats.maxM ?? 0) - (stats.minM ?? 0),
    z: grid.z.slice(),
    areaM2: perCell(grid, (i) => flow.cells[i] * cellM * cellM),
  };
}

/** Flat arrays in an answer, to be handed over rather than copied. */
function buffersIn(value: unknown): ArrayBuffer[] {
  if (ArrayBuffer.isView(value)) return [value.buffer as ArrayBuffer];
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return [];
  return Object.values(value).flatMap(buffersIn);
}

/** Tickets of questions being answered, and those among them nobody waits for. */
const asked = new Set<number>();
const dropped = new Set<number>();

/** Thrown where an answer is given up half way. */
class Dropped extends Error {}

/** Lets what has come in meanwhile be done, edits first of all; a question nobody waits for ends here. */
async function lookUp(ticket: number): Promise<void> {
  await new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
  if (dropped.has(ticket)) throw new Dropped();
}

/** What decided the last whole set, of one project: what is run first when something is dragged. */
let decided: { readonly project: string; readonly only: ReadonlySet<string>; readonly startsM: ReadonlyMap<string, number> } | null = null;

/** An answer that is given up when nobody waits for it any more. */
async function slowly<T>(ticket: number, run: () => Promise<T>): Promise<Answer<T>> {
  asked.add(ticket);
  try {
    return { ok: true, value: await run() };
  } catch (error) {
    if (error instanceof Dropped) return { ok: false, problems: [], isDropped: true };
    return { ok: false, problems: problemsThrown(error, 'the computation') };
  } finally {
    asked.delete(ticket);
    dropped.delete(ticket);
  }
}

const turns = new Turns();

/** Documents are worked out one after the other; one that waits while a newer comes is given up unseen. */
const inTurn = <T>(ticket: number, run: () => Promise<T>): Promise<Answer<T>> =>
  slowly(ticket, async () => {
    const done = await turns.take(() => (dropped.has(ticket) ? Promise.resolve(null) : run()));
    if (done === null) throw new Dropped();
    return done;
  });

/** Questions whose arrays are made anew for each answer. */
const FRESH: ReadonlySet<QuestionName> = new Set(['layer', 'shade', 'contours', 'departure']);

const compute: Compute = {
  keep: async (sha256, blob) => {
    const bytes = new Uint8Array(await blob.arrayBuffer());
    return answer(() => {
      if (isRecord(bytes)) records.set(sha256, recordFromBytes(bytes));
      else grids.set(sha256, gridFromBytes(bytes));
    });
  },
  derive: async (sending, { ticket, isQuick, shownMin }) => {
    // What the page sends is a document: it has no other shape.
    const project = receiver.receive(sending) as Project;
    const shown = shownMin === null ? {} : { shownMin };
    return inTurn(ticket, async () => {
      // What decided is that of the last whole set as the turn comes.
      const quick = isQuick && decided?.project === project.id ? { only: decided.only, startsM: decided.startsM, isNear: true } : {};
      const result = await finishSlowly(deriveSlowly(project, context, { ...shown, ...quick }), () => lookUp(ticket));
      const { first, starts, isWhole } = result.view;
      if (isWhole)
        decided = first.length > 0 ? { project: project.id, only: new Set(first), startsM: new Map(Object.entries(starts)) } : null;
      return packer.pack(result);
    });
  },
  terrainView: (project) => {
    const result = answer(() => {
      const model = groundModel(project, context);
      return model && project.terrain ? viewOf(model, terrainKey(project.terrain)) : null;
    });
    return Promise.resolve(result.ok ? Comlink.transfer(result, buffersIn(result.value)) : result);
  },
  ask: async (name, project, { args, ticket }) => {
    const result = await slowly(ticket, () => finishSlowly(begunAnswer(name, { project, context, args }), () => lookUp(ticket)));
    // What a step keeps for later must stay here: only fresh arrays are handed over.
    return FRESH.has(name) && result.ok ? Comlink.transfer(result, buffersIn(result.value)) : result;
  },
  drop: (ticket) => {
    if (asked.has(ticket)) dropped.add(ticket);
    return Promise.resolve();
  },
  onProgress: (to) => {
    report = to;
    return Promise.resolve();
  },
};

Comlink.expose(compute);
