/**
 * The finder's effects around its pure state: waiting for a pause in typing, asking, cancelling
 * what is outdated. Time and the asking itself are handed in, so it is tested without a browser.
 */

import type { Suggestion, Suggestions } from "../service";
import { ENGLISH, type Words } from "../words";
import {
  type Action,
  type FinderState,
  type Option,
  initial,
  noteOn,
  onlyRow,
  options,
  question,
  reduce,
} from "./state";

export const PAUSE_MS = 110;
export const SLOW_MS = 1500;

export interface Question {
  text: string;
  within: string | null;
  after: string | null;
  /** Whether to look in the countries beside the chosen one. */
  elsewhere: boolean;
}

export interface FinderSettings {
  /** Whether a group can be taken as far as it goes. */
  takesGroups: boolean;
  /** Whether there are other countries to look in where the chosen one has nothing. */
  looksElsewhere: boolean;
  /** What to say before rows of other countries. */
  elsewhereNote: string;
  words: Words;
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
    private readonly settings: () => FinderSettings = () => ({
      takesGroups: false,
      looksElsewhere: false,
      elsewhereNote: "",
      words: ENGLISH,
    }),
  ) {}

  /** The rows as they are to be shown. */
  get options(): Option[] {
    return options(this.state, this.settings().takesGroups);
  }

  type(text: string): void {
    this.dispatch({ type: "typed", text });
    if (!this.state.groups.length) this.typed = text;
    this.cancel();
    if (question(this.state) || this.state.groups.length) {
      this.waiting = setTimeout(() => void this.search(false), PAUSE_MS);
    }
  }

  move(by: 1 | -1): void {
    this.dispatch({ type: "moved", by, count: this.options.length });
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
    const option = this.options[at];
    if (!option) return;
    this.cancel();
    if (option.type === "back") this.back();
    else if (option.type === "more") void this.search(true);
    else if (option.type === "take") this.take(option.group);
    else if (option.row.count > 1) {
      this.dispatch({ type: "groupOpened", group: option.row });
      void this.search(false);
    } else {
      this.dispatch({ type: "picked", label: option.row.label });
      this.picked(option.row, this.typed);
    }
  }

  /** Chooses the only row there is; does nothing where there are several, or none. */
  chooseOnly(): void {
    const at = onlyRow(this.state, this.settings().takesGroups);
    if (at >= 0) this.choose(at);
  }

  /** Puts a text into the input, as it stood there before; nothing is searched. */
  restore(text: string, typed: string): void {
    this.cancel();
    this.typed = typed;
    this.dispatch({ type: "restored", text });
  }

  /** Takes a group as far as it goes; what was typed inside it comes along. */
  private take(group: Suggestion): void {
    const typed = [this.typed, question(this.state)].filter(Boolean).join(" ");
    this.dispatch({ type: "picked", label: group.label });
    this.picked(group, typed);
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
    this.dispatch({ type: "requested" });
    const request = this.state.request;
    const slow = setTimeout(() => this.dispatch({ type: "slow", request }), SLOW_MS);
    try {
      const within = this.state.groups.at(-1)?.id ?? null;
      const asking = { text: question(this.state), within, after, elsewhere: false };
      let answer = await this.ask(asking, controller.signal);
      let note = noteOn(answer, this.settings().words);
      if (!answer.suggestions.length && within === null && this.settings().looksElsewhere) {
        answer = await this.ask({ ...asking, elsewhere: true }, controller.signal);
        note = [this.settings().elsewhereNote, noteOn(answer, this.settings().words)].filter(Boolean).join(" ");
      }
      const { suggestions: rows } = answer;
      this.dispatch({ type: "answered", request, rows, after: answer.after, more, note });
    } catch {
      if (!controller.signal.aborted) this.dispatch({ type: "failed", request });
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
