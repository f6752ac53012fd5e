/**
 * The finder's effects around its pure state: waiting for a pause in typing, asking, cancelling
 * what is outdated. Time and the asking itself are handed in, so it is tested without a browser.
 */

import type { Suggestion, Suggestions } from "../service";
import { type Action, type FinderState, initial, noteOn, options, question, reduce } from "./state";

export const PAUSE_MS = 110;
export const SLOW_MS = 1500;

export interface Question {
  text: string;
  within: string | null;
  after: string | null;
}

export type Ask = (question: Question, signal: AbortSignal) => Promise<Suggestions>;

export class FinderEngine {
  state: FinderState = initial;
  /** What was typed at first, before groups were opened: kept with the captured address. */
  typed = "";
  private waiting: ReturnType<typeof setTimeout> | undefined;
  private running: AbortController | undefined;

  constructor(
    private readonly ask: Ask,
    private readonly changed: (state: FinderState) => void,
    private readonly picked: (row: Suggestion, typed: string) => void,
  ) {}

  type(text: string): void {
    this.dispatch({ type: "typed", text });
    if (!this.state.groups.length) this.typed = text;
    this.cancel();
    if (question(this.state) || this.state.groups.length) {
      this.waiting = setTimeout(() => void this.search(false), PAUSE_MS);
    }
  }

  move(by: 1 | -1): void {
    this.dispatch({ type: "moved", by });
  }

  point(at: number): void {
    if (at !== this.state.active) this.dispatch({ type: "pointed", at });
  }

  show(): void {
    this.dispatch({ type: "shown" });
  }

  hide(): void {
    this.dispatch({ type: "hidden" });
  }

  /** Chooses a row of the list: picks an address, opens a group, goes back, or fetches more. */
  choose(at: number): void {
    const option = options(this.state)[at];
    if (!option) return;
    this.cancel();
    if (option.type === "back") this.back();
    else if (option.type === "more") void this.search(true);
    else if (option.row.count > 1) {
      this.dispatch({ type: "groupOpened", group: option.row });
      void this.search(false);
    } else {
      this.dispatch({ type: "picked", label: option.row.label });
      this.picked(option.row, this.typed);
    }
  }

  /** Leaves the innermost group. */
  back(): void {
    const outermost = this.state.groups.length === 1;
    this.dispatch({ type: "wentBack" });
    if (outermost) this.dispatch({ type: "typed", text: this.typed });
    void this.search(false);
  }

  /** Stops everything that is under way. */
  cancel(): void {
    clearTimeout(this.waiting);
    this.running?.abort();
  }

  private async search(more: boolean): Promise<void> {
    this.cancel();
    const controller = new AbortController();
    this.running = controller;
    const after = more ? this.state.after : null;
    this.dispatch({ type: "asked" });
    const asked = this.state.asked;
    const slow = setTimeout(() => this.dispatch({ type: "slow", asked }), SLOW_MS);
    try {
      const within = this.state.groups.at(-1)?.id ?? null;
      const answer = await this.ask(
        { text: question(this.state), within, after },
        controller.signal,
      );
      this.dispatch({
        type: "answered",
        asked,
        rows: answer.suggestions,
        after: answer.after,
        more,
        note: noteOn(answer),
      });
    } catch {
      if (!controller.signal.aborted) this.dispatch({ type: "failed", asked });
    } finally {
      clearTimeout(slow);
    }
  }

  private dispatch(action: Action): void {
    const next = reduce(this.state, action);
    if (next === this.state) return;
    this.state = next;
    this.changed(next);
  }
}
