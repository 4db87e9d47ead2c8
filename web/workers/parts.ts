// What is computed crosses to the page in parts: only parts that differ from the last answer are sent, and those that do not
// stay the same objects there, so that nothing that shows them renders again.
import type { DeriveResult } from '#core/derive';

type Typed = Float64Array | Float32Array | Int32Array | Uint8Array;

/** A part with its number: text for what is plain, flat arrays beside it by the name of their member. */
interface Fresh {
  readonly id: number;
  readonly json: string;
  readonly arrays: Readonly<Record<string, Typed>> | null;
}

/** One member of the answer: a list of parts, parts by key, or one part. */
type Shape = { readonly list: Int32Array } | { readonly keys: readonly string[]; readonly list: Int32Array } | { readonly one: number };

export interface Parcel {
  readonly derived: Readonly<Record<string, Shape>>;
  readonly view: Readonly<Record<string, Shape>>;
  readonly fresh: readonly Fresh[];
}

const isTyped = (value: unknown): value is Typed => ArrayBuffer.isView(value);
const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !isTyped(value);

/** FNV-1a over the words of flat numbers: told apart well enough beside the part's text and length. */
function sumOf(list: Typed): number {
  const words = list.byteLength % 4 === 0 ? new Uint32Array(list.buffer, list.byteOffset, list.byteLength / 4) : list;
  let hash = 0x811c9dc5;
  for (const word of words) hash = Math.imul(hash ^ word, 0x01000193);
  return hash >>> 0;
}

/** Members that are records of parts by key rather than one part. */
const BY_KEY = new Set(['figures', 'making', 'handOvers', 'diagnoses', 'sections', 'shapes', 'rings', 'verdicts', 'peaks', 'found']);

/** A part as text and flat arrays, and a name that is another for any other part. */
function textOf(value: unknown): { readonly name: string; readonly part: Omit<Fresh, 'id'> } {
  const arrays: Record<string, Typed> = {};
  let sums = '';
  const json =
    JSON.stringify(value, (key, v: unknown) => {
      if (!isTyped(v)) return v;
      arrays[key] = v;
      sums += `${key}${v.length}.${sumOf(v)};`;
      return undefined;
    }) ?? 'null';
  return sums === '' ? { name: json, part: { json, arrays: null } } : { name: `${json}|${sums}`, part: { json, arrays } };
}

/** Keeps count of what the page has, and packs what it has not. */
export class Packer {
  private known = new Map<string, number>();
  private next = 0;
  /** Names of parts written before: what is computed is never changed, so the same object says the same. */
  private readonly names = new WeakMap<object, string>();

  /** A part's name, and its text when it is asked for. */
  private write(value: unknown): { readonly name: string; readonly read: () => Omit<Fresh, 'id'> } {
    const known = typeof value === 'object' && value !== null ? this.names.get(value) : undefined;
    if (known !== undefined) return { name: known, read: () => textOf(value).part };
    const { name, part } = textOf(value);
    if (typeof value === 'object' && value !== null) this.names.set(value, name);
    return { name, read: () => part };
  }

  pack({ derived, view }: DeriveResult): Parcel {
    const used = new Map<string, number>();
    const fresh: Fresh[] = [];
    const part = (value: unknown): number => {
      const written = this.write(value);
      const { name } = written;
      const id = used.get(name) ?? this.known.get(name) ?? this.next++;
      if (!used.has(name) && !this.known.has(name)) fresh.push({ id, ...written.read() });
      used.set(name, id);
      return id;
    };
    const shapeOf = (key: string, value: unknown): Shape => {
      if (Array.isArray(value)) return { list: Int32Array.from(value, part) };
      if (BY_KEY.has(key) && isRecord(value)) return { keys: Object.keys(value), list: Int32Array.from(Object.values(value), part) };
      return { one: part(value) };
    };
    const shapes = (whole: object): Record<string, Shape> =>
      Object.fromEntries(Object.entries(whole).map(([key, value]: [string, unknown]) => [key, shapeOf(key, value)]));
    const parcel = { derived: shapes(derived), view: shapes(view), fresh };
    this.known = used;
    return parcel;
  }
}

/** Puts answers together again from what came and what was there. */
export class Unpacker {
  private known = new Map<number, unknown>();
  private lists = new Map<string, { readonly shape: Shape; readonly value: unknown }>();

  unpack({ derived, view, fresh }: Parcel): DeriveResult {
    const made = new Map(fresh.map(({ id, json, arrays }) => [id, unjson(json, arrays)] as const));
    const used = new Map<number, unknown>();
    const get = (id: number): unknown => {
      const value = made.has(id) ? made.get(id) : this.known.get(id);
      used.set(id, value);
      return value;
    };
    const build = (name: string, shape: Shape): unknown => {
      const before = this.lists.get(name);
      if (before && isSame(before.shape, shape)) {
        if ('list' in shape) for (const id of shape.list) get(id);
        else get(shape.one);
        return before.value;
      }
      const value =
        'one' in shape
          ? get(shape.one)
          : 'keys' in shape
            ? Object.fromEntries(shape.keys.map((key, k) => [key, get(shape.list[k])]))
            : Array.from(shape.list, get);
      this.lists.set(name, { shape, value });
      return value;
    };
    const whole = (prefix: string, shapes: Readonly<Record<string, Shape>>): Record<string, unknown> =>
      Object.fromEntries(Object.entries(shapes).map(([key, shape]) => [key, build(`${prefix}.${key}`, shape)]));
    const result = { derived: whole('derived', derived), view: whole('view', view) };
    this.known = used;
    // The parcel was made of a result: its shape comes back as it went in.
    return result as unknown as DeriveResult;
  }
}

function unjson(json: string, arrays: Fresh['arrays']): unknown {
  const value = JSON.parse(json) as unknown;
  return arrays && isRecord(value) ? { ...value, ...arrays } : value;
}

const sameNumbers = (a: Int32Array, b: Int32Array): boolean => a.length === b.length && a.every((v, i) => v === b[i]);

function isSame(a: Shape, b: Shape): boolean {
  if ('one' in a || 'one' in b) return 'one' in a && 'one' in b && a.one === b.one;
  const keysOf = (s: Shape): string | null => ('keys' in s ? s.keys.join('\n') : null);
  return keysOf(a) === keysOf(b) && sameNumbers(a.list, b.list);
}
