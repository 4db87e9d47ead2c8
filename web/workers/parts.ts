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
  for (let k = 0; k < words.length; k++) hash = Math.imul(hash ^ words[k], 0x01000193);
  return hash >>> 0;
}

/** Members that are records of parts by key rather than one part. */
const BY_KEY = new Set([
  'figures',
  'making',
  'each',
  'handOvers',
  'diagnoses',
  'sections',
  'shapes',
  'rings',
  'verdicts',
  'peaks',
  'found',
]);

/** A part as text and the flat arrays among its members, and a name that is another for any other part. */
function textOf(value: unknown): { readonly name: string; readonly part: Omit<Fresh, 'id'> } {
  if (!isRecord(value) || !Object.values(value).some(isTyped)) {
    const json = JSON.stringify(value) ?? 'null';
    return { name: json, part: { json, arrays: null } };
  }
  const arrays: Record<string, Typed> = {};
  const plain: Record<string, unknown> = {};
  let sums = '';
  for (const [key, member] of Object.entries(value)) {
    if (isTyped(member)) {
      arrays[key] = member;
      sums += `${key}${member.length}.${sumOf(member)};`;
    } else plain[key] = member;
  }
  const json = JSON.stringify(plain);
  return { name: `${json}|${sums}`, part: { json, arrays } };
}

/** A part that is kept, and the answer it was part of when too many were kept last. */
interface Kept {
  answer: number;
}

/** A part that was sent: its number. */
interface Sent extends Kept {
  readonly id: number;
}

/** A list of parts as it was packed last. */
interface Packed {
  readonly values: readonly unknown[];
  readonly sent: readonly Sent[];
}

/** How many times as many parts are kept as an answer has, before those that are gone are let go. */
const KEPT_TIMES = 2;

/** Lets go of parts no longer in the answer, where too many are kept: on both sides alike, so that the page has what it is thought to have. */
function sweep<K, P extends Kept>(known: Map<K, P>, answer: number, lists: Iterable<readonly P[]>): void {
  let count = 0;
  for (const list of lists) count += list.length;
  if (known.size <= KEPT_TIMES * count) return;
  for (const list of lists) for (const part of list) part.answer = answer;
  for (const [key, part] of known) if (part.answer < answer) known.delete(key);
}

/** Keeps count of what the page has, and packs what it has not. */
export class Packer {
  private answer = 0;
  private next = 0;
  private readonly known = new Map<string, Sent>();
  /** Names of things packed before: what is computed is never changed, so the same object says the same. */
  private readonly names = new WeakMap<object, string>();
  private lists = new Map<string, Packed>();

  pack({ derived, view }: DeriveResult): Parcel {
    this.answer++;
    const fresh: Fresh[] = [];
    const lists = new Map<string, Packed>();
    /** Numbers of parts: what stands where it stood is passed over at a glance. */
    const list = (name: string, values: readonly unknown[]): Int32Array => {
      const before = this.lists.get(name);
      const sent = new Array<Sent>(values.length);
      const ids = new Int32Array(values.length);
      for (let k = 0; k < values.length; k++) {
        const value = values[k];
        sent[k] = before && before.values[k] === value && typeof value === 'object' ? before.sent[k] : this.part(value, fresh);
        ids[k] = sent[k].id;
      }
      lists.set(name, { values, sent });
      return ids;
    };
    const shapeOf = (name: string, [key, value]: [string, unknown]): Shape => {
      if (Array.isArray(value)) return { list: list(name, value) };
      if (BY_KEY.has(key) && isRecord(value)) return { keys: Object.keys(value), list: list(name, Object.values(value)) };
      return { one: list(name, [value])[0] };
    };
    const shapes = (prefix: string, whole: object): Record<string, Shape> =>
      Object.fromEntries(Object.entries(whole).map((member: [string, unknown]) => [member[0], shapeOf(`${prefix}.${member[0]}`, member)]));
    const parcel = { derived: shapes('derived', derived), view: shapes('view', view), fresh };
    this.lists = lists;
    sweep(
      this.known,
      this.answer,
      [...lists.values()].map(({ sent }) => sent),
    );
    return parcel;
  }

  /** A part as it was sent before, where the page still has it; else it is sent now. */
  private part(value: unknown, fresh: Fresh[]): Sent {
    const thing = typeof value === 'object' ? value : null;
    const before = thing ? this.names.get(thing) : undefined;
    const made = before === undefined ? textOf(value) : null;
    const name = before ?? made?.name ?? '';
    if (thing && made) this.names.set(thing, name);
    const known = this.known.get(name);
    if (known) return known;
    const sent = { id: this.next++, answer: this.answer };
    fresh.push({ id: sent.id, ...(made ?? textOf(value)).part });
    this.known.set(name, sent);
    return sent;
  }

  /** How many parts are kept by name: for tests. */
  get size(): number {
    return this.known.size;
  }
}

/** A part the page has. */
interface Had extends Kept {
  readonly value: unknown;
}

/** Puts answers together again from what came and what was there. */
export class Unpacker {
  private answer = 0;
  private readonly known = new Map<number, Had>();
  private lists = new Map<string, { readonly shape: Shape; readonly had: readonly Had[]; readonly value: unknown }>();

  unpack({ derived, view, fresh }: Parcel): DeriveResult {
    this.answer++;
    for (const { id, json, arrays } of fresh) this.known.set(id, { value: unjson(json, arrays), answer: this.answer });
    const lists: typeof this.lists = new Map();
    const build = (name: string, shape: Shape): unknown => {
      const before = this.lists.get(name);
      const had = this.had(idsIn(shape), before && { ids: idsIn(before.shape), had: before.had });
      const value = before && isSame(before.shape, shape) ? before.value : valueOf(shape, had);
      lists.set(name, { shape, had, value });
      return value;
    };
    const whole = (prefix: string, shapes: Readonly<Record<string, Shape>>): Record<string, unknown> =>
      Object.fromEntries(Object.entries(shapes).map(([key, shape]) => [key, build(`${prefix}.${key}`, shape)]));
    const result = { derived: whole('derived', derived), view: whole('view', view) };
    this.lists = lists;
    sweep(
      this.known,
      this.answer,
      [...lists.values()].map(({ had }) => had),
    );
    // The parcel was made of a result: its shape comes back as it went in.
    return result as unknown as DeriveResult;
  }

  /** Parts by their numbers; those that stand where they stood are not looked up. */
  private had(
    ids: ArrayLike<number>,
    before: { readonly ids: ArrayLike<number>; readonly had: readonly Had[] } | undefined,
  ): readonly Had[] {
    const had = new Array<Had>(ids.length);
    for (let k = 0; k < ids.length; k++) {
      const one = before && before.ids[k] === ids[k] ? before.had[k] : this.known.get(ids[k]);
      if (!one) throw new Error('a part of the answer never came');
      had[k] = one;
    }
    return had;
  }

  /** How many parts are kept by number: for tests. */
  get size(): number {
    return this.known.size;
  }
}

const idsIn = (shape: Shape): ArrayLike<number> => ('one' in shape ? [shape.one] : shape.list);

function valueOf(shape: Shape, had: readonly Had[]): unknown {
  if ('one' in shape) return had[0].value;
  if ('keys' in shape) return Object.fromEntries(shape.keys.map((key, k) => [key, had[k].value]));
  return had.map(({ value }) => value);
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
