// Bands of a day-long storm on two kinds of ground, by every loss, off the main thread.
import { parentPort } from 'node:worker_threads';
import { soilFacts } from '#core/ground';
import { designStorm } from '#core/rain';
import { LOSS_METHODS, USUAL_LOSS, runoffBands } from '#core/runoff';

const SAMPLES = 10_000;
const table = { durationsMin: [10, 60, 1440], returnYears: [20], depthMm: [[16, 40, 110]] };
const storm = designStorm(table, { returnYears: 20, durationMin: 1440 }, 1);
const soil = { soilGroup: 'C', curveNumber: null, runoffC: null, infiltrationMmPerHour: 10, soilDepthM: 1 } as const;
const parts = ['pasture-fair', 'bare'].map((cover) => ({
  soil: soilFacts({ ...soil, cover }),
  areaM2: 20_000,
  infiltration: [4, 25] as const,
  curveNumber: [72, 86] as const,
}));

const seconds = Object.fromEntries(
  LOSS_METHODS.map((loss) => {
    const start = performance.now();
    const choice = { ...USUAL_LOSS, loss };
    runoffBands({ parts, choice, stepsMm: storm.stepsMm, stepS: 60, concentrationMin: 8, samples: SAMPLES, seed: 1 });
    return [loss, (performance.now() - start) / 1000];
  }),
);
parentPort?.postMessage({ samples: SAMPLES, steps: storm.stepsMm.length, seconds });
