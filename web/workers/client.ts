import * as Comlink from 'comlink';
import type { Compute, FileWork } from './protocol.ts';

/** Thrown to whoever waits for a worker that was stopped. */
export class Stopped extends Error {
  constructor() {
    super('stopped');
    this.name = 'Stopped';
  }
}

export interface Running<T> {
  readonly worker: T;
  /** Ends the worker at once; whoever waits for an answer hears that it was stopped. */
  readonly stop: () => void;
}

type Call = (...args: unknown[]) => Promise<unknown>;

/** A worker whose calls all end when it is stopped, or when it dies of want of memory. */
function running<T extends object>(worker: Worker): Running<T> {
  const remote = Comlink.wrap<T>(worker) as unknown as Readonly<Record<string, Call>>;
  let end: (error: Error) => void = () => undefined;
  const ended = new Promise<never>((_, reject) => {
    end = reject;
  });
  ended.catch(() => undefined);
  worker.addEventListener('error', (e) => end(new Error(e.message === '' ? 'the worker ended' : e.message)));
  const proxy = new Proxy({} as T, {
    get:
      (_, name) =>
      (...args: unknown[]) =>
        Promise.race([remote[String(name)](...args), ended]),
  });
  return {
    worker: proxy,
    stop: () => {
      worker.terminate();
      end(new Stopped());
    },
  };
}

type Report = (part: string, share: number) => void;

/** Starts the compute worker; `report` hears how far long work has come. */
export function startCompute(report: Report): Running<Compute> {
  const started = running<Compute>(new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }));
  started.worker.onProgress(Comlink.proxy(report)).catch(() => undefined);
  return started;
}

/** Starts a worker for one file, read or written; it is stopped when that is done, or when the user has waited enough. */
export function startFileWork(report: Report): Running<FileWork> {
  const started = running<FileWork>(new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' }));
  started.worker.onProgress(Comlink.proxy(report)).catch(() => undefined);
  return started;
}
