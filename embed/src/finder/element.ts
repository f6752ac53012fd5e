/**
 * `<anchorline-finder>`: the box in which one types and picks; an ARIA combobox with a listbox.
 *
 * Attributes: `label`, `country` and `kinds` (with commas), `elsewhere` (countries to look in where
 * `country` has nothing), `takes-groups` (a group can be picked, too: its `row.count` is then more
 * than 1), `practice` (made-up addresses alone, for trying out), `practice-word` (these where it is typed first), `access` (a key), `base` (the service's address).
 * Events, which bubble: `anchorline-pick` with {id, label, typed, row}, `anchorline-status` with
 * {status}, `anchorline-by-hand`.
 */

import { make, setAttributes, shadowOf } from "../dom";
import {
  type Address,
  type Connection,
  ServiceError,
  type Suggestion,
  type Suggestions,
  call,
  connectionOf,
} from "../service";
import { checkAttributes, isSetupError, warnOnce } from "../setup";
import { ENGLISH, type Words, wordsOf } from "../words";
import { FinderEngine, type Question } from "./engine";
import { practiceText } from "./practice";
import { suggestionContent } from "./row";
import { type FinderState, type Option, type Status, question } from "./state";
import { finderStyle } from "./style";

const ANNOUNCED: Record<Status, (state: FinderState, words: Words) => string> = {
  idle: () => "",
  waiting: () => "",
  slow: (_, words) => words.say("stillLooking"),
  ready: (state, words) => {
    const counted = words.say("suggestions", { count: state.rows.length });
    return state.note ? `${state.note} ${counted}` : counted;
  },
  empty: (_, words) => words.say("nothingFound"),
  failed: (_, words) => words.say("lookupSilent"),
};

const ATTRIBUTES = [
  "label", "country", "elsewhere", "kinds", "language", "datasets", "near", "practice", "practice-word", "takes-groups", "access", "base",
  "filled",
];

/** What `anchorline-pick` carries. */
export interface PickDetail {
  /** Of the address; of a group (a street, a postcode …) where groups can be taken. */
  id: string;
  label: string;
  /** What was typed to find it. */
  typed: string;
  /** The suggestion itself; its `count` is 1 for an address. */
  row: Suggestion;
}

export class FinderElement extends HTMLElement {
  static observedAttributes = ["label"];
  /** How to reach the service; set instead of `access` and `base` by a page that signs in. */
  connection: Connection | null = null;
  /** In which language it speaks; found from the page's where a form does not say. */
  words: Words | null = null;

  private readonly input = make("input", {
    id: "input",
    type: "text",
    role: "combobox",
    autocomplete: "off",
    autocapitalize: "off",
    spellcheck: "false",
    enterkeyhint: "search",
    maxlength: "200",
    "aria-autocomplete": "list",
    "aria-expanded": "false",
    "aria-controls": "list",
    "aria-describedby": "status",
  });
  private readonly caption = make("label", { for: "input" });
  private readonly list = make("ul", { id: "list", role: "listbox", tabindex: "-1" });
  /** The same as is said, for the eye, where the list covers what is below. */
  private readonly note = make("p", { class: "note", "aria-hidden": "true", hidden: true });
  private readonly popup = make("div", { class: "popup", hidden: true }, this.note, this.list);
  private readonly status = make("p", { id: "status", role: "status", class: "status" });
  private readonly problem = make("p", { id: "problem", class: "problem", hidden: true });
  private readonly byHand = make(
    "button",
    { type: "button", class: "by-hand" },
  );
  private shownStatus: Status = "idle";
  private readonly engine = new FinderEngine(
    (question, signal) => this.ask(question, signal),
    (state) => this.render(state),
    (row, typed) => this.emit("pick", { id: row.id, label: row.label, typed, row }),
    () => ({
      takesGroups: this.hasAttribute("takes-groups"),
      looksElsewhere: Boolean(this.getAttribute("elsewhere")),
      elsewhereNote: this.spoken.say("notFoundIn", { country: this.countryNames(this.getAttribute("country")) }),
      words: this.spoken,
    }),
  );

  connectedCallback(): void {
    const root = shadowOf(this, finderStyle);
    if (root.childNodes.length) return;
    checkAttributes(this, ATTRIBUTES);
    if (!this.connection && !this.hasAttribute("access")) {
      warnOnce(this, "it needs “access”, a browser key of the service.");
    }
    this.nameIt();
    if (!this.words) void this.learnWords();
    const box = make("div", { class: "box" }, this.input, this.popup);
    const footer = make("div", { class: "footer" }, this.status, this.byHand);
    root.append(this.caption, box, this.problem, footer);
    this.input.addEventListener("input", (event) => {
      if (this.hasProblem) this.setProblem(null);
      // While a word is being composed, what stands in the input is not yet what is meant.
      if (!(event as InputEvent).isComposing) this.engine.type(this.input.value);
    });
    this.input.addEventListener("compositionend", () => this.engine.type(this.input.value));
    this.input.addEventListener("keydown", (event) => this.onKey(event));
    this.input.addEventListener("focus", () => this.engine.show());
    this.input.addEventListener("click", () => this.engine.show());
    this.input.addEventListener("blur", () => this.engine.hide());
    this.byHand.addEventListener("click", () => this.emit("by-hand", {}));
  }

  attributeChangedCallback(): void {
    this.nameIt();
  }

  disconnectedCallback(): void {
    this.engine.cancel();
  }

  /** What stands in the input. */
  get text(): string {
    return this.input.value;
  }
  get value(): string { return this.text; }
  set value(text: string) { this.restore(text, text); }

  /** Empties the input; nothing is asked, and nothing else is emptied. */
  clear(): void {
    this.value = "";
    this.removeAttribute("filled");
  }

  /** What was typed before groups were opened or an address picked. */
  get typed(): string {
    return this.engine.typed;
  }

  /** Puts back what stood in the input, and what had been typed to come to it. */
  restore(text: string, typed: string): void {
    this.engine.restore(text, typed);
  }

  /** Says what is wrong with what is captured here, or takes that away. */
  setProblem(detail: string | null): void {
    this.problem.textContent = detail ?? "";
    this.problem.hidden = detail === null;
    setAttributes(this.input, {
      "aria-invalid": detail === null ? null : "true",
      "aria-describedby": detail === null ? "status" : "problem status",
    });
  }

  get problemText(): string {
    return this.problem.textContent ?? "";
  }

  get hasProblem(): boolean {
    return !this.problem.hidden;
  }

  override focus(): void {
    this.input.focus();
  }

  private get spoken(): Words {
    return this.words ?? ENGLISH;
  }

  /** Speaks as the page around it does, as soon as its words are there. */
  private async learnWords(): Promise<void> {
    this.words = await wordsOf(this.closest("[lang]")?.getAttribute("lang") || "en");
    this.nameIt();
  }

  private countryNames(codes: string | null): string {
    const names = new Intl.DisplayNames([this.spoken.language], { type: "region" });
    return (codes ?? "").split(",").filter(Boolean).map((code) => names.of(code) ?? code).join(", ");
  }

  private nameIt(): void {
    const label = this.getAttribute("label") ?? this.spoken.say("findAddress");
    this.caption.textContent = label;
    this.byHand.textContent = this.spoken.say("byHand");
    this.list.setAttribute("aria-label", this.spoken.say("suggestionsFor", { label }));
  }

  /** A whole address, for one's own inputs: `await finder.address(event.detail.id)`. */
  address(id: string): Promise<Address> {
    return call<Address>(connectionOf(this), `addresses/${encodeURIComponent(id)}`);
  }

  private ask(question: Question, signal: AbortSignal): Promise<Suggestions> {
    const practised = practiceText(question.text, this.getAttribute("practice-word"));
    const query = new URLSearchParams({ q: practised ?? question.text, limit: question.within ? "50" : "8" });
    for (const name of ["country", "kinds", "language", "datasets", "near"]) {
      const value = this.getAttribute(name === "country" && question.elsewhere ? "elsewhere" : name);
      // Inside a group everything may be seen: the kinds are for the first choice.
      if (value && !(name === "kinds" && question.within)) query.set(name, value);
    }
    if (practised !== null || this.hasAttribute("practice") || question.within?.startsWith("practice:")) {
      query.set("practice", "true");
      query.delete("datasets");
    }
    if (question.within) query.set("within", question.within);
    if (question.after) query.set("after", question.after);
    const asking = call<Suggestions>(connectionOf(this), `suggest?${query}`, { signal });
    asking.catch((error: unknown) => {
      if (error instanceof ServiceError) isSetupError(this, error);
    });
    return asking;
  }

  private onKey(event: KeyboardEvent): void {
    // During composition the keys belong to the input method (229: some browsers' sign of it).
    if (event.isComposing || event.keyCode === 229) return;
    const { state } = this.engine;
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      this.engine.move(event.key === "ArrowDown" ? 1 : -1);
    } else if (event.key === "Enter") {
      // Never submits the form around it: what was typed here is a search.
      event.preventDefault();
      if (state.open && state.active >= 0) this.engine.choose(state.active);
      else if (state.open) this.engine.chooseOnly();
    } else if (event.key === "Escape" && state.open) {
      event.preventDefault();
      event.stopPropagation();
      if (state.groups.length) this.engine.back();
      else this.engine.hide();
    }
  }

  private render(state: FinderState): void {
    if (this.input.value !== state.text) this.input.value = state.text;
    const rows = this.engine.options;
    const open = state.open && rows.length > 0;
    this.list.replaceChildren(...rows.map((option, at) => this.row(option, at, state)));
    this.popup.hidden = !open;
    this.note.hidden = !state.note;
    this.note.textContent = state.note;
    setAttributes(this.input, {
      "aria-expanded": String(open),
      "aria-activedescendant": open && state.active >= 0 ? `option-${state.active}` : null,
      "aria-busy": state.status === "waiting" || state.status === "slow" ? "true" : null,
    });
    this.list.querySelector("[aria-selected=true]")?.scrollIntoView({ block: "nearest" });
    this.announce(state);
  }

  private announce(state: FinderState): void {
    if (state.status === "waiting") return; // what was said holds until there is an answer
    const text = ANNOUNCED[state.status](state, this.spoken);
    if (this.status.textContent !== text) this.status.textContent = text;
    this.status.classList.toggle("quiet", state.status === "ready");
    if (state.status !== this.shownStatus) {
      this.shownStatus = state.status;
      this.emit("status", { status: state.status });
    }
  }

  private row(option: Option, at: number, state: FinderState): HTMLElement {
    const active = at === state.active;
    const item = make("li", {
      id: `option-${at}`,
      role: "option",
      class: option.type,
      "aria-selected": String(active),
    });
    item.append(...this.rowContent(option));
    // Pressing must not take the focus away, or the list would close before the click.
    item.addEventListener("pointerdown", (event) => event.preventDefault());
    item.addEventListener("mousemove", () => this.engine.point(at));
    item.addEventListener("click", () => this.engine.choose(at));
    return item;
  }

  private rowContent(option: Option): Node[] {
    const words = this.spoken;
    if (option.type === "back") return [make("span", {}, words.say("backFrom", { group: option.group.label }))];
    if (option.type === "more") return [make("span", {}, words.say("showMore"))];
    if (option.type === "take") return [make("span", {}, this.takes(option.group))];
    const { row } = option;
    const chosen = (this.getAttribute("country") || row.country_code).split(",");
    const country = chosen.includes(row.country_code) ? "" : this.countryNames(row.country_code);
    return suggestionContent(row, country, words);
  }

  /** What taking a group as far as it goes comes to: with the number that was typed inside it, or not. */
  private takes(group: Suggestion): string {
    const number = question(this.engine.state);
    if (!number) return this.spoken.say("takeGroup", { group: group.label });
    return this.spoken.say("takeTyped", { number, group: group.label });
  }

  private emit(name: string, detail: Record<string, unknown>): void {
    this.dispatchEvent(
      new CustomEvent(`anchorline-${name}`, { detail, bubbles: true, composed: true }),
    );
  }
}
