import { afterAll, afterEach, beforeAll, expect, it } from '@jest/globals';
import { type Bench, Visitor, openBench } from './driver.ts';

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

/**
 * Tests that go on with one page, each as if it had just come to its path: loading a page costs more than most of them.
 * After one that fails the next has a page of its own again.
 */
export function goingOn(open: () => Bench): (name: string, path: string, test: (v: Visitor) => Promise<void>) => void {
  let last: Visitor | undefined;
  const at = async (path: string): Promise<Visitor> => {
    const before = last;
    last = undefined;
    if (before) {
      await before.again(path);
      return before;
    }
    const first = await Visitor.arrive(open(), path);
    open().kept.add(first.page.browserContext());
    return first;
  };
  return (name, path, test) =>
    it(
      name,
      async () => {
        const v = await at(path);
        await test(v);
        expect(v.errors).toEqual([]);
        last = v;
      },
      240000,
    );
}
