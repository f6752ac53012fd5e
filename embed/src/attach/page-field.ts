/** A field of a page as what a fill writes through. */

import type { Value } from "../form/model";
import type { FieldPort } from "../form/slot/port";
import type { Control } from "./controls/control";
import { findField } from "./controls/of-field";
import { type PageFieldSchema, wayInWords } from "./finding";
import type { Say } from "./say";
import type { Tree } from "./trees";

/** How long a page's own code has to make something of what was written. */
const SETTLES_MS = 60;
/** What a person does who changes a field by themselves, and who is about to. */
const CHANGES = ["input", "change"];
const BEGINS = ["keydown", "pointerdown"];

/**
 * What became of the last text: it stands there; it is `due` once the field is there and can be written; the page keeps
 * something else, or has no such option; or somebody has gone on there by themselves.
 */
export type Outcome = "held" | "due" | "refused" | "theirs";

export class PageField implements FieldPort {
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Ends when somebody goes on there by themselves, or something else is written. */
  private hold: AbortController | undefined;
  /** Whether what is heard comes from our own writing. */
  private isWriting = false;
  /** What was written last, until somebody changes it by themselves; null for nothing. */
  private written: string | null = null;
  /** The text that waits for the field to come, or to be free. */
  private due: string | null = null;
  private outcome: Outcome = "held";
  /** What the page has made of what was written last. */
  private spelt = "";
  /** In which somebody would be heard who changes it; the page may have drawn others in their place. */
  private heard: readonly HTMLElement[] = [];
  private ended: Promise<void> = Promise.resolve();
  /** Told when a text that was due has been written. */
  onLate: (() => void) | undefined;

  constructor(
    private readonly field: PageFieldSchema,
    private readonly say: Say,
  ) {}

  get key(): string {
    return this.field.key;
  }

  get label(): string {
    return this.field.label ?? this.field.key;
  }

  /** What it is on the page as it is now: pages draw their fields anew. */
  get control(): Control | null {
    const { control, count, fault } = findField(this.field);
    if (fault) this.say("selector", this.key, `the field “${this.key}”: ${fault}`);
    if (count > 1) this.say("field_several", this.key, `the field “${this.key}” was found ${count} times, and the first was taken. Say more exactly how it is found.`);
    return control;
  }

  get element(): HTMLElement | null {
    return this.control?.element ?? null;
  }

  get value(): Value {
    const { control, written } = this;
    const stands = control?.read() ?? "";
    return (written !== null && this.isOurs(control, stands, written) ? written : stands) || null;
  }

  /** Whether what stands there comes from what was written: a page may spell it in a way of its own. */
  private isOurs(control: Control | null, stands: string, written: string): boolean {
    // A list is chosen in by and by.
    if (this.due !== null || this.isWriting || this.timer !== undefined) return true;
    if (stands === "" || written === "") return stands === written;
    return this.heard.every((one) => one.isConnected) || stands === this.spelt || (control?.holds(written) ?? false);
  }

  set value(value: Value) {
    this.leave();
    this.due = null;
    const text = value === null ? "" : String(value);
    const { control } = this;
    this.written = text;
    this.outcome = "held";
    if (!control || control.lock) {
      if (!control) this.sayMissing();
      else this.sayLocked(control);
      if (text || control?.read()) this.wait(text);
    } else if (control.read() === text || (control.type === "list" && control.holds(text))) {
      this.keepHeard(control);
    } else {
      this.begin(control, text);
    }
  }

  get text(): string {
    return String(this.value ?? "");
  }

  /** What stands there on the page, as the page has it. */
  get kept(): string {
    return this.control?.read() ?? "";
  }

  /** What became of what was written last, once the page has had its time. */
  async settled(): Promise<Outcome> {
    await this.ended;
    return this.outcome;
  }

  setProblem(): void {
    // What is wrong with its fields is the page's to say.
  }

  focus(): void {
    this.element?.focus();
  }

  /** The page has changed: what is due may be written now. */
  look(): void {
    const { due } = this;
    const control = due === null ? null : this.control;
    if (due === null || !control || control.lock) return;
    this.due = null;
    this.begin(control, due);
    void this.settled().then(() => this.onLate?.());
  }

  /** Nothing more is written, and nothing listens any more. */
  leave(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.isWriting = false;
    this.hold?.abort();
    this.hold = undefined;
  }

  /** The same, and what is due is no more. */
  forget(): void {
    this.leave();
    this.due = null;
  }

  sayMissing(): void {
    const listed = (this.field.pieces ?? []).length ? (this.field.pieces ?? []).flatMap((piece) => piece.find ?? []) : (this.field.find ?? []);
    const { other } = findField(this.field);
    const instead = other ? ` There is a ${other} instead, into which nothing can be written.` : "";
    const frame = !other && hasForeignFrame() ? " It may stand in a frame of another origin, which this script cannot reach: attach it on the page in that frame." : "";
    this.say("field_missing", this.key, `the field “${this.key}” is not on this page: looked for ${listed.map(wayInWords).join(", ")}.${instead}${frame} Mend how it is found, or take it out of the target.`);
  }

  private wait(text: string): void {
    this.due = text;
    this.outcome = "due";
  }

  private begin(control: Control, text: string): void {
    this.listen(control);
    const signal = this.hold!.signal;
    this.ended = this.write(control, text, signal);
  }

  /** Whoever types there meanwhile knows better: their text is not written over. */
  private listen(control: Control): void {
    this.hold = new AbortController();
    const { signal } = this.hold;
    this.heard = control.elements;
    for (const element of control.elements) {
      for (const type of CHANGES) element.addEventListener(type, (event) => event.isTrusted && !this.isWriting && this.takenOver(), { signal });
      for (const type of BEGINS) element.addEventListener(type, (event) => event.isTrusted && this.timer !== undefined && this.theirs(), { signal });
    }
  }

  private async write(control: Control, text: string, signal: AbortSignal): Promise<void> {
    for (let again = 0; again < 2; again++) {
      this.isWriting = true;
      const isThere = await control.write(text, signal);
      if (signal.aborted) return;
      this.isWriting = false;
      if (!isThere) {
        this.refuse(`the list “${this.key}” has no option for ${text ? "a value of the mapping" : "nothing, and could not be emptied"}. Change the mapping, or how an option is chosen.`, "option_missing");
        return;
      }
      await new Promise<void>((resolve) => {
        this.timer = setTimeout(resolve, SETTLES_MS);
        signal.addEventListener("abort", () => resolve());
      });
      this.timer = undefined;
      if (signal.aborted) return;
      const now = this.control;
      if (!now) return this.wait(text);
      const root = now.element.getRootNode() as Tree;
      const isTheirs = now.elements.some((one) => one === root.activeElement) && now.type !== "region";
      if (isTheirs || now.holds(text)) return this.keepHeard(now);
      control = now;
    }
    const longest = (control.element as HTMLInputElement).maxLength ?? -1;
    const reason = longest >= 0 && text.length > longest ? `it takes ${longest} characters. Set its length in the target.` : "it takes other characters. Change the mapping.";
    this.refuse(`the page did not keep what was written into “${this.key}”: ${reason}`, "value_refused");
  }

  /** The page may have drawn the field anew: it is the new one that is listened to. */
  private keepHeard(control: Control): void {
    this.hold?.abort();
    this.listen(control);
    this.spelt = control.read();
    this.outcome = "held";
  }

  private refuse(text: string, kind: "option_missing" | "value_refused"): void {
    this.outcome = "refused";
    // What the page has made of it is no handwork of anybody's.
    this.spelt = this.kept;
    this.say(kind, this.key, text);
  }

  private takenOver(): void {
    this.written = null;
    this.theirs();
  }

  private theirs(): void {
    this.outcome = "theirs";
    this.leave();
  }

  private sayLocked({ lock }: Control): void {
    const why = lock === "disabled" ? "is disabled" : "can only be read";
    this.say("field_locked", this.key, `the field “${this.key}” ${why} on this page: it is filled as soon as it can be written. Where that never comes, take it out of the target.`);
  }
}

/** Whether there is a frame on the page whose fields nobody but its own scripts can see. */
function hasForeignFrame(): boolean {
  return Array.from(document.querySelectorAll("iframe")).some((frame) => {
    try {
      return frame.contentDocument === null;
    } catch {
      return true;
    }
  });
}
