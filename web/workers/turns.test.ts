import { describe, expect, it } from '@jest/globals';
import { Turns } from './turns.ts';

/** Lets all that can go on go on. */
const settles = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

describe('turns', () => {
  it('lets in one at a time, and of those who wait the newest alone', async () => {
    const turns = new Turns();
    const told: string[] = [];
    const ends = new Map<string, () => void>();
    const comes = (name: string): void => {
      const work = (): Promise<string> => {
        told.push(`${name} in`);
        return new Promise((resolve) => ends.set(name, () => resolve(name)));
      };
      void turns.take(work).then((was) => told.push(was === null ? `${name} passed over` : `${name} out`));
    };
    comes('a');
    comes('b');
    comes('c');
    await settles();
    expect(told).toEqual(['a in', 'b passed over']);
    ends.get('a')!();
    await settles();
    expect(told.slice(2)).toEqual(['c in', 'a out']);
    comes('d');
    ends.get('c')!();
    await settles();
    expect(told.slice(4)).toEqual(['d in', 'c out']);
    ends.get('d')!();
    await settles();
    comes('e');
    await settles();
    expect(told.slice(6)).toEqual(['d out', 'e in']);
  });

  it('lets nobody in before who waited, however close upon it somebody comes', async () => {
    for (let turnsLater = 0; turnsLater < 8; turnsLater++) {
      const turns = new Turns();
      const order: string[] = [];
      let [within, most] = [0, 0];
      const comes = (name: string, until: Promise<unknown> = Promise.resolve()): Promise<string | null> =>
        turns.take(async () => {
          order.push(name);
          most = Math.max(most, ++within);
          await until;
          within--;
          return name;
        });
      let end: () => void = () => undefined;
      const first = comes('first', new Promise<void>((resolve) => (end = resolve)));
      const waited = comes('waited');
      end();
      for (let k = 0; k < turnsLater; k++) await Promise.resolve();
      await Promise.all([first, waited, comes('late')]);
      expect([most, order[order.length - 1]]).toEqual([1, 'late']);
      expect(order).toHaveLength((await waited) === null ? 2 : 3);
    }
  });

  it('goes on with who waits where work fails, and keeps nobody out afterwards', async () => {
    const turns = new Turns();
    let fail: () => void = () => undefined;
    const failing = turns.take(() => new Promise<never>((_, reject) => (fail = () => reject(new Error('it broke')))));
    const after = turns.take(() => Promise.resolve('after'));
    const heard = failing.catch((error: unknown) => (error as Error).message);
    fail();
    expect([await heard, await after]).toEqual(['it broke', 'after']);
    expect(await turns.take(() => Promise.resolve('free'))).toBe('free');
  });
});
