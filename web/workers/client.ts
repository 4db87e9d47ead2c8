import * as Comlink from 'comlink';
import type { Compute } from './protocol.ts';

/** Starts the compute worker; `report` hears how far long work has come. */
export function startCompute(report: (part: string, share: number) => void): Compute {
  const worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
  const compute = Comlink.wrap<Compute>(worker);
  void compute.onProgress(Comlink.proxy(report));
  return compute;
}
