// When two things a step reads are one: by being themselves, or by what they say.

/** Whatever is handed to it, so that a class made of it puts its private field there. */
class Onto {
  constructor(thing: object) {
    // oxlint-disable-next-line no-constructor-return
    return thing;
  }
}

/**
 * Things that are made anew only when they change: results of steps, and what is handed in as one. Named by number in a private
 * field of their own, which no copy of them has. Tens of thousands in a weak map would cost each sweep of the memory a look at all.
 */
class Named extends Onto {
  readonly #number: number;

  constructor(thing: object, number: number) {
    super(thing);
    this.#number = number;
  }

  /** The number of a thing that has one. */
  static of(thing: object): number | undefined {
    return #number in thing ? thing.#number : undefined;
  }
}
let named = 0;

/** Text of plain data already written once: the document's parts are never changed, only replaced. */
const texts = new WeakMap<object, string>();

export function nameOf(thing: object): number {
  const known = Named.of(thing);
  if (known !== undefined) return known;
  void new Named(thing, ++named);
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
  const name = Named.of(value);
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
export function textOf(read: unknown): string {
  if (typeof read !== 'object' || read === null) return write(read);
  const name = Named.of(read);
  if (name !== undefined) return `@${name}`;
  const known = texts.get(read);
  if (known !== undefined) return known;
  const text = write(read);
  texts.set(read, text);
  return text;
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
