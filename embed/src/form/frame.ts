/** What stands around the fields of a form: its head, what is wrong with it, its buttons. */

import { make } from "../dom";
import { type Words, directionOf } from "../words";
import type { FieldView } from "./field";
import type { SlotView } from "./slot/view";
import { idOfForm } from "./ids";

/** Something wrong that has a place on the form. */
export interface Marked {
  view: FieldView | SlotView;
  /** What people call it, and what is wrong there. */
  label: string;
  problem: string;
}

const HEADINGS = ["h1", "h2", "h3", "h4"] as const;

/** What is wrong, with the name of its place before it. */
function sentence({ label, problem }: Marked): string {
  if (problem.startsWith(label)) return problem;
  return /[?!.:：？。]$/.test(label) ? `${label} ${problem}` : `${label}: ${problem}`;
}

export class FormFrame {
  readonly goOn = make("button", { type: "submit", class: "send" });
  readonly goBack = make("button", { type: "button", class: "back" });
  private readonly alert = make("div", { role: "alert", class: "alert" });
  private readonly notice = make("div", { class: "notice", hidden: true });
  private readonly words = make("div", { class: "words" });

  constructor(private readonly level: number) {}

  /** Everything, with fields and what is beside the title inside it. */
  build(language: string, spoken: Words, inside: { above: HTMLElement; fields: HTMLElement; guard: HTMLElement | null; choice: HTMLElement | null }): HTMLElement {
    this.calm();
    this.goBack.textContent = spoken.say("back");
    const form = make("form", { novalidate: true, "aria-labelledby": idOfForm("title") });
    form.append(this.alert, this.notice, inside.above, inside.fields, ...(inside.guard ? [inside.guard] : []), make("div", { class: "actions" }, this.goOn, this.goBack));
    const head = make("div", { class: "form-head" }, this.words, inside.choice);
    return make("div", { class: "form", lang: language, dir: directionOf(language) }, head, form);
  }

  entitle(title: string, intro: string | null | undefined): void {
    this.words.replaceChildren(this.heading({ id: idOfForm("title") }, title), ...(intro ? [make("p", { class: "intro" }, intro)] : []));
  }

  heading(attributes: Record<string, string>, text: string): HTMLElement {
    return make(HEADINGS[this.level - 1] ?? "h1", { class: "title", ...attributes }, text);
  }

  /** Says what is wrong, with a way to each place. */
  warn(text: string, marked: readonly Marked[] = [], go: (one: Marked) => void = () => undefined): void {
    this.alert.classList.remove("fine");
    this.alert.classList.add("shown");
    const list = make("ul", {}, ...marked.map((one) => this.way(one, go)));
    this.alert.replaceChildren(text, ...(marked.length ? [list] : []));
  }

  /** Says that nothing is wrong. */
  approve(text: string): void {
    this.warn(text);
    this.alert.classList.add("fine");
  }

  /** Takes back what was said. */
  calm(): void {
    this.alert.classList.remove("shown");
    this.alert.replaceChildren();
  }

  /** Asks something that can be left unanswered; each answer takes the question away. */
  ask(text: string, answers: readonly (readonly [string, () => void])[]): void {
    const buttons = answers.map(([label, act]) => {
      const button = make("button", { type: "button", class: "secondary" }, label);
      button.addEventListener("click", () => {
        this.notice.hidden = true;
        act();
      });
      return button;
    });
    this.notice.hidden = false;
    this.notice.replaceChildren(make("p", {}, text), make("div", { class: "actions" }, ...buttons));
  }

  private way(one: Marked, go: (one: Marked) => void): HTMLElement {
    const link = make("a", { href: "#" }, sentence(one));
    link.addEventListener("click", (event) => {
      event.preventDefault();
      go(one);
    });
    return make("li", {}, link);
  }
}
