// One at a time, and of those who wait only the newest: what is older would be worked out for nobody.

/** Lets in one at a time. */
export class Turns {
  private isTaken = false;
  private waiting: ((isLetIn: boolean) => void) | null = null;

  /** Waits for its turn, and works then; null where somebody newer came to wait. */
  async take<T>(work: () => Promise<T>): Promise<T | null> {
    if (this.isTaken && !(await this.waits())) return null;
    this.isTaken = true;
    try {
      return await work();
    } finally {
      const next = this.waiting;
      this.waiting = null;
      // Who waits is let in with the door still shut: nobody who comes meanwhile slips in before.
      if (next) next(true);
      else this.isTaken = false;
    }
  }

  private waits(): Promise<boolean> {
    this.waiting?.(false);
    return new Promise((resolve) => (this.waiting = resolve));
  }
}
