// From the bytes of a gauge's file to fits of every duration and their bands, off the main thread.
import { parentPort, workerData } from 'node:worker_threads';
import { importFile } from '#core/formats';
import { BOOTSTRAP_DRAWS, bandOf, frequencyOf } from '#core/rain';

const { name, bytes } = workerData as { name: string; bytes: Uint8Array };
let start = performance.now();
const lap = (): number => {
  const seconds = (performance.now() - start) / 1000;
  start = performance.now();
  return seconds;
};

const imported = await importFile({ name, bytes });
if (imported.kind !== 'gauge') throw new Error('the bench file is not a gauge');
const { fits, years } = frequencyOf(imported.record);
const readAndFitS = lap();
for (const fit of fits) bandOf(fit, 'gev', { returnYears: [2, 5, 10, 20, 50, 100], draws: BOOTSTRAP_DRAWS });
parentPort?.postMessage({ readAndFitS, bootstrapS: lap(), years: years.length, draws: BOOTSTRAP_DRAWS * fits.length });
