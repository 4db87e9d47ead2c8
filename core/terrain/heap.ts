/** A binary heap of cells by key, lowest first, on flat arrays that grow as needed. */
export class CellHeap {
  private keys = new Float64Array(1024);
  private cells = new Int32Array(1024);
  size = 0;

  push(key: number, cell: number): void {
    if (this.size === this.keys.length) this.grow();
    let p = this.size++;
    while (p > 0) {
      const q = (p - 1) >> 1;
      if (this.keys[q] <= key) break;
      this.keys[p] = this.keys[q];
      this.cells[p] = this.cells[q];
      p = q;
    }
    this.keys[p] = key;
    this.cells[p] = cell;
  }

  /** The cell with the lowest key; -1 when there is none. */
  pop(): number {
    if (this.size === 0) return -1;
    const top = this.cells[0];
    const key = this.keys[--this.size];
    const cell = this.cells[this.size];
    let p = 0;
    for (let c = 1; c < this.size; c = 2 * p + 1) {
      if (c + 1 < this.size && this.keys[c + 1] < this.keys[c]) c++;
      if (this.keys[c] >= key) break;
      this.keys[p] = this.keys[c];
      this.cells[p] = this.cells[c];
      p = c;
    }
    this.keys[p] = key;
    this.cells[p] = cell;
    return top;
  }

  private grow(): void {
    const [keys, cells] = [new Float64Array(2 * this.keys.length), new Int32Array(2 * this.cells.length)];
    keys.set(this.keys);
    cells.set(this.cells);
    this.keys = keys;
    this.cells = cells;
  }
}
