/**
 * `<anchorline-finder>`: the box in which one types and picks; an ARIA combobox with a listbox.
 *
 * Attributes: `label`, `country` and `kinds` (with commas), `access` (a key), `base` (the
 * service's address). Events, which bubble: `anchorline-pick` with {id, label, typed},
 * `anchorline-status` with {status}, `anchorline-by-hand`.
 */

import { make, setAttributes, shadowOf } from "../dom";
import { highlighted } from "../highlight";
import { type Connection, type Suggestion, type Suggestions, call, connectionOf } from "../service";
import { FinderEngine, type Question } from "./engine";
import { type FinderState, type Option, type Status, options } from "./state";
import { finderStyle } from "./style";

const SAID: Record<Status, (state: FinderState) => string> = {
  idle: () => "",
  waiting: () => "",
  slow: () => "Still looking. You can also type the address in yourself.",
  ready: (state) => {
    const count = state.rows.length;
    const counted = `${count} ${count === 1 ? "suggestion" : "suggestions"}; arrow keys to choose.`;
    return state.note ? `${state.note} ${counted}` : counted;
  },
  empty: () => "Nothing found: type it in yourself.",
  failed: () => "The address lookup does not answer. Type the address in yourself.",
};

export class FinderElement extends HTMLElement {
  static observedAttributes = ["label"];
  /** How to reach the service; set instead of `access` and `base` by a page that signs in. */
  connection: Connection | null = null;

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
    "aria-describedby": "said",
  });
  private readonly caption = make("label", { for: "input" });
  private readonly list = make("ul", { id: "list", role: "listbox" });
  /** The same as is said, for the eye, where the list covers what is below. */
  private readonly note = make("p", { class: "note", "aria-hidden": "true", hidden: true });
  private readonly popup = make("div", { class: "popup", hidden: true }, this.note, this.list);
  private readonly said = make("p", { id: "said", role: "status", class: "said" });
  private readonly byHand = make(
    "button",
    { type: "button", class: "by-hand" },
    "Type the address in myself",
  );
  private shownStatus: Status = "idle";
  private readonly engine = new FinderEngine(
    (question, signal) => this.ask(question, signal),
    (state) => this.render(state),
    (row, typed) => this.tell("pick", { id: row.id, label: row.label, typed, row }),
  );

  connectedCallback(): void {
    const root = shadowOf(this, finderStyle);
    if (root.childNodes.length) return;
    this.nameIt();
    const box = make("div", { class: "box" }, this.input, this.popup);
    root.append(this.caption, box, make("div", { class: "below" }, this.said, this.byHand));
    this.input.addEventListener("input", (event) => {
      // While a word is being composed, what stands in the input is not yet what is meant.
      if (!(event as InputEvent).isComposing) this.engine.type(this.input.value);
    });
    this.input.addEventListener("compositionend", () => this.engine.type(this.input.value));
    this.input.addEventListener("keydown", (event) => this.onKey(event));
    this.input.addEventListener("focus", () => this.engine.show());
    this.input.addEventListener("click", () => this.engine.show());
    this.input.addEventListener("blur", () => this.engine.hide());
    this.byHand.addEventListener("click", () => this.tell("by-hand", {}));
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

  /** What was typed before groups were opened or an address picked. */
  get typed(): string {
    return this.engine.typed;
  }

  private nameIt(): void {
    this.caption.textContent = this.getAttribute("label") ?? "Find the address";
    nameList(this.list, this.caption.textContent);
  }

  private ask(question: Question, signal: AbortSignal): Promise<Suggestions> {
    const query = new URLSearchParams({ q: question.text, limit: question.within ? "50" : "8" });
    for (const name of ["country", "kinds", "language"]) {
      const value = this.getAttribute(name);
      // Inside a group everything may be seen: the kinds are for the first choice.
      if (value && !(name === "kinds" && question.within)) query.set(name, value);
    }
    if (question.within) query.set("within", question.within);
    if (question.after) query.set("after", question.after);
    return call(connectionOf(this), `suggest?${query}`, { signal });
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
    } else if (event.key === "Escape" && state.open) {
      event.preventDefault();
      event.stopPropagation();
      if (state.groups.length) this.engine.back();
      else this.engine.hide();
    }
  }

  private render(state: FinderState): void {
    if (this.input.value !== state.text) this.input.value = state.text;
    const rows = options(state);
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
    this.say(state);
  }

  private say(state: FinderState): void {
    if (state.status === "waiting") return; // what was said holds until there is an answer
    const text = SAID[state.status](state);
    if (this.said.textContent !== text) this.said.textContent = text;
    this.said.classList.toggle("quiet", state.status === "ready");
    if (state.status !== this.shownStatus) {
      this.shownStatus = state.status;
      this.tell("status", { status: state.status });
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
    item.append(...rowContent(option));
    // Pressing must not take the focus away, or the list would close before the click.
    item.addEventListener("pointerdown", (event) => event.preventDefault());
    item.addEventListener("mousemove", () => this.engine.point(at));
    item.addEventListener("click", () => this.engine.choose(at));
    return item;
  }

  private tell(name: string, detail: Record<string, unknown>): void {
    this.dispatchEvent(
      new CustomEvent(`anchorline-${name}`, { detail, bubbles: true, composed: true }),
    );
  }
}

function nameList(list: HTMLElement, name: string): void {
  list.setAttribute("aria-label", `Suggestions: ${name}`);
}

function rowContent(option: Option): Node[] {
  if (option.type === "back") return [make("span", {}, `‹ Back from ${option.group.label}`)];
  if (option.type === "more") return [make("span", {}, "Show more")];
  return suggestionContent(option.row);
}

function suggestionContent(row: Suggestion): Node[] {
  const label = make("span", { class: "label", dir: "auto" }, ...highlighted(row.label, row.matches));
  if (row.count === 1) return [label];
  const count = make("span", { class: "count" }, `${row.count.toLocaleString("en")} addresses`);
  return [label, count, make("span", { class: "opens", "aria-hidden": "true" }, "›")];
}
