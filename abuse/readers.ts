// Thousands of spoilt files through every reader, in threads whose time and memory are bounded.
import { Worker } from 'node:worker_threads';
import { FORMATS, type Format } from './mutate.ts';
import type { Outcome } from './judge.ts';
import type { Asked } from './worker.ts';

const THREADS = 2;
const SLOW_MS = 5_000;
/** A thread that says nothing for this long is ended. */
const HANGS_MS = 20_000;
const LARGE_MB = 1024;

export interface Fault {
  readonly format: Format;
  readonly seed: number;
  readonly why: string;
}

export interface ReadersReport {
  readonly counts: Readonly<Record<Format, Readonly<Record<Outcome, number>>>>;
  readonly faults: readonly Fault[];
  readonly slowestMs: number;
  readonly largestMb: number;
}

interface Reply {
  readonly outcome: Outcome;
  readonly why: string;
  readonly ms: number;
  readonly mb: number;
}

/** A thread that answers one question at a time, or tells how it ended. */
class Thread {
  private readonly worker: Worker;
  private answer: ((reply: Reply | string) => void) | null = null;

  constructor() {
    // Node starts a worker without the TypeScript loader: a line of plain code registers it first.
    const file = JSON.stringify(new URL('./worker.ts', import.meta.url).href);
    const code = `import('tsx/esm/api').then(({ register }) => { register(); return import(${file}); })`;
    this.worker = new Worker(code, { eval: true, workerData: {}, resourceLimits: { maxOldGenerationSizeMb: LARGE_MB } });
    this.worker.on('message', (reply: Reply) => this.answer?.(reply));
    this.worker.on('error', (error: Error) => this.answer?.(`the thread died: ${error.message.slice(0, 80)}`));
    this.worker.on('exit', () => this.answer?.('the thread died'));
  }

  async ask(asked: Asked): Promise<Reply | string> {
    let timer: NodeJS.Timeout | undefined;
    const reply = await new Promise<Reply | string>((resolve) => {
      this.answer = resolve;
      timer = setTimeout(() => resolve('it hangs'), HANGS_MS);
      this.worker.postMessage(asked);
    });
    clearTimeout(timer);
    this.answer = null;
    return reply;
  }

  end(): Promise<number> {
    return this.worker.terminate();
  }
}

/** Reads `count` spoilt files, or as many as fit into `untilMs`. */
export async function abuseReaders(on: {
  readonly count: number;
  readonly seed: number;
  readonly untilMs: number;
}): Promise<ReadersReport> {
  const counts = Object.fromEntries(FORMATS.map((f) => [f, { taken: 0, refused: 0, unsound: 0, exception: 0 }])) as unknown as Record<
    Format,
    Record<Outcome, number>
  >;
  const faults: Fault[] = [];
  let [next, slowestMs, largestMb] = [0, 0, 0];
  const run = async (): Promise<void> => {
    let thread = new Thread();
    while (next < on.count && performance.now() < on.untilMs) {
      const k = next++;
      const format = FORMATS[k % FORMATS.length];
      const seed = on.seed * 1_000_003 + k;
      const reply = await thread.ask({ format, seed });
      if (typeof reply === 'string') {
        counts[format].exception++;
        faults.push({ format, seed, why: reply });
        await thread.end();
        thread = new Thread();
        continue;
      }
      counts[format][reply.outcome]++;
      slowestMs = Math.max(slowestMs, reply.ms);
      largestMb = Math.max(largestMb, reply.mb);
      if (reply.outcome === 'unsound' || reply.outcome === 'exception')
        faults.push({ format, seed, why: `${reply.outcome}: ${reply.why}` });
      else if (reply.ms > SLOW_MS) faults.push({ format, seed, why: `${Math.round(reply.ms)} ms` });
      else if (reply.mb > LARGE_MB) faults.push({ format, seed, why: `${Math.round(reply.mb)} MB` });
    }
    await thread.end();
  };
  await Promise.all(Array.from({ length: THREADS }, run));
  return { counts, faults, slowestMs, largestMb };
}
