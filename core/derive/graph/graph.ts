// What is worked out from what: a step says what it reads, and is worked out again only when that differs.
import { type Key, LOOKED_INTO, isAlike, keysOf, named, saysTheSame } from './alike.ts';
import type { Entry, Holder, Hung, Row, Shelf, Slot } from './held.ts';
import { Kept } from './kept.ts';
import { type Columns, Each, areSame, asListed, changedIn, idsOf, readsAt } from './rows.ts';

export { asItself } from './alike.ts';
export {
  type Column,
  type Columns,
  type Each,
  areSame,
  asNamedBefore,
  byIds,
  columnOf,
  forAll,
  idsOf,
  isAmong,
  knownOf,
  orderOf,
} from './rows.ts';

/** What was made last, where what is made now says the same. */
const asBefore = (last: unknown, made: unknown): unknown => (last !== undefined && saysTheSame(last, made) ? last : made);

/** What a step is given: its types follow from what it reads, never the other way round. */
type Given<R extends unknown[]> = { [K in keyof R]: NoInfer<R[K]> };

const NO_LIST: readonly never[] = [];

/** Whether what stands at a place hangs on the same as it did, by its own things and by the places before it. */
const readsTheSame = (was: Hung, now: Hung, k: number): boolean => areSame(was.own[k], now.own[k]) && areSame(was.before[k], now.before[k]);

/** How many of the last values of a slot a user of the graph keeps: what is now, and what an undo goes back to. */
const KEPT = 2;
/** Runs of a user after which a slot it no longer asks for is let go. */
const RESTS = 2;

/** A step that is asked for. */
interface Asked {
  readonly shelf: Shelf;
  /** The word it is counted by; left out, the one before the colon of its id. */
  readonly word?: string;
  readonly id: string;
  readonly reads: readonly unknown[];
}

function beforeColon(id: string): string {
  const colon = id.indexOf(':');
  return colon < 0 ? id : id.slice(0, colon);
}

/** Alike steps of many things: what the things are, and what each reads. */
export interface EachOver<C extends unknown[]> {
  readonly ids: readonly string[];
  readonly columns: Columns<C>;
  /** Where a result says what the last one said, it is the last one: see `settled`. */
  readonly isSettled?: boolean;
  /** What is read are copies of the document's parts: they are looked into to the end. */
  readonly isCopied?: boolean;
}

/** Things in their order, and what each reads, which may hang on the results before it. */
export interface InTurn<I, R extends unknown[], T> {
  readonly items: readonly I[];
  readonly readsOf: (item: I, k: number, before: readonly T[]) => readonly [...R];
  /** Where what was read last may stand for it: what is read then. */
  readonly asRead?: (now: readonly [...R], last: readonly [...R] | undefined) => readonly [...R];
  readonly hung?: Hung;
}

/**
 * Keeps results of steps by what they read. Values are shared by all scenarios; each holds on to the last ones of its own,
 * so that looking at another changes nothing of what is at hand, and an undo finds what it goes back to.
 */
export class Graph {
  private readonly kept = new Kept();
  private readonly steps = this.kept.shelfOf('');
  private readonly holders = new Map<string, Holder>();
  private holder: Holder;
  private isRunning = false;
  private within: Entry[] | null = null;
  /** How often each step was really worked out, by the word before the colon of its id: for tests and the benchmark. */
  readonly runs = new Map<string, number>();

  constructor() {
    this.holder = this.holderOf('');
  }

  private holderOf(scenario: string): Holder {
    const known = this.holders.get(scenario);
    if (known) return known;
    const made: Holder = { run: 0, slots: new Map(), rows: new Map(), lists: new Map() };
    this.holders.set(scenario, made);
    return made;
  }

  /**
   * The step's result: as kept where it has been worked out from the same, else worked out. It is given exactly what it
   * says it reads: results of other steps, told apart by being themselves, and plain data, told apart by what it says.
   */
  step<R extends unknown[], T>(id: string, reads: readonly [...R], run: (...reads: Given<R>) => T): T {
    const slot = this.holder.slots.get(id);
    const last = slot?.entries[0];
    // What was asked for last is held by its slot: it is there.
    const isLast = slot !== undefined && last !== undefined && isAlike(slot.reads, reads);
    const entry = isLast ? last : this.entryOf({ shelf: this.steps, id, reads }, () => run(...reads));
    this.within?.push(entry);
    this.hold(entry, reads);
    return entry.value as T;
  }

  /**
   * One step for each of many things, named by a word and the thing's id: as `step`, but what stayed is passed over at the cost of
   * a glance. As long as all stay, so does the whole.
   */
  each<C extends unknown[], T>(word: string, over: EachOver<C>, run: (...reads: C) => T): Each<T> {
    const { ids, columns, isSettled = false, isCopied = false } = over;
    const row = this.rowOf(word);
    const isInPlace = areSame(row.made.ids, ids);
    const changed = isInPlace && row.columns ? changedIn(row.columns, columns, isCopied ? Infinity : LOOKED_INTO) : null;
    // Not known until all is done: one of them may fail.
    row.columns = null;
    if (changed?.length !== 0) {
      const [now, values] = changed
        ? [row.last.slice(), row.made.all.slice()]
        : [new Array<Slot>(ids.length), new Array<unknown>(ids.length)];
      const count = changed?.length ?? ids.length;
      for (let i = 0; i < count; i++) {
        const k = changed ? changed[i] : i;
        const reads = readsAt(columns, k);
        now[k] = this.slotIn(row, { word, id: ids[k], reads, isCopied }, (before) => {
          const value = run(...(reads as C));
          return isSettled && before ? asBefore(before.entries[0].value, value) : value;
        });
        values[k] = now[k].entries[0].value;
      }
      this.renew(row, { ids, now, values });
    }
    row.columns = columns;
    if (this.within) this.within.push(this.entryOfRow(word, row));
    return row.made as Each<T>;
  }

  /** The same where what one reads hangs on the results `before` it. */
  inTurn<I extends { readonly id: string }, R extends unknown[], T>(
    word: string,
    { items, readsOf, asRead, hung }: InTurn<I, R, NoInfer<T>>,
    run: (...reads: R) => T,
  ): Each<T> {
    const row = this.rowOf(word);
    const [now, values] = [new Array<Slot>(items.length), new Array<unknown>(items.length)];
    const ids = idsOf(items);
    const isInPlace = hung !== undefined && row.hung !== null && areSame(row.hung.all, hung.all) && areSame(row.made.ids, ids);
    const was = isInPlace ? row.hung : null;
    const { all } = row.made;
    row.hung = null;
    for (let k = 0; k < items.length; k++) {
      if (hung && was && readsTheSame(was, hung, k) && hung.before[k].every((at) => values[at] === all[at])) {
        now[k] = row.last[k];
        values[k] = all[k];
        continue;
      }
      const said = readsOf(items[k], k, values as NoInfer<T>[]);
      const reads = asRead ? asRead(said, row.slots.get(items[k].id)?.reads as readonly [...R] | undefined) : said;
      now[k] = this.slotIn(row, { word, id: items[k].id, reads, isCopied: false }, () => run(...reads));
      values[k] = now[k].entries[0].value;
    }
    this.renew(row, { ids, now, values });
    row.hung = hung ?? null;
    if (this.within) this.within.push(this.entryOfRow(word, row));
    return row.made as Each<T>;
  }

  /** What is known under each of some lists of ids; each stays the list it was as long as it holds the same. */
  listed<T>(word: string, lists: readonly (readonly string[])[], known: ReadonlyMap<string, T>): readonly (readonly T[])[] {
    const own = this.holder.lists;
    const before = own.get(word)?.found as readonly (readonly T[])[] | undefined;
    const found = lists.map((ids, k) => asListed(ids, known, before?.[k] ?? NO_LIST));
    own.set(word, { run: this.holder.run, found });
    return found;
  }

  private rowOf(word: string): Row {
    const { rows, run } = this.holder;
    const known = rows.get(word);
    if (known) {
      known.run = run;
      return known;
    }
    const row: Row = {
      run,
      shelf: this.kept.shelfOf(word),
      slots: new Map(),
      last: [],
      made: new Each<unknown>([], []),
      before: null,
      columns: null,
      hung: null,
      entry: null,
    };
    rows.set(word, row);
    return row;
  }

  /** The slot of a thing in a row, what it reads worked out at its head. */
  private slotIn(
    { slots, shelf }: Row,
    on: { readonly word: string; readonly id: string; readonly reads: readonly unknown[]; readonly isCopied: boolean },
    run: (slot: Slot | undefined) => unknown,
  ): Slot {
    const { word, id, reads, isCopied } = on;
    const known = slots.get(id);
    if (known && isAlike(known.reads, reads, isCopied ? Infinity : LOOKED_INTO)) return known;
    const entry = this.entryOf({ shelf, word, id, reads }, () => run(known));
    const slot = known ?? { entries: [], reads, run: 0 };
    if (!known) slots.set(id, slot);
    this.putFirst(slot, entry, reads);
    return slot;
  }

  /** A row as it is now; things asked for no longer are let go a run after. */
  private renew(
    row: Row,
    on: { readonly ids: readonly string[]; readonly now: readonly Slot[]; readonly values: readonly unknown[] },
  ): void {
    const { ids, now, values } = on;
    const { made, before } = row;
    const isInPlace = areSame(made.ids, ids);
    if (!isInPlace) this.sweep(row, now);
    row.last = now;
    if (isInPlace && areSame(made.all, values)) return;
    const isBack = before !== null && areSame(before.ids, ids) && areSame(before.all, values);
    row.made = isBack ? before : new Each(isInPlace ? made.ids : ids, values);
    row.before = made;
    if (row.entry) this.letGo(row.entry);
    row.entry = null;
  }

  private sweep({ slots, last }: Row, now: readonly Slot[]): void {
    const { run } = this.holder;
    for (const slot of last) slot.run = run - 1;
    for (const slot of now) slot.run = run;
    for (const [id, slot] of slots) {
      if (run - slot.run < RESTS) continue;
      slots.delete(id);
      for (const entry of slot.entries) this.letGo(entry);
    }
  }

  /** The results of a row as what a step is made of: they stay as long as it does. */
  private entryOfRow(word: string, row: Row): Entry {
    if (row.entry) return row.entry;
    const parts = row.last.map((slot) => slot.entries[0]);
    for (const part of parts) part.held++;
    row.entry = { id: word, key: [], shelf: null, value: row.made, parts, held: 1 };
    return row.entry;
  }

  /** A step's result by what it reads: kept from before, by whomever, or worked out. */
  private entryOf(asked: Asked, run: () => unknown): Entry {
    const key = keysOf(asked.reads);
    return this.kept.find(asked.shelf, asked.id, key) ?? this.workedOut(asked, key, run);
  }

  /** Works a step out, and keeps it with what was worked out within it. */
  private workedOut({ shelf, word, id }: Asked, key: Key, run: () => unknown): Entry {
    const outer = this.within;
    const parts: Entry[] = (this.within = []);
    try {
      const value = run();
      if (typeof value === 'object' && value !== null) named(value);
      const entry: Entry = { id, key, shelf, value, parts, held: 0 };
      for (const part of parts) part.held++;
      this.kept.add(entry);
      const of = word ?? beforeColon(id);
      this.runs.set(of, (this.runs.get(of) ?? 0) + 1);
      return entry;
    } finally {
      this.within = outer;
    }
  }

  /**
   * A step whose result is plain data: where it says what the last one said, it is the last one, and what reads it is not worked
   * out again though what it was made of differs.
   */
  settled<R extends unknown[], T>(id: string, reads: readonly [...R], run: (...reads: Given<R>) => T): T {
    return this.step(id, reads, (...given: Given<R>): T => {
      const slot = this.holder.slots.get(id);
      const made = run(...given);
      return slot ? (asBefore(slot.entries[0].value, made) as T) : made;
    });
  }

  /** A step that may go on from its last result where that is quicker: what it comes to hangs on what it reads alone. */
  goingOn<R extends unknown[], T>(id: string, reads: readonly [...R], run: (last: T | undefined, ...reads: Given<R>) => T): T {
    return this.step(id, reads, (...given: Given<R>): T => run(this.holder.slots.get(id)?.entries[0].value as T | undefined, ...given));
  }

  /** A part of the document as the thing it was before, as long as it says the same: a copy of it comes with every message. */
  same<T extends object | null>(id: string, part: T): T {
    return part === null ? part : this.step(`part:${id}`, [part], (own) => own);
  }

  /** Marks an entry as the last used by whoever runs; what it is made of it holds itself. */
  private hold(entry: Entry, reads: readonly unknown[]): void {
    const { slots, run } = this.holder;
    const slot = slots.get(entry.id);
    if (!slot) {
      entry.held++;
      slots.set(entry.id, { entries: [entry], reads, run });
      return;
    }
    slot.run = run;
    this.putFirst(slot, entry, reads);
  }

  /** An entry as the last used of a slot, which lets go of the one before the one before. */
  private putFirst(slot: Slot, entry: Entry, reads: readonly unknown[]): void {
    if (slot.entries[0] === entry) return;
    const at = slot.entries.indexOf(entry);
    if (at < 0) entry.held++;
    else slot.entries.splice(at, 1);
    slot.entries.unshift(entry);
    slot.reads = reads;
    for (const gone of slot.entries.splice(KEPT)) this.letGo(gone);
  }

  /** One user less of an entry; nobody's is dropped, and lets go of what it was made of. */
  private letGo(entry: Entry): void {
    if (--entry.held > 0) return;
    this.kept.drop(entry);
    for (const part of entry.parts) this.letGo(part);
  }

  /** Runs something for a scenario, '' being the document as it stands; what nobody holds on to any more is let go after it. */
  runFor<T>(scenario: string, run: () => T): T {
    const { holder: before, within } = this;
    const own = this.holderOf(scenario);
    // A part of what this scenario runs already.
    if (this.isRunning && own === before) return run();
    const wasRunning = this.isRunning;
    this.holder = own;
    this.isRunning = true;
    // What another works out is no part of a step this one is in.
    this.within = null;
    own.run++;
    try {
      return run();
    } finally {
      this.rest(own);
      this.holder = before;
      this.isRunning = wasRunning;
      this.within = within;
    }
  }

  /** Lets go of what a holder has not asked for of late. */
  private rest({ slots, rows, lists, run }: Holder): void {
    for (const [word, one] of lists) if (run - one.run >= RESTS) lists.delete(word);
    for (const [id, slot] of slots) {
      if (run - slot.run < RESTS) continue;
      slots.delete(id);
      for (const entry of slot.entries) this.letGo(entry);
    }
    for (const [word, row] of rows) {
      if (run - row.run < RESTS) continue;
      rows.delete(word);
      this.letGoRow(row);
    }
  }

  private letGoRow({ slots, entry }: Row): void {
    for (const slot of slots.values()) for (const one of slot.entries) this.letGo(one);
    if (entry) this.letGo(entry);
  }

  /** Whether anything is held for a scenario. */
  holds(scenario: string): boolean {
    return this.holders.has(scenario);
  }

  /** Forgets a scenario that is looked at no longer, with what is worked out under names that go on from its own. */
  forget(scenario: string): void {
    if (scenario === '') return;
    for (const [name, holder] of this.holders) {
      if (name !== scenario && !name.startsWith(`${scenario}|`)) continue;
      this.holders.delete(name);
      for (const { entries } of holder.slots.values()) for (const entry of entries) this.letGo(entry);
      for (const row of holder.rows.values()) this.letGoRow(row);
    }
  }

  /** How many results are kept: for tests. */
  get size(): number {
    return this.kept.size;
  }
}
