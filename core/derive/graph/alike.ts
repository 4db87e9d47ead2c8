// When two things a step reads are one: by being themselves, or by what they say.

/** Stands for a thing in what is read, so that nothing else is held on to. */
class Mark {
  constructor(readonly number: number) {}
}

/** What a step read: things by their marks, plain data by that of its text, and what is none as it is. */
export type Key = readonly (Mark | string | number | boolean | bigint | null | undefined)[];

let marks = 0;
const nextMark = (): Mark => new Mark(++marks);

/** Whatever is handed to it, so that a class made of it puts its private field there. */
class Onto {
  constructor(thing: object) {
    // oxlint-disable-next-line no-constructor-return
    return thing;
  }
}

/**
 * Things that are made anew only when they change: results of steps, and what is handed in as one. Marked in a private
 * field of their own, which no copy of them has. Tens of thousands in a weak map would cost each sweep of the memory a look at all.
 */
class Named extends Onto {
  readonly #mark: Mark;

  constructor(thing: object, mark: Mark) {
    super(thing);
    this.#mark = mark;
  }

  /** The mark of a thing that has one. */
  static of(thing: object): Mark | undefined {
    return #mark in thing ? thing.#mark : undefined;
  }
}

/** Gives a thing a mark, where it has none. */
export function named(thing: object): void {
  if (!Named.of(thing)) void new Named(thing, nextMark());
}

/** A thing told apart by being itself, not by what it holds: for grids and contexts that are never changed. */
export function asItself<T extends object>(thing: T): T {
  named(thing);
  return thing;
}

/** Data as text; a step's result within it by its mark. Written out, since it is asked for with all that was edited. */
function write(value: unknown): string {
  if (typeof value === 'string') return JSON.stringify(value);
  if (typeof value === 'number') return '' + value;
  if (typeof value === 'function') throw new TypeError('a step reads data and results of steps, no function');
  if (typeof value !== 'object' || value === null) return String(value);
  const mark = Named.of(value);
  if (mark !== undefined) return `@${mark.number}`;
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

/** How long all texts are that are known by their marks, before those not met for as long are let go: what comes again then is worked out again. */
const MOST_TOLD = 4_000_000;
/** Marks of texts: a text itself is long, and would stand in every step that reads it. */
let told = new Map<string, Mark>();
let toldBefore = new Map<string, Mark>();
let toldLength = 0;

function markOfText(text: string): Mark {
  const known = told.get(text);
  if (known) return known;
  const mark = toldBefore.get(text) ?? nextMark();
  toldLength += text.length;
  if (toldLength > MOST_TOLD) {
    toldBefore = told;
    told = new Map();
    toldLength = text.length;
  }
  told.set(text, mark);
  return mark;
}

/** Marks of plain data already written once: the document's parts are never changed, only replaced. */
const written = new WeakMap<object, Mark>();

/** What stands for something read. */
function keyOf(read: unknown): Key[number] {
  if (typeof read === 'function' || typeof read === 'symbol') throw new TypeError('a step reads data and results of steps, no function');
  if (typeof read !== 'object' || read === null) return read as Key[number];
  const known = Named.of(read) ?? written.get(read);
  if (known !== undefined) return known;
  const mark = markOfText(write(read));
  written.set(read, mark);
  return mark;
}

/** What stands for all that a step reads. */
export function keysOf(reads: readonly unknown[]): Key {
  const key = new Array<Key[number]>(reads.length);
  for (let k = 0; k < reads.length; k++) key[k] = keyOf(reads[k]);
  return key;
}

/** How deep two things read are looked into before they are written out to be told apart; copies of parts of the document to the end. */
export const LOOKED_INTO = 3;

const isPlain = (value: object): value is Readonly<Record<string, unknown>> => Object.getPrototypeOf(value) === Object.prototype;

/** Whether two things read are surely alike: the same, or made up of the same. Saves writing them out. */
export function isSurelySame(a: unknown, b: unknown, deep = LOOKED_INTO): boolean {
  if (a === b) return true;
  if (deep === 0 || typeof a !== 'object' || typeof b !== 'object' || a === null || b === null || Named.of(b) !== undefined) return false;
  if (Array.isArray(a)) {
    if (!Array.isArray(b) || a.length !== b.length) return false;
    // What is one thing is passed over here: most of what is read are numbers.
    for (let k = 0; k < a.length; k++) if (a[k] !== b[k] && !isSurelySame(a[k], b[k], deep - 1)) return false;
    return true;
  }
  if (!isPlain(a) || !isPlain(b)) return false;
  for (const key in a) if (a[key] !== b[key] && !isSurelySame(a[key], b[key], deep - 1)) return false;
  for (const key in b) if (!(key in a)) return false;
  return true;
}

/** Whether two things hold the same data all through. Functions are the same only if they are one. */
export function saysTheSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((item, k) => saysTheSame(item, b[k]));
  if (!isPlain(a) || !isPlain(b)) return false;
  for (const key in a) if (!saysTheSame(a[key], b[key])) return false;
  for (const key in b) if (!(key in a)) return false;
  return true;
}

/** Whether what a step reads is surely what it read before. */
export const isAlike = (a: readonly unknown[], b: readonly unknown[], deep?: number): boolean => {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k] && !isSurelySame(a[k], b[k], deep)) return false;
  return true;
};
