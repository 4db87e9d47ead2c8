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
  /**
   * Asks, once all that is needed is there; the answer comes later. What is asked for while another is worked out waits for that one,
   * and its answer says that it was given up where something newer came to wait.
   */
  readonly ask: (asked: W, how: How) => Promise<{ readonly answer: Promise<A> }>;
  /** Shows an answer, if it is one; true where it is of only part of the set. */
  readonly show: (asked: W, answer: A) => boolean;
  /** Waits until a hand that drags rests. */
  readonly rests: () => Promise<void>;
  /** Nobody waits for the answer of a ticket any more. */
  readonly drop: (ticket: number) => void;
  readonly fails: (asked: W, error: unknown) => void;
  readonly works: (isWorking: boolean) => void;
}

/** What was asked for, and the answer that comes. */
interface Asking<W, A> {
  readonly wanted: W;
  readonly coming: Promise<{ readonly answer: Promise<A> }>;
}

/** Follows what is wanted, one answer after the other; told at every change. Tickets count down from -1. */
export function following<W, A>(on: Following<W, A>): () => Promise<void> {
  let isGoing = false;
  let ticket = 0;
  /** Whether the rest of a set is being waited for: it is given up for anything newer. */
  let isRest = false;
  /** Whether what decided last is being waited for: what is newer is asked for ahead of its answer. */
  let isQuick = false;
  /** What was asked for ahead, each newer than the one before: which of it is given up is known by its answer alone. */
  let ahead: Asking<W, A>[] = [];
  /** Tells whoever waits that something newer is wanted. */
  let newer: () => void = () => undefined;
  /** What was asked for last, and what is waited for. */
  let asked: W | null = null;
  let at: W | null = null;
  /** Questions are put in the order they were asked in, however long what they need takes to be brought. */
  let put: Promise<unknown> = Promise.resolve();
  /** How often all that was asked for was lost. */
  let losses = 0;

  function begin(wanted: W, quick: boolean): Asking<W, A> {
    asked = wanted;
    const [how, before] = [{ isQuick: quick, ticket: --ticket }, losses];
    const coming = put.then(() => {
      if (losses !== before) throw new Error('lost with what was asked for before it');
      return on.ask(wanted, how);
    });
    put = coming.catch(() => undefined);
    return { wanted, coming };
  }

  /** Who works need not wait for the page between two answers: the newest is there when the last is done. */
  function askAhead(): void {
    const wanted = on.wanted();
    if (!wanted || !asked || !on.isOld(asked)) return;
    const asking = begin(wanted, true);
    ahead.push(asking);
    // Where one before it fails nobody hears what becomes of it.
    asking.coming.then(({ answer }) => answer).catch(() => undefined);
  }

  /** What is newer than what was answered now, asked for at the latest now. */
  function nextOf(shown: W): Asking<W, A> | null {
    const next = ahead.shift();
    if (next) return next;
    const wanted = on.isOld(shown) ? on.wanted() : null;
    return wanted ? begin(wanted, true) : null;
  }

  async function follow(first: Asking<W, A>): Promise<void> {
    let [shown, coming] = [(at = first.wanted), await first.coming];
    for (;;) {
      isQuick = !isRest;
      const answer = await coming.answer;
      isRest = isQuick = false;
      // Whoever works need not wait for what is shown: what is newer is asked for before that.
      const next = nextOf(shown);
      let isPart: boolean;
      try {
        if (next) coming = await ((at = next.wanted), next.coming);
      } finally {
        // Whatever comes of it: the next answers build on this one.
        isPart = on.show(shown, answer);
      }
      if (!next && !isPart) return;
      shown = next?.wanted ?? shown;
      if (next) continue;
      // The rest is asked for when the hand rests: until then it would only be given up again.
      await Promise.race([on.rests(), new Promise<void>((resolve) => (newer = resolve))]);
      const now = on.wanted();
      if (!now) return;
      const isNewer = on.isOld(shown);
      shown = at = now;
      coming = await begin(now, isNewer).coming;
      isRest = !isNewer;
      if (isRest && on.isOld(now)) on.drop(ticket);
    }
  }

  return async function changed(): Promise<void> {
    if (isGoing) {
      newer();
      if (isRest) on.drop(ticket);
      else if (isQuick) askAhead();
      return;
    }
    const first = on.wanted();
    if (!first) return;
    isGoing = true;
    on.works(true);
    try {
      await follow(begin(first, true));
    } catch (error) {
      losses++;
      on.fails(at ?? first, error);
    } finally {
      isGoing = isRest = isQuick = false;
      on.works(false);
    }
    // Edited meanwhile; what was asked for ahead of a failure was lost with it.
    const isLost = ahead.length > 0;
    ahead = [];
    if (asked && on.wanted() && (isLost || on.isOld(asked))) void changed();
  };
}
