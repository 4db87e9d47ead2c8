import * as Comlink from 'comlink';
import type { Compute } from './protocol.ts';

/** Starts the compute worker. */
export function startCompute(): Compute {
  const worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
  return Comlink.wrap<Compute>(worker);
}
