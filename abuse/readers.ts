// Thousands of spoilt files through every reader, in threads whose time and memory are bounded.
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { buildSync } from 'esbuild';
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

/** The thread's code as one file: reading a thousand modules one by one takes a busy machine longer than the spoilt files do. */
function builtWorker(): string {
  const outfile = join(import.meta.dirname, '../node_modules/.cache/outlet/abuse-worker.mjs');
  buildSync({
    entryPoints: [join(import.meta.dirname, 'worker.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    define: { 'import.meta.dirname': JSON.stringify(import.meta.dirname) },
    logLevel: 'warning',
  });
  return outfile;
}

/** A thread that answers one question at a time, or tells how it ended. */
class Thread {
  private readonly worker: Worker;
  private answer: ((reply: Reply | string) => void) | null = null;

  constructor(file: string) {
    this.worker = new Worker(file, { workerData: {}, resourceLimits: { maxOldGenerationSizeMb: LARGE_MB } });
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

  /** What is slow is asked once more, and is as slow as it is the faster time: a reader's code is loaded with its first file, and others use the machine. */
  async askTwice(asked: Asked): Promise<Reply | string> {
    const first = await this.ask(asked);
    if (typeof first === 'string' || first.ms <= SLOW_MS) return first;
    const again = await this.ask(asked);
    return typeof again === 'string' ? again : { ...again, ms: Math.min(first.ms, again.ms) };
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
  const file = builtWorker();
  const run = async (): Promise<void> => {
    let thread = new Thread(file);
    while (next < on.count && performance.now() < on.untilMs) {
      const k = next++;
      const format = FORMATS[k % FORMATS.length];
      const seed = on.seed * 1_000_003 + k;
      const reply = await thread.askTwice({ format, seed });
      if (typeof reply === 'string') {
        counts[format].exception++;
        faults.push({ format, seed, why: reply });
        await thread.end();
        thread = new Thread(file);
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
