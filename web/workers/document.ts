// The document crosses to the worker in parts: it is never changed, only replaced part by part, so what is one thing here stays one
// thing there, and nothing that reads it is worked out again.

/** A part by its number, or what is no thing. */
type Ref = { readonly id: number } | { readonly is: unknown };
type Node =
  | { readonly flat: readonly unknown[] }
  | { readonly list: readonly Ref[] }
  | { readonly keys: readonly string[]; readonly members: readonly Ref[] };

/** A document as those of its parts that the other side has not, each after those it is made of. */
export interface Sending {
  /** Whether the other side forgets what it had. */
  readonly isAnew: boolean;
  readonly fresh: readonly (readonly [id: number, node: Node])[];
  readonly root: number;
}

/** The other side keeps so many times as many parts as a document has, before all are sent anew. */
const KEPT_TIMES = 3;
/** And so many at the least. */
const KEPT_LEAST = 2000;

const isThing = (value: unknown): value is object => typeof value === 'object' && value !== null;
/** Lists of points, numbers or words are not taken apart. */
const isFlat = (list: readonly unknown[]): boolean => list.every((one) => !isThing(one) || Array.isArray(one));

/** Sends documents, one after the other. */
export class Sender {
  private ids = new WeakMap<object, number>();
  private next = 0;
  /** How many parts the other side has, and had when all were sent. */
  private has = 0;
  private had = 0;

  send(document: object): Sending {
    const isAnew = this.had === 0 || this.has > Math.max(KEPT_LEAST, KEPT_TIMES * this.had);
    if (isAnew) this.ids = new WeakMap();
    const fresh: [number, Node][] = [];
    const root = this.numberOf(document, fresh);
    this.has = isAnew ? fresh.length : this.has + fresh.length;
    if (isAnew) this.had = fresh.length;
    return { isAnew, fresh, root };
  }

  private numberOf(thing: object, fresh: [number, Node][]): number {
    const known = this.ids.get(thing);
    if (known !== undefined) return known;
    const ref = (value: unknown): Ref => (isThing(value) ? { id: this.numberOf(value, fresh) } : { is: value });
    const node: Node = !Array.isArray(thing)
      ? { keys: Object.keys(thing), members: Object.values(thing).map(ref) }
      : isFlat(thing)
        ? { flat: thing }
        : { list: thing.map(ref) };
    const id = this.next++;
    this.ids.set(thing, id);
    fresh.push([id, node]);
    return id;
  }
}

/** Puts documents together again from what came and what was there. */
export class Receiver {
  private readonly parts = new Map<number, object>();

  receive({ isAnew, fresh, root }: Sending): object {
    if (isAnew) this.parts.clear();
    const valueOf = (ref: Ref): unknown => ('id' in ref ? this.partOf(ref.id) : ref.is);
    for (const [id, node] of fresh) {
      this.parts.set(
        id,
        'flat' in node
          ? node.flat
          : 'list' in node
            ? node.list.map(valueOf)
            : Object.fromEntries(node.keys.map((key, k) => [key, valueOf(node.members[k])])),
      );
    }
    return this.partOf(root);
  }

  private partOf(id: number): object {
    const part = this.parts.get(id);
    if (!part) throw new Error('a part of the document never came');
    return part;
  }

  /** How many parts are kept: for tests. */
  get size(): number {
    return this.parts.size;
  }
}
