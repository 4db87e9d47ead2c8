/** Keeps the last result of each step with the key it was made for. */
export class Memo {
  private readonly kept = new Map<string, { readonly key: string; readonly value: unknown }>();
  private used = new Set<string>();
  private readonly stamps = new Map<string, number>();
  private count = 0;
  /** How often each step really ran: for tests and the benchmark. */
  readonly runs = new Map<string, number>();

  /** The step's value for a key: kept when the key is the same as last time, else computed. */
  step<T>(id: string, key: string, run: () => T): T {
    this.used.add(id);
    const hit = this.kept.get(id);
    if (hit && hit.key === key) return hit.value as T;
    const value = run();
    const name = id.split(':')[0];
    this.runs.set(name, (this.runs.get(name) ?? 0) + 1);
    this.kept.set(id, { key, value });
    this.stamps.set(id, ++this.count);
    return value;
  }

  /** A memo that begins with all that is kept here and leaves it as it is: for what-ifs beside the document. */
  fork(): Memo {
    const other = new Memo();
    for (const [id, kept] of this.kept) other.kept.set(id, kept);
    for (const [id, stamp] of this.stamps) other.stamps.set(id, stamp);
    other.count = this.count;
    return other;
  }

  /** Short name of a step's present result, to build the keys of steps that use it. */
  stamp(id: string): string {
    return `${id}@${this.stamps.get(id) ?? 0}`;
  }

  /** Forgets steps not asked for since the last sweep, so that removed works do not linger. */
  sweep(): void {
    for (const id of this.kept.keys()) if (!this.used.has(id)) this.kept.delete(id);
    this.used = new Set();
  }
}
