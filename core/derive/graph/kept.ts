// Results by what they were worked out from.
import type { Entry, Shelf } from './held.ts';
import type { Key } from './alike.ts';

/** A number that is none is told from none by no comparison. */
const isOne = (a: Key[number], b: Key[number]): boolean => a === b || (Number.isNaN(a) && Number.isNaN(b));

function readTheSame(a: Key, b: Key): boolean {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (!isOne(a[k], b[k])) return false;
  return true;
}

/** All results that are kept: only as many of each step as its users look at, so that they are looked through one by one. */
export class Kept {
  private readonly shelves = new Map<string, Shelf>();
  private count = 0;

  /** Where results of alike steps stand. */
  shelfOf(word: string): Shelf {
    const known = this.shelves.get(word);
    if (known) return known;
    const made: Shelf = new Map();
    this.shelves.set(word, made);
    return made;
  }

  /** The result of a step that read this. */
  find(shelf: Shelf, id: string, key: Key): Entry | undefined {
    const kept = shelf.get(id);
    if (kept) for (let k = kept.length - 1; k >= 0; k--) if (readTheSame(kept[k].key, key)) return kept[k];
    return undefined;
  }

  add(entry: Entry): void {
    this.count++;
    const kept = entry.shelf?.get(entry.id);
    if (kept) kept.push(entry);
    else entry.shelf?.set(entry.id, [entry]);
  }

  drop(entry: Entry): void {
    const kept = entry.shelf?.get(entry.id);
    const at = kept?.indexOf(entry) ?? -1;
    if (!kept || at < 0) return;
    this.count--;
    kept.splice(at, 1);
    if (kept.length === 0) entry.shelf?.delete(entry.id);
  }

  /** How many results are kept. */
  get size(): number {
    return this.count;
  }
}
