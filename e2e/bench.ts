import { afterAll, afterEach, beforeAll } from '@jest/globals';
import { type Bench, openBench } from './driver.ts';

/** One server and one browser for all tests of a file; files run beside each other. */
export function onOneBench(parts: readonly ((open: () => Bench) => void)[]): void {
  let bench: Bench | undefined;
  const open = (): Bench => {
    if (!bench) throw new Error('the bench is not open');
    return bench;
  };
  beforeAll(async () => {
    bench = await openBench();
  }, 180000);
  // Pages of a test that is over would go on holding memory and workers.
  afterEach(() => bench?.tidy(), 30000);
  afterAll(() => bench?.close(), 60000);
  for (const part of parts) part(open);
}
