/** Work of which only the latest counts: what was begun earlier is cancelled and its end ignored. */

export class Latest {
  private number = 0;
  private running: AbortController | undefined;

  /**
   * The end of some work; null where other work was begun, or all was dropped, in the meantime.
   *
   * Work that fails then is null, too; otherwise its error goes to the caller.
   */
  async run<Result>(work: (signal: AbortSignal) => Promise<Result>): Promise<Result | null> {
    this.drop();
    const number = this.number;
    const controller = new AbortController();
    this.running = controller;
    try {
      const result = await work(controller.signal);
      return number === this.number ? result : null;
    } catch (error) {
      if (number !== this.number) return null;
      throw error;
    }
  }

  /** Cancels what is under way: its end no longer counts. */
  drop(): void {
    this.number += 1;
    this.running?.abort();
  }
}
