/**
 * `<anchorline-form>`: a whole form, to be filled by anybody.
 *
 * Attributes: `form` (its key), `access` (a browser key), `base` (the service's address), `draft`
 * (fill the draft), `dry-run` (submitting keeps nothing and shows what would be kept), `level` (of
 * the heading, 1 to 4).
 * Events, which bubble: `anchorline-filled`, `anchorline-submitted`, `anchorline-dry-run`.
 */

import { make, shadowOf } from "../dom";
import {
  type Connection,
  type FillAnswer,
  type Place,
  ServiceError,
  call,
  connectionOf,
  idempotencyKey,
  insistently,
  path,
} from "../service";
import { checkAttributes, isSetupError, warnOnce } from "../setup";
import { BlockView, isBlock } from "./block";
import { FieldView } from "./field";
import { type FormLogic, today, workOut } from "./logic";
import { OutputView } from "./output";
import { wantedLanguages } from "./languages";
import { type Field, type FormDocument, type Slot, type Value, itemsOf } from "./model";
import { SlotView } from "./slot";
import { formStyle } from "./style";

const ATTRIBUTES = ["form", "access", "base", "draft", "dry-run", "level"];

/** What `anchorline-submitted` carries: the record that was made. */
export interface SubmittedDetail {
  id?: string;
}

/** What `anchorline-filled` carries. */
export interface FilledDetail {
  slot: string;
  label: string;
  answer: FillAnswer;
}

export class FormElement extends HTMLElement {
  /** How to reach the service; set instead of `access` and `base` by a page that signs in. */
  connection: Connection | null = null;
  private document: FormDocument | null = null;
  private logic: FormLogic | null = null;
  private fields = new Map<string, FieldView>();
  private slots: SlotView[] = [];
  private blocks: BlockView[] = [];
  private outputs: OutputView[] = [];
  private readonly alert = make("div", { role: "alert", class: "alert" });
  private readonly send = make("button", { type: "submit", class: "send" }, "Send");
  private onceKey = idempotencyKey();
  private sent = "";

  connectedCallback(): void {
    const root = shadowOf(this, formStyle);
    if (root.childNodes.length) return;
    checkAttributes(this, ATTRIBUTES);
    if (!this.key) warnOnce(this, "it needs “form”, the key of a form.");
    if (!this.connection && !this.hasAttribute("access")) {
      warnOnce(this, "it needs “access”, a browser key of the service.");
    }
    void this.load();
  }

  /** Loads the form anew; what was typed is gone. */
  async load(): Promise<void> {
    const root = shadowOf(this, formStyle);
    root.replaceChildren(make("p", { role: "status", class: "loading" }, "Loading the form …"));
    try {
      const address = path`forms/${this.key}` + (this.draft ? "?draft=true" : "");
      const answer = await insistently(() =>
        call<{ document: FormDocument; logic: FormLogic }>(connectionOf(this), address),
      );
      this.logic = answer.logic;
      this.show(answer.document);
    } catch (error) {
      const again = make("button", { type: "button", class: "link" }, "Try again");
      again.addEventListener("click", () => void this.load());
      // How the page is set up concerns who built it; the others can only try again.
      const isSetup = error instanceof ServiceError && isSetupError(this, error);
      const detail = isSetup
        ? "The page that it stands on is not set up for it yet."
        : error instanceof Error ? error.message : String(error);
      root.replaceChildren(
        make("div", { role: "alert", class: "alert shown" }, `The form cannot be shown. ${detail} `, again),
      );
    }
  }

  private get key(): string {
    return this.getAttribute("form") ?? "";
  }

  private get draft(): boolean {
    return this.hasAttribute("draft");
  }

  private show(document: FormDocument): void {
    this.document = document;
    this.fields = new Map();
    this.slots = [];
    this.blocks = [];
    this.outputs = [];
    this.alert.replaceChildren();
    this.alert.classList.remove("shown");
    this.send.textContent = this.hasAttribute("dry-run") ? "Try sending it" : "Send";
    const form = make("form", { novalidate: true, "aria-labelledby": "title" });
    form.append(...itemsOf(document).map((item) => this.view(item)));
    form.append(this.alert, make("div", { class: "actions" }, this.send));
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      void this.submit();
    });
    const intro = document.intro ? make("p", { class: "intro" }, document.intro) : null;
    const heading = this.heading({ id: "title" }, document.title);
    shadowOf(this, formStyle).replaceChildren(heading, ...(intro ? [intro] : []), form);
    this.workOut();
  }

  private view(item: Field | Slot): HTMLElement {
    const changed = (): void => this.workOut();
    if (!("parts" in item) && item.type === "formula") {
      const output = new OutputView(item);
      this.outputs.push(output);
      return output.element;
    }
    if (!("parts" in item) && isBlock(item)) {
      const block = new BlockView(item, this.level);
      this.blocks.push(block);
      return block.element;
    }
    if (!("parts" in item)) {
      const field = new FieldView(item, changed);
      this.fields.set(item.key, field);
      return field.element;
    }
    const slot = new SlotView(item, {
      form: this.key,
      draft: this.draft,
      connection: connectionOf(this),
      languages: wantedLanguages(
        this.getAttribute("lang"),
        navigator.languages,
        document.documentElement.lang,
      ),
      fields: this.fields,
      changed,
      isWritten: JSON.stringify(this.logic).includes('"call":"ADDRESS'),
      emit: (name, detail) => this.emit(name, detail),
    });
    for (const part of slot.fields) this.fields.set(part.key, part);
    this.slots.push(slot);
    return slot.element;
  }

  private values(): Record<string, Value> {
    return Object.fromEntries([...this.fields].map(([key, field]) => [key, field.value]));
  }

  /** Shows what is to be shown, marks what is needed, and works formulas out. */
  private workOut(): void {
    if (!this.document || !this.logic) return;
    const slots = Object.fromEntries(this.slots.map((slot) => [slot.slot.key, slot.addressValue]));
    const worked = workOut(this.document, this.logic, { values: this.values(), slots, today: today() });
    const parts = new Set(this.slots.flatMap((slot) => slot.fields));
    for (const [key, field] of this.fields) {
      // Parts of slots are shown and hidden by their slot.
      if (!parts.has(field)) field.shown = field.field.type !== "hidden" && worked.shown.has(key);
      field.needed = worked.needed.has(key);
    }
    for (const block of this.blocks) block.shown = worked.shown.has(block.field.key);
    for (const output of this.outputs) {
      output.show(worked.values[output.field.key], worked.shown.has(output.field.key));
    }
    for (const slot of this.slots) slot.shown = worked.shown.has(slot.slot.key);
  }

  private async submit(): Promise<void> {
    if (this.send.disabled) return;
    this.send.disabled = true;
    // What was picked last is what is sent: its answer may still be on its way.
    await Promise.all(this.slots.map((slot) => slot.settled()));
    for (const field of this.fields.values()) field.setProblem(null);
    for (const slot of this.slots) slot.setProblem(null);
    const body = this.request();
    // The same content sent again makes no second record; other content is another request.
    const content = JSON.stringify(body);
    if (content !== this.sent) this.onceKey = idempotencyKey();
    this.sent = content;
    const dryRun = this.hasAttribute("dry-run");
    try {
      const sending = (): Promise<SubmittedDetail> =>
        call<SubmittedDetail>(connectionOf(this), path`forms/${this.key}/` + (dryRun ? "dry-run" : "records"), {
          body,
          headers: dryRun ? {} : { "Idempotency-Key": this.onceKey },
        });
      // The same key comes along each time, so what was kept the first time is not kept twice.
      const answer = await insistently(sending, () =>
        this.warn("The service does not answer just now. Nothing that you typed is lost: it is sent again by itself …"),
      );
      this.succeeded(answer, dryRun);
    } catch (error) {
      this.failed(error);
    } finally {
      this.send.disabled = false;
    }
  }

  private request(): { values: Record<string, Value>; slots: Record<string, unknown> } {
    const shown = this.slots.filter((slot) => slot.shown);
    const hiddenParts = new Set(
      this.slots.filter((slot) => !slot.shown).flatMap((slot) => slot.fields),
    );
    const values = [...this.fields.values()].filter(
      (field) => field.value !== null && !hiddenParts.has(field),
    );
    return {
      values: Object.fromEntries(values.map((field) => [field.key, field.value])),
      slots: Object.fromEntries(shown.map((slot) => [slot.slot.key, slot.input])),
    };
  }

  private succeeded(answer: SubmittedDetail, dryRun: boolean): void {
    this.sent = "";
    if (dryRun) {
      this.warn("Nothing is wrong, and nothing was kept.");
      this.alert.classList.add("fine");
      this.emit("dry-run", answer);
      return;
    }
    const again = make("button", { type: "button", class: "link" }, "Fill in another one");
    again.addEventListener("click", () => void this.load());
    const thanks = this.document?.thanks || "Thank you. It has been sent.";
    const heading = this.heading({ tabindex: "-1" }, thanks);
    shadowOf(this, formStyle).replaceChildren(
      make(
        "div",
        { class: "thanks" },
        heading,
        make("p", {}, "Reference: ", make("code", {}, answer.id ?? "")),
        again,
      ),
    );
    heading.focus();
    this.emit("submitted", answer);
  }

  private failed(error: unknown): void {
    const problem = error instanceof ServiceError ? error : new ServiceError(0, String(error));
    if (problem.status === 0 || problem.status >= 500) {
      this.warn(`${problem.message} Nothing that you typed is lost: send it again in a moment.`);
      this.send.focus();
      return;
    }
    const others = problem.places.filter((place) => !this.place(place));
    const marked = this.inOrder().filter((one) => one.hasProblem);
    const count = marked.length + others.length;
    if (!count) this.warn(problem.message);
    else {
      const things = count === 1 ? "One thing needs" : `${count} things need`;
      this.warn([`${things} your attention.`, ...others.map((o) => o.detail)].join(" "));
    }
    (marked.find((one) => one.shown) ?? { focus: () => this.send.focus() }).focus();
  }

  /** Everything that can have a problem, in the order on the form. */
  private inOrder(): (FieldView | SlotView)[] {
    if (!this.document) return [];
    const slots = new Map(this.slots.map((slot) => [slot.slot.key, slot]));
    return itemsOf(this.document).flatMap((item) => {
      const slot = slots.get(item.key);
      return slot && "parts" in item ? [slot, ...slot.fields] : (this.fields.get(item.key) ?? []);
    });
  }

  /** Shows a problem at its field or slot; false where there is none for it. */
  private place(place: Place): boolean {
    const [, kind, key] = place.pointer.split("/");
    const field = kind === "values" ? this.fields.get(key ?? "") : undefined;
    const slot = this.slots.find((s) => (field ? s.fields.includes(field) : s.slot.key === key));
    if (!field) {
      slot?.setProblem(place.detail);
      return slot !== undefined;
    }
    slot?.unfold();
    field.shown = true;
    field.setProblem(place.detail);
    return true;
  }

  private get level(): number {
    return Number(this.getAttribute("level") ?? "1");
  }

  private heading(attributes: Record<string, string>, text: string): HTMLElement {
    const name = (["h1", "h2", "h3", "h4"] as const)[this.level - 1] ?? "h1";
    return make(name, { class: "title", ...attributes }, text);
  }

  private warn(text: string): void {
    this.alert.classList.remove("fine");
    this.alert.classList.add("shown");
    this.alert.replaceChildren(text);
  }

  private emit(name: string, detail: unknown): void {
    this.dispatchEvent(
      new CustomEvent(`anchorline-${name}`, { detail, bubbles: true, composed: true }),
    );
  }
}
