// Reads spoilt files one by one; its parent watches the time, its own limits the memory.
import { parentPort } from 'node:worker_threads';
import { judge } from './judge.ts';
import { type Format, spoilt } from './mutate.ts';

export interface Asked {
  readonly format: Format;
  readonly seed: number;
}

parentPort?.on('message', ({ format, seed }: Asked) => {
  const { name, bytes } = spoilt(format, seed);
  const before = process.memoryUsage();
  const start = performance.now();
  void judge(format, name, bytes).then((judged) => {
    const after = process.memoryUsage();
    const ms = performance.now() - start;
    const mb = (after.arrayBuffers + after.heapUsed - before.arrayBuffers - before.heapUsed) / 1e6;
    parentPort?.postMessage({ ...judged, ms, mb });
  });
});
