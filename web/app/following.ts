// The document is worked out again and again while it is edited: by what decided last as soon as anything is another, and by all of
// the set when the hand rests.

/** How an answer is asked for: the ticket it can be given up by, and whether only what decided last is asked. */
export interface How {
  readonly ticket: number;
  readonly isQuick: boolean;
}

/** Who is asked, and what becomes of the answers. */
export interface Following<W, A> {
  /** What is to be worked out now; null where nothing is. */
  readonly wanted: () => W | null;
  readonly isOld: (asked: W) => boolean;
  /** Asks, once all that is needed is there; the answer comes later. */
  readonly ask: (asked: W, how: How) => Promise<{ readonly answer: Promise<A> }>;
  /** Shows an answer; true where it is of only part of the set. */
  readonly show: (asked: W, answer: A) => boolean;
  /** Waits until a hand that drags rests. */
  readonly rests: () => Promise<void>;
  /** Nobody waits for the answer of a ticket any more. */
  readonly drop: (ticket: number) => void;
  readonly fails: (asked: W, error: unknown) => void;
  readonly works: (isWorking: boolean) => void;
}

/** Follows what is wanted, one answer after the other; told at every change. Tickets count down from -1. */
export function following<W, A>(on: Following<W, A>): () => Promise<void> {
  let isGoing = false;
  let ticket = 0;
  /** Whether the rest of a set is being waited for: it is given up for anything newer. */
  let isRest = false;
  /** Tells whoever waits that something newer is wanted. */
  let newer: () => void = () => undefined;
  let asked: W | null = null;

  const begin = (one: W, isQuick: boolean): ReturnType<typeof on.ask> => on.ask((asked = one), { isQuick, ticket: --ticket });

  async function follow(first: W): Promise<void> {
    let shown = first;
    let coming = await begin(first, true);
    for (;;) {
      const answer = await coming.answer;
      isRest = false;
      // Whoever works need not wait for what is shown: what is newer is asked for before that.
      const next = on.isOld(shown) ? on.wanted() : null;
      let isPart: boolean;
      try {
        if (next) coming = await begin(next, true);
      } finally {
        // Whatever comes of it: the next answers build on this one.
        isPart = on.show(shown, answer);
      }
      if (!next && !isPart) return;
      shown = next ?? shown;
      if (next) continue;
      // The rest is asked for when the hand rests: until then it would only be given up again.
      await Promise.race([on.rests(), new Promise<void>((resolve) => (newer = resolve))]);
      const now = on.wanted();
      if (!now) return;
      const isNewer = on.isOld(shown);
      shown = now;
      coming = await begin(now, isNewer);
      isRest = !isNewer;
      if (isRest && on.isOld(now)) on.drop(ticket);
    }
  }

  return async function changed(): Promise<void> {
    if (isGoing) {
      newer();
      if (isRest) on.drop(ticket);
      return;
    }
    const first = on.wanted();
    if (!first) return;
    isGoing = true;
    on.works(true);
    try {
      await follow(first);
    } catch (error) {
      on.fails(asked ?? first, error);
    } finally {
      isGoing = false;
      isRest = false;
      on.works(false);
    }
    // Edited meanwhile.
    if (asked && on.wanted() && on.isOld(asked)) void changed();
  };
}
