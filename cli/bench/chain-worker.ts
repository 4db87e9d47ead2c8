// From the bytes of a terrain file to contours, flow and a catchment, off the main thread, telling how far it is.
import { parentPort, workerData } from 'node:worker_threads';
import { importFile } from '#core/formats';
import { contourLines, fillDepressions, flowOf, levelsEvery, upstreamOf } from '#core/terrain';

const { name, bytes } = workerData as { name: string; bytes: Uint8Array };
const tell = (part: string): void => parentPort?.postMessage({ part });

const imported = await importFile({ name, bytes });
if (imported.kind !== 'terrain') throw new Error('the bench file is not a terrain');
tell('read');
const filled = fillDepressions(imported.grid);
tell('filled');
const flow = flowOf(imported.grid, filled);
tell('flow');
let outlet = 0;
for (let i = 1; i < flow.cells.length; i++) if (flow.cells[i] > flow.cells[outlet]) outlet = i;
const { members } = upstreamOf(flow, [outlet]);
tell('catchment');
const lines = contourLines(imported.grid, levelsEvery(imported.grid, 1));
tell('contours');
parentPort?.postMessage({ done: true, cells: members.length, contourPoints: lines.xy.length / 2 });
