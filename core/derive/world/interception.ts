// Which store the water of each cell meets first. An edit moves what catches water at a few cells: only what runs to these is followed again.
import type { Intake } from '../../contract/index.ts';
import { type Grid, catchingCells, catchingOn, cellsInside, firstInterceptor, interceptedAgain, shareOfCell } from '../../terrain/index.ts';
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
  readonly owner: Int16Array;
  readonly label: Int16Array;
  /** What stores take of the water that meets them, where their works are narrower than a cell. */
  readonly shares: ReadonlyMap<string, number>;
  /** This one and no other: what was worked out from it says so by its mark. */
  readonly mark: object;
  /** Null where all was worked out anew. */
  readonly since: Since | null;
}

/** Where numbered things catch water, and which of them each cell's water meets first. */
interface Numbered {
  readonly owner: Int16Array;
  readonly label: Int16Array;
}

/** With what the next one can go on from. */
interface Kept extends Interception {
  readonly model: GroundModel;
  readonly intakes: readonly Intake[];
  /** By stores, roofs left out: what runs over the ground. */
  readonly overGround: Numbered;
  /** Cells under roofs. */
  readonly roofed: ReadonlySet<number>;
  /** By intakes, where some are narrower than a cell; with the cells of each. */
  readonly single: (Numbered & { readonly cells: Int32Array }) | null;
}

/** What an intake takes of what meets it, found once. */
const shareOf = new WeakMap<Intake, { readonly grid: Grid; readonly share: number }>();

function shareOn(grid: Grid, intake: Intake): number {
  const known = shareOf.get(intake);
  if (known?.grid === grid) return known.share;
  const share = shareOfCell(grid, intake);
  shareOf.set(intake, { grid, share });
  return share;
}

/** Stores take the share of each small intake, weighed by the ground that drains to it. */
function sharesBy(grid: Grid, intakes: readonly Intake[], cells: Int32Array): ReadonlyMap<string, number> {
  const sums = new Map<string, { whole: number; taken: number }>();
  intakes.forEach((intake, k) => {
    const known = sums.get(intake.store);
    const sum = known ?? { whole: 0, taken: 0 };
    if (!known) sums.set(intake.store, sum);
    sum.whole += cells[k + 1];
    sum.taken += shareOn(grid, intake) * cells[k + 1];
  });
  return new Map([...sums].flatMap(([id, { whole, taken }]) => (taken < whole ? [[id, taken / whole] as const] : [])));
}

/** Number of the store of each intake. */
function numbersOf(intakes: readonly Intake[], stores: readonly string[]): readonly number[] {
  const numbers = new Map(stores.map((id, k) => [id, k + 1]));
  return intakes.map(({ store }) => numbers.get(store) ?? 0);
}

const ownersOn = ({ grid }: GroundModel, intakes: readonly Intake[], numbers: readonly number[]): Int16Array =>
  catchingOn(
    grid,
    intakes.map((where, k) => ({ ...where, number: numbers[k] })),
  );

const eachAlone = (intakes: readonly Intake[]): readonly number[] => intakes.map((_, k) => k + 1);

function withRoofs(model: GroundModel, over: Int16Array, on: { readonly intakes: readonly Intake[]; readonly numbers: readonly number[] }) {
  const { intakes, numbers } = on;
  const roofed = new Set<number>();
  if (intakes.every(({ roof }) => !roof)) return { label: over, roofed };
  // A roof keeps the rain on itself from what lies below; what runs over the ground there goes by.
  const label = over.slice();
  intakes.forEach(({ roof }, k) => {
    for (const cell of roof ? cellsInside(model.grid, roof) : []) {
      label[cell] = numbers[k];
      roofed.add(cell);
    }
  });
  return { label, roofed };
}

function intercepted(model: GroundModel, intakes: readonly Intake[]): Kept {
  const { grid, flow } = model;
  const stores = [...new Set(intakes.map((i) => i.store))];
  const numbers = numbersOf(intakes, stores);
  const owner = ownersOn(model, intakes, numbers);
  const overGround = { owner, label: firstInterceptor(flow, owner) };
  const single = intakes.every((intake) => shareOn(grid, intake) === 1) ? null : alone(model, intakes);
  const shares = single ? sharesBy(grid, intakes, single.cells) : new Map<string, number>();
  const { label, roofed } = withRoofs(model, overGround.label, { intakes, numbers });
  return { model, intakes, stores, owner, label, shares, overGround, roofed, single, mark: {}, since: null };
}

function alone(model: GroundModel, intakes: readonly Intake[]): NonNullable<Kept['single']> {
  const owner = ownersOn(model, intakes, eachAlone(intakes));
  const label = firstInterceptor(model.flow, owner);
  const cells = new Int32Array(intakes.length + 1);
  for (let i = 0; i < label.length; i++) cells[label[i]]++;
  return { owner, label, cells };
}

/** Whether intakes are of the same stores in the same order, and roofs what they were: then one can be worked out from the other. */
const areAlike = (a: readonly Intake[], b: readonly Intake[]): boolean =>
  a.length === b.length && a.every((one, k) => one === b[k] || (one.store === b[k].store && !one.roof && !b[k].roof));

/** Cells at which numbered things catch water otherwise than they did. */
function movedAt(was: Int16Array, now: Int16Array, cells: readonly number[]): Int32Array {
  const moved = new Set<number>();
  for (const i of cells) if (was[i] !== now[i]) moved.add(i);
  return Int32Array.from(moved);
}

/** The same, from what was worked out for other intakes on the same ground. */
function interceptedFrom(last: Kept, intakes: readonly Intake[]): Kept {
  const { model, stores, overGround, roofed } = last;
  const { grid, flow } = model;
  const moved = intakes.flatMap((intake, k) => (intake === last.intakes[k] ? [] : [intake, last.intakes[k]]));
  const cells = moved.flatMap((intake) => catchingCells(grid, intake));
  const again = (was: Numbered, numbers: readonly number[]) => {
    const owner = ownersOn(model, intakes, numbers);
    const caughtAt = movedAt(was.owner, owner, cells);
    return { owner, caughtAt, ...inRoomOf(model, ({ mask }) => interceptedAgain(flow, owner, { before: was.label, at: caughtAt, mask })) };
  };
  const over = again(overGround, numbersOf(intakes, stores));
  const changed = roofed.size === 0 ? over.changed : over.changed.filter((i) => !roofed.has(i));
  const label = roofed.size === 0 ? over.label : last.label.slice();
  if (roofed.size > 0) for (const i of changed) label[i] = over.label[i];
  return {
    ...last,
    intakes,
    owner: over.owner,
    label,
    overGround: { owner: over.owner, label: over.label },
    ...sharedFrom(last, intakes, again),
    mark: {},
    since: { mark: last.mark, caughtAt: over.caughtAt, changed, were: Int16Array.from(changed, (i) => last.label[i]) },
  };
}

function sharedFrom(
  { single: was, model: { grid }, ...last }: Kept,
  intakes: readonly Intake[],
  again: (was: Numbered, numbers: readonly number[]) => Numbered & { readonly changed: Int32Array },
): Pick<Kept, 'single' | 'shares'> {
  if (!was) return { single: null, shares: last.shares };
  const { owner, label, changed } = again(was, eachAlone(intakes));
  const cells = was.cells.slice();
  for (const i of changed) {
    cells[was.label[i]]--;
    cells[label[i]]++;
  }
  return { single: { owner, label, cells }, shares: sharesBy(grid, intakes, cells) };
}

/** What the intakes of all works catch. */
export const interception = (model: GroundModel, lists: readonly (readonly Intake[])[], graph: Graph): Interception =>
  graph.goingOn('interception', [model, lists], (last: Kept | undefined, ground, all): Kept => {
    const intakes = all.flat();
    const isNear = last?.model === ground && areAlike(last.intakes, intakes);
    const hasNarrow = (): boolean => intakes.some((intake) => shareOn(ground.grid, intake) < 1);
    return isNear && (last.single !== null) === hasNarrow() ? interceptedFrom(last, intakes) : intercepted(ground, intakes);
  });
