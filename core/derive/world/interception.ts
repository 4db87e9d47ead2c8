// Which store the water of each cell meets first. An edit moves what catches water at a few cells: only what runs to these is followed again.
import type { Intake } from '../../contract/index.ts';
import {
  CellNumbers,
  type Renumbered,
  catchingCells,
  cellsInside,
  firstInterceptor,
  interceptedAgain,
  numberedAgain,
  numberedAt,
  shareOfCell,
} from '../../terrain/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { GroundModel } from './ground-model.ts';
import { inRoomOf } from './room.ts';

/** What is another than it was in the interception this one went on from. */
export interface Since {
  /** The mark of that one. */
  readonly mark: object;
  /** Cells at which another catches water. */
  readonly caughtAt: Int32Array;
  /** Cells whose water meets another store than it did, and the numbers they bore. */
  readonly changed: Int32Array;
  readonly were: Int16Array;
}

/** Which store each cell's water meets first, and where those catch it. */
export interface Interception {
  /** Stores that take in water from the ground; number k of a cell belongs to stores[k - 1]. */
  readonly stores: readonly string[];
  readonly owner: CellNumbers;
  readonly label: CellNumbers;
  /** What stores take of the water that meets them, where their works are narrower than a cell. */
  readonly shares: ReadonlyMap<string, number>;
  /** This one and no other: what was worked out from it says so by its mark. */
  readonly mark: object;
  /** Null where all was worked out anew. */
  readonly since: Since | null;
}

/** Where numbered things catch water, and which of them each cell's water meets first. */
interface Numbered {
  readonly owner: CellNumbers;
  readonly label: CellNumbers;
}

/** With what the next one can go on from. */
interface Kept extends Interception {
  readonly model: GroundModel;
  readonly intakes: readonly Intake[];
  /** Of each intake the cells it catches at, and what it takes of what meets it. */
  readonly caughtAt: readonly (readonly number[])[];
  readonly takes: readonly number[];
  /** The store each cell's water meets first where it runs over the ground: what lies under roofs too. */
  readonly overGround: CellNumbers;
  /** Cells under roofs. */
  readonly roofed: ReadonlySet<number>;
  /** By intakes, where some are narrower than a cell; with the cells of each. */
  readonly single: (Numbered & { readonly cells: Int32Array }) | null;
}

/** Intakes with where they catch and what they take. */
type Taken = Pick<Kept, 'intakes' | 'caughtAt' | 'takes'>;

/** Stores take the share of each small intake, weighed by the ground that drains to it. */
function sharesBy({ intakes, takes }: Taken, cells: Int32Array): ReadonlyMap<string, number> {
  const sums = new Map<string, { whole: number; taken: number }>();
  for (let k = 0; k < intakes.length; k++) {
    const { store } = intakes[k];
    const known = sums.get(store);
    const sum = known ?? { whole: 0, taken: 0 };
    if (!known) sums.set(store, sum);
    sum.whole += cells[k + 1];
    sum.taken += takes[k] * cells[k + 1];
  }
  return new Map([...sums].flatMap(([id, { whole, taken }]) => (taken < whole ? [[id, taken / whole] as const] : [])));
}

/** Number of the store of each intake. */
function numbersOf(intakes: readonly Intake[], stores: readonly string[]): readonly number[] {
  const numbers = new Map(stores.map((id, k) => [id, k + 1]));
  return intakes.map(({ store }) => numbers.get(store) ?? 0);
}

const eachAlone = (all: readonly unknown[]): readonly number[] => all.map((_, k) => k + 1);

function withRoofs(
  model: GroundModel,
  over: CellNumbers,
  on: { readonly intakes: readonly Intake[]; readonly numbers: readonly number[] },
) {
  const { intakes, numbers } = on;
  const roofed = new Set<number>();
  if (intakes.every(({ roof }) => !roof)) return { label: over, roofed };
  // A roof keeps the rain on itself from what lies below; what runs over the ground there goes by.
  const label = over.read().slice();
  intakes.forEach(({ roof }, k) => {
    for (const cell of roof ? cellsInside(model.grid, roof) : []) {
      label[cell] = numbers[k];
      roofed.add(cell);
    }
  });
  return { label: new CellNumbers(label), roofed };
}

function intercepted(model: GroundModel, now: Taken): Kept {
  const { intakes } = now;
  const stores = [...new Set(intakes.map((i) => i.store))];
  const numbers = numbersOf(intakes, stores);
  const { owner, label: overGround } = numbered(model, now, numbers);
  const isOneEach = stores.length === intakes.length;
  const single = hasNarrow(now)
    ? counted(isOneEach ? { owner, label: overGround } : numbered(model, now, eachAlone(intakes)), intakes.length)
    : null;
  const shares = single ? sharesBy(now, single.cells) : new Map<string, number>();
  const roofs = withRoofs(model, overGround, { intakes, numbers });
  return { model, ...now, stores, owner, ...roofs, shares, overGround, single, mark: {}, since: null };
}

const hasNarrow = ({ takes }: Taken): boolean => takes.some((share) => share < 1);

/** Where intakes with these numbers catch, and which of them the water of each cell meets first. */
function numbered({ grid, flow }: GroundModel, { caughtAt }: Taken, numbers: readonly number[]): Numbered {
  const owner = numberedAt(grid, caughtAt, numbers);
  return { owner: new CellNumbers(owner), label: new CellNumbers(firstInterceptor(flow, owner)) };
}

function counted({ owner, label }: Numbered, count: number): NonNullable<Kept['single']> {
  const cells = new Int32Array(count + 1);
  const numbers = label.read();
  for (let i = 0; i < numbers.length; i++) cells[numbers[i]]++;
  return { owner, label, cells };
}

/** Whether intakes are of the same stores in the same order, and roofs what they were: then one can be worked out from the other. */
const areAlike = (a: readonly Intake[], b: readonly Intake[]): boolean =>
  a.length === b.length && a.every((one, k) => one === b[k] || (one.store === b[k].store && !one.roof && !b[k].roof));

/** What is another where intakes catch elsewhere than they did: at these cells of these numbers. */
interface Again extends Numbered {
  readonly caughtAt: Int32Array;
  readonly met: Renumbered;
}

function numberedFrom(
  model: GroundModel,
  was: Numbered,
  on: Pick<Taken, 'caughtAt'> & { readonly numbers: readonly number[]; readonly at: readonly number[] },
): Again {
  return inRoomOf(model, ({ mask }) => {
    const owner = was.owner.changed((now) => numberedAgain(now, on, { at: on.at, mask }));
    const label = was.label.changed((now) => interceptedAgain(model.flow, now, { owner: owner.now.read(), at: owner.cells, mask }));
    return { owner: owner.now, label: label.now, caughtAt: owner.cells, met: label };
  });
}

/** The same, from what was worked out for other intakes on the same ground. */
function interceptedFrom(last: Kept, now: Taken): Kept {
  const { model, stores, owner, overGround } = last;
  const { intakes, caughtAt } = now;
  const at = caughtAt.flatMap((cells, k) => (cells === last.caughtAt[k] ? [] : [...cells, ...last.caughtAt[k]]));
  const again = (was: Numbered, numbers: readonly number[]): Again => numberedFrom(model, was, { caughtAt, numbers, at });
  const over = again({ owner, label: overGround }, numbersOf(intakes, stores));
  const { label, cells, were } = besideRoofs(last, over);
  return {
    ...last,
    ...now,
    owner: over.owner,
    label,
    overGround: over.label,
    ...sharedFrom(last, now, (was) => (was.owner === owner ? over : again(was, eachAlone(intakes)))),
    mark: {},
    since: { mark: last.mark, caughtAt: over.caughtAt, changed: cells, were },
  };
}

/** What each cell meets where roofs stay as they are, from what it meets over the ground. */
function besideRoofs({ label, roofed }: Kept, over: Again): { readonly label: CellNumbers } & Renumbered {
  if (roofed.size === 0) return { label: over.label, ...over.met };
  const cells = over.met.cells.filter((i) => !roofed.has(i));
  const numbers = over.label.read();
  const changed = label.changed((now) => {
    const were = Int16Array.from(cells, (i) => now[i]);
    for (const i of cells) now[i] = numbers[i];
    return { cells, were };
  });
  return { label: changed.now, cells, were: changed.were };
}

function sharedFrom({ single: was, shares }: Kept, now: Taken, again: (was: Numbered) => Again): Pick<Kept, 'single' | 'shares'> {
  if (!was) return { single: null, shares };
  const { owner, label, met } = again(was);
  const cells = was.cells.slice();
  const numbers = label.read();
  met.cells.forEach((i, k) => {
    cells[met.were[k]]--;
    cells[numbers[i]]++;
  });
  return { single: { owner, label, cells }, shares: sharesBy(now, cells) };
}

/** What the intakes of all works catch. */
export const interception = (model: GroundModel, lists: readonly (readonly Intake[])[], graph: Graph): Interception =>
  graph.goingOn('interception', [model, lists], (last: Kept | undefined, ground, all): Kept => {
    const { grid } = ground;
    const intakes = all.flat();
    const before = last?.model === ground && areAlike(last.intakes, intakes) ? last : null;
    const stays = (k: number): boolean => before?.intakes[k] === intakes[k];
    const now: Taken = {
      intakes,
      caughtAt: intakes.map((intake, k) => (before && stays(k) ? before.caughtAt[k] : catchingCells(grid, intake))),
      takes: intakes.map((intake, k) => (before && stays(k) ? before.takes[k] : shareOfCell(grid, intake))),
    };
    return before && (before.single !== null) === hasNarrow(now) ? interceptedFrom(before, now) : intercepted(ground, now);
  });
