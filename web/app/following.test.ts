// What is asked of the worker, when, and what becomes of its answers, while the document is edited by hand.
import { beforeEach, describe, expect, it } from '@jest/globals';
import { following } from './following.ts';

interface Asked {
  readonly wanted: number;
  readonly ticket: number;
  readonly isQuick: boolean;
  readonly reply: (answer: string) => void;
  readonly fail: (error: Error) => void;
}
let [now, asked, told]: [number | null, Asked[], string[]] = [1, [], []];
let rested: (() => void) | null = null;
let isDragged = false;
let isPart = true;
let changed: () => Promise<void>;
/** What happens while all that is needed is being brought. */
let meanwhile: () => void = () => undefined;
/** Till when it is being brought. */
let bringing: Promise<void> | null = null;

/** Lets all that can go on go on. */
const settles = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));
const edit = (to: number | null): Promise<void> => {
  now = to;
  void changed();
  return settles();
};
/** The answer to what was asked last, or to another. */
const replies = async (answer: string, to = asked.length - 1): Promise<void> => {
  asked[to].reply(answer);
  await settles();
};
const asks = (): readonly string[] => asked.map(({ wanted, isQuick }) => `${wanted} ${isQuick ? 'quick' : 'rest'}`);

beforeEach(() => {
  [now, asked, told, rested, isDragged, isPart] = [1, [], [], null, false, true];
  bringing = null;
  changed = following<number, string>({
    wanted: () => now,
    isOld: (one) => one !== now,
    ask: async (wanted, { ticket, isQuick }) => {
      await bringing;
      meanwhile();
      told.push(`ask ${wanted}`);
      return { answer: new Promise((reply, fail) => asked.push({ wanted, ticket, isQuick, reply, fail })) };
    },
    show: (of, answer) => {
      told.push(`show ${answer} of ${of}`);
      return isPart && answer === 'part';
    },
    rests: () => (isDragged ? new Promise((resolve) => (rested = resolve)) : Promise.resolve()),
    drop: (ticket) => told.push(`drop ${ticket}`),
    fails: (of, error) => told.push(`${(error as Error).message} of ${of}`),
    works: (isWorking) => told.push(isWorking ? 'works' : 'done'),
  });
});

describe('following a document', () => {
  it('asks for a part, shows it, then for the rest, and is done', async () => {
    await edit(1);
    await replies('part');
    expect(asks()).toEqual(['1 quick', '1 rest']);
    await replies('whole');
    expect(told).toEqual(['works', 'ask 1', 'show part of 1', 'ask 1', 'show whole of 1', 'done']);
    // One that is whole at once needs no rest.
    isPart = false;
    await edit(2);
    await replies('part');
    expect([asks().length, told[told.length - 1]]).toEqual([3, 'done']);
  });

  it('asks ahead for what is newer, and for no rest of what is old', async () => {
    await edit(1);
    await edit(2);
    await edit(3);
    // The same again asks for nothing.
    await edit(3);
    expect(asks()).toEqual(['1 quick', '2 quick', '3 quick']);
    await replies('given up', 1);
    await replies('part', 0);
    expect(told).toEqual(['works', 'ask 1', 'ask 2', 'ask 3', 'show part of 1', 'show given up of 2']);
    await replies('part');
    await replies('whole');
    expect([asks().slice(3), told.slice(6)]).toEqual([['3 rest'], ['show part of 3', 'ask 3', 'show whole of 3', 'done']]);
    expect(new Set(asked.map((a) => a.ticket)).size).toBe(4);
  });

  it('shows all that was worked out, in its order: whoever works had begun one before it heard of the next', async () => {
    await edit(1);
    await edit(2);
    await edit(3);
    await replies('part', 0);
    await replies('part', 1);
    await edit(4);
    await replies('part', 2);
    await replies('part', 3);
    expect(told.filter((t) => t.startsWith('show'))).toEqual([1, 2, 3, 4].map((of) => `show part of ${of}`));
    expect(asks()).toEqual(['1 quick', '2 quick', '3 quick', '4 quick', '4 rest']);
  });

  it('asks for what changed unheard before it shows what came', async () => {
    await edit(1);
    now = 2;
    await replies('part');
    expect(told).toEqual(['works', 'ask 1', 'ask 2', 'show part of 1']);
  });

  it('puts its questions in the order they were wanted in, however long what they need takes', async () => {
    await edit(1);
    let brought: () => void = () => undefined;
    bringing = new Promise((resolve) => (brought = resolve));
    await edit(2);
    bringing = null;
    await edit(3);
    expect(asks()).toEqual(['1 quick']);
    brought();
    await settles();
    expect(asks()).toEqual(['1 quick', '2 quick', '3 quick']);
  });

  it('shows what came though what is newer cannot be asked for: the next answers build on it', async () => {
    await edit(1);
    meanwhile = () => {
      meanwhile = () => undefined;
      throw new Error('not there');
    };
    now = 2;
    await replies('part');
    expect(told.slice(-3)).toEqual(['show part of 1', 'not there of 2', 'done']);
    await edit(3);
    expect(asks()).toEqual(['1 quick', '3 quick']);
  });

  it('gives the rest up for anything newer', async () => {
    await edit(1);
    await replies('part');
    await edit(2);
    expect(told[told.length - 1]).toBe(`drop ${asked[1].ticket}`);
    await replies('given up');
    expect(asks()).toEqual(['1 quick', '1 rest', '2 quick']);
    // The quick answer that follows is not given up.
    await edit(3);
    expect(asks()).toHaveLength(4);
    expect(told.filter((t) => t.startsWith('drop'))).toHaveLength(1);
  });

  it('gives it up at once where something newer came while it was being asked for', async () => {
    await edit(1);
    meanwhile = () => {
      meanwhile = () => undefined;
      now = 2;
      void changed();
    };
    await replies('part');
    expect([asks(), told[told.length - 1]]).toEqual([['1 quick', '1 rest'], `drop ${asked[1].ticket}`]);
    await replies('given up');
    expect(asks()).toEqual(['1 quick', '1 rest', '2 quick']);
  });

  it('waits with the rest for a hand that drags: till it rests, or goes on', async () => {
    isDragged = true;
    await edit(1);
    await replies('part');
    expect(asks()).toEqual(['1 quick']);
    await edit(2);
    expect(asks()).toEqual(['1 quick', '2 quick']);
    await replies('part');
    expect(asks()).toHaveLength(2);
    rested!();
    await settles();
    expect(asks()).toEqual(['1 quick', '2 quick', '2 rest']);
    await replies('whole');
    expect(told[told.length - 1]).toBe('done');
  });

  it('tells what fails, and goes on with what is newer; stops where nothing is wanted any more', async () => {
    await edit(1);
    await edit(2);
    // What was asked for ahead is lost with it, and asked for again.
    asked[0].fail(new Error('it broke'));
    await settles();
    expect(told.slice(-4)).toEqual(['it broke of 1', 'done', 'works', 'ask 2']);
    asked[1].fail(new Error('nobody hears'));
    asked[2].fail(new Error('it broke'));
    await settles();
    // Nothing is newer: it is not asked again.
    expect([asks().length, told.slice(-2)]).toEqual([3, ['it broke of 2', 'done']]);
    await edit(3);
    now = null;
    await replies('part');
    expect([asks().slice(3), told[told.length - 1]]).toEqual([['3 quick'], 'done']);
  });

  it('does not put a question that was lost before what it needs was brought', async () => {
    await edit(1);
    let brought: () => void = () => undefined;
    bringing = new Promise((resolve) => (brought = resolve));
    await edit(2);
    await edit(3);
    asked[0].fail(new Error('it broke'));
    await settles();
    bringing = null;
    brought();
    await settles();
    // That of 2 was on its way; that of 3 waited behind it and was lost, and is asked for anew.
    expect(asks()).toEqual(['1 quick', '2 quick', '3 quick']);
    await replies('part');
    expect(told[told.length - 2]).toBe('show part of 3');
  });
});
