// Coordinate systems found by words, in the worker that reads files: the page never loads their table.
import { startFileWork } from '../workers/client.ts';
import type { Found } from '../kit/search.tsx';

/** A worker nobody has asked for so long is let go [ms]. */
const IDLE_MS = 30_000;

let kept: ReturnType<typeof startFileWork> | null = null;
let idle: ReturnType<typeof setTimeout> | undefined;

/** Systems by words, as they are offered. */
export async function systemsFor(words: string): Promise<readonly Found[]> {
  clearTimeout(idle);
  kept ??= startFileWork(() => undefined);
  const { worker } = kept;
  idle = setTimeout(() => {
    kept?.stop();
    kept = null;
  }, IDLE_MS);
  const answer = await worker.systems(words).catch(() => null);
  return answer?.ok === true ? answer.value.map(({ code, name, area }) => ({ id: code, name, more: `${code}. ${area}` })) : [];
}
