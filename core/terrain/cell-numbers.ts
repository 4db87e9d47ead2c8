/** Cells whose number was changed, and the numbers they bore. */
export interface Renumbered {
  readonly cells: Int32Array;
  readonly were: Int16Array;
}

/** Cells whose numbers are written anew, each kept once with what it bore, in a mask that is clean before and after. */
export class Rewritten {
  private readonly cells: number[] = [];
  private readonly were: number[] = [];

  constructor(
    private readonly numbers: Int16Array,
    private readonly mask: Uint8Array,
  ) {}

  /** Keeps what a cell bears before it is written to; what is kept stays kept. */
  keep(cell: number): void {
    if (this.mask[cell] !== 0) return;
    this.mask[cell] = 1;
    this.cells.push(cell);
    this.were.push(this.numbers[cell]);
  }

  /** Those that bear another number than they did. */
  finish(): Renumbered {
    const { cells, were, numbers, mask } = this;
    for (const i of cells) mask[i] = 0;
    const isOther = (i: number, k: number): boolean => numbers[i] !== were[k];
    return { cells: Int32Array.from(cells.filter(isOther)), were: Int16Array.from(were.filter((was, k) => was !== numbers[cells[k]])) };
  }
}

/** How a state differs from another: the numbers it bears at some cells. */
interface Beside {
  readonly state: CellNumbers;
  readonly cells: Int32Array;
  readonly numbers: Int16Array;
}

/**
 * A small number for each cell of a grid, in one state of several that differ at a few cells. They share one array, which stands as
 * that state has it that was read or made last; each of the others keeps what it has otherwise (arrays by rerooting: Baker 1991,
 * SIGPLAN Notices 26(8), named from memory). So an edit costs the cells it changes, and a state from before can be read all the same.
 */
export class CellNumbers {
  /** Null where this state is the one that has the array. */
  private beside: Beside | null = null;

  constructor(private array: Int16Array) {}

  /** The numbers of this state: good until another state is read or made, and not to be written to. */
  read(): Int16Array {
    const way: CellNumbers[] = [];
    for (let at = this.beside?.state; at; at = at.beside?.state) way.push(at);
    for (let one = way.pop(); one; one = way.pop()) one.turn();
    this.turn();
    return this.array;
  }

  /** Takes the array over from the state beside this one, which keeps what it has otherwise. */
  private turn(): void {
    if (!this.beside) return;
    const { state, cells, numbers } = this.beside;
    const { array } = state;
    const were = numbers.map((number, k) => {
      const was = array[cells[k]];
      array[cells[k]] = number;
      return was;
    });
    state.beside = { state: this, cells, numbers: were };
    state.array = NONE;
    this.array = array;
    this.beside = null;
  }

  /** The state that follows on this one: `change` writes into the numbers and says at which cells, each once, and what they bore. */
  changed(change: (numbers: Int16Array) => Renumbered): { readonly now: CellNumbers } & Renumbered {
    const array = this.read();
    const { cells, were } = change(array);
    const now = new CellNumbers(array);
    this.array = NONE;
    this.beside = { state: now, cells, numbers: were };
    return { now, cells, were };
  }
}

/** What a state has while another has the array. */
const NONE = new Int16Array();
