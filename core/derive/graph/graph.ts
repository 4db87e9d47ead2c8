// What is worked out from what: a step says what it reads, and is worked out again only when that differs.

/** Things that are made anew only when they change: results of steps, and what is handed in as one. Named by number. */
const names = new WeakMap<object, number>();
let named = 0;

/** Text of plain data already written once: the document's parts are never changed, only replaced. */
const texts = new WeakMap<object, string>();

function nameOf(thing: object): number {
  const known = names.get(thing);
  if (known !== undefined) return known;
  names.set(thing, ++named);
  return named;
}

/** A thing told apart by being itself, not by what it holds: for grids and contexts that are never changed. */
export function asItself<T extends object>(thing: T): T {
  nameOf(thing);
  return thing;
}

/** Data as text; a step's result within it by its name. Written out, since it is asked for with every step. */
function write(value: unknown): string {
  if (typeof value === 'string') return JSON.stringify(value);
  if (typeof value === 'number') return '' + value;
  if (typeof value === 'function') throw new TypeError('a step reads data and results of steps, no function');
  if (typeof value !== 'object' || value === null) return String(value);
  const name = names.get(value);
  if (name !== undefined) return `@${name}`;
  if (Array.isArray(value)) {
    let text = '[';
    for (let k = 0; k < value.length; k++) text += write(value[k]) + ',';
    return text + ']';
  }
  if (value instanceof Map || value instanceof Set) return write([...value]);
  if (ArrayBuffer.isView(value)) throw new TypeError('a step reads flat arrays only as results of steps');
  let text = '{';
  const members = value as Readonly<Record<string, unknown>>;
  for (const key in members) if (members[key] !== undefined) text += JSON.stringify(key) + ':' + write(members[key]) + ',';
  return text + '}';
}

/** The text of what is read; data of the document is written only once. */
function textOf(read: unknown): string {
  if (typeof read !== 'object' || read === null) return write(read);
  const name = names.get(read);
  if (name !== undefined) return `@${name}`;
  const known = texts.get(read);
  if (known !== undefined) return known;
  const text = write(read);
  texts.set(read, text);
  return text;
}

/** How deep two things read are looked into before they are written out to be told apart. */
const LOOKED_INTO = 3;

const isPlain = (value: object): value is Readonly<Record<string, unknown>> => Object.getPrototypeOf(value) === Object.prototype;

/** Whether two things read are surely alike: the same, or made up of the same. Saves writing them out. */
function isSurelySame(a: unknown, b: unknown, deep = LOOKED_INTO): boolean {
  if (a === b) return true;
  if (deep === 0 || typeof a !== 'object' || typeof b !== 'object' || a === null || b === null || names.has(b)) return false;
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((item, k) => isSurelySame(item, b[k], deep - 1));
  if (!isPlain(a) || !isPlain(b)) return false;
  for (const key in a) if (!isSurelySame(a[key], b[key], deep - 1)) return false;
  for (const key in b) if (!(key in a)) return false;
  return true;
}

/** Whether two things hold the same data all through. Functions are the same only if they are one. */
function saysTheSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((item, k) => saysTheSame(item, b[k]));
  if (!isPlain(a) || !isPlain(b)) return false;
  for (const key in a) if (!saysTheSame(a[key], b[key])) return false;
  for (const key in b) if (!(key in a)) return false;
  return true;
}

/** What a step is given: its types follow from what it reads, never the other way round. */
type Given<R extends unknown[]> = { [K in keyof R]: NoInfer<R[K]> };

/** A result, kept as long as a user holds on to it, or another that was worked out from it is kept. */
interface Entry {
  readonly id: string;
  readonly key: string;
  readonly value: unknown;
  /** Results of the steps worked out within it. */
  readonly parts: readonly Entry[];
  /** How many users and results hold on to it; none once it is let go. */
  held: number;
}

/** How many of the last values of a slot a user of the graph keeps: what is now, and what an undo goes back to. */
const KEPT = 2;
/** Runs of a user after which a slot it no longer asks for is let go. */
const RESTS = 2;

/** What a user of the graph holds on to of one step. */
interface Slot {
  /** The last first. */
  readonly entries: Entry[];
  /** What the step read when the last of them was asked for. */
  reads: readonly unknown[];
  run: number;
}

/** One user of the graph: the document, or a scenario beside it. */
interface Holder {
  run: number;
  readonly slots: Map<string, Slot>;
}

const isAlike = (a: readonly unknown[], b: readonly unknown[]): boolean => {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (!isSurelySame(a[k], b[k])) return false;
  return true;
};

/**
 * Keeps results of steps by what they read. Values are shared by all scenarios; each holds on to the last ones of its own,
 * so that looking at another changes nothing of what is at hand, and an undo finds what it goes back to.
 */
export class Graph {
  private readonly kept = new Map<string, Map<string, Entry>>();
  private readonly holders = new Map<string, Holder>();
  private holder: Holder;
  private isRunning = false;
  private within: Set<Entry> | null = null;
  /** How often each step was really worked out, by the word before the colon of its id: for tests and the benchmark. */
  readonly runs = new Map<string, number>();

  constructor() {
    this.holder = this.holderOf('');
  }

  private holderOf(scenario: string): Holder {
    const known = this.holders.get(scenario);
    if (known) return known;
    const made: Holder = { run: 0, slots: new Map() };
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
    const key = isLast ? last.key : reads.map(textOf).join('|');
    const entry = (isLast ? last : this.kept.get(id)?.get(key)) ?? this.workedOut(id, key, () => run(...reads));
    this.within?.add(entry);
    this.hold(entry, reads);
    return entry.value as T;
  }

  /** Works a step out, and keeps it with what was worked out within it. */
  private workedOut(id: string, key: string, run: () => unknown): Entry {
    const outer = this.within;
    const parts = (this.within = new Set<Entry>());
    try {
      const value = run();
      if (typeof value === 'object' && value !== null) nameOf(value);
      const entry: Entry = { id, key, value, parts: [...parts], held: 0 };
      for (const part of parts) part.held++;
      const slot = this.kept.get(id) ?? new Map<string, Entry>();
      slot.set(key, entry);
      this.kept.set(id, slot);
      const word = id.split(':')[0];
      this.runs.set(word, (this.runs.get(word) ?? 0) + 1);
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
      const last = this.holder.slots.get(id)?.entries[0]?.value as T | undefined;
      const made = run(...given);
      return last !== undefined && saysTheSame(last, made) ? last : made;
    });
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
    const entries = this.kept.get(entry.id);
    if (entries?.get(entry.key) === entry) entries.delete(entry.key);
    if (entries?.size === 0) this.kept.delete(entry.id);
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
  private rest({ slots, run }: Holder): void {
    for (const [id, slot] of slots) {
      if (run - slot.run < RESTS) continue;
      slots.delete(id);
      for (const entry of slot.entries) this.letGo(entry);
    }
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
    }
  }

  /** How many results are kept: for tests. */
  get size(): number {
    let sum = 0;
    for (const entries of this.kept.values()) sum += entries.size;
    return sum;
  }
}
