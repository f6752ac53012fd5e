/**
 * What was typed into a form, kept in the browser's tab until it is sent: it survives a reload.
 *
 * Under the form's version, so that nothing is put into fields that are others by now. A consent
 * is given anew, and what nobody sees is not kept. It goes with the tab.
 */

import type { Words } from "../words";
import type { FormFrame } from "./frame";
import type { FormDocument, Value } from "./model";
import type { SlotMemo } from "./slot/state";
import type { FormViews } from "./views";

export interface Kept {
  values: Record<string, Value>;
  slots: Record<string, SlotMemo>;
}

const PAUSE_MS = 300;
const NEVER = new Set(["consent", "hidden"]);

export class Remembered {
  private readonly name: string;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isOver = false;

  constructor(base: string, form: string, version: number) {
    this.name = `anchorline ${base} ${form} ${version}`;
  }

  /** What was typed before; null where there is nothing. */
  get kept(): Kept | null {
    try {
      return JSON.parse(sessionStorage.getItem(this.name) ?? "null") as Kept | null;
    } catch {
      return null; // no storage here, or not ours
    }
  }

  /** Offers what was typed before, where there is something. */
  offer(frame: FormFrame, words: Words, putBack: (kept: Kept) => void): void {
    const { kept } = this;
    if (!kept) return;
    frame.ask(words.say("typedBefore"), [
      [words.say("putItBack"), () => putBack(kept)],
      [words.say("startAnew"), () => this.drop()],
    ]);
  }

  /** Keeps what stands in the form, in a moment. */
  later(views: FormViews, document: FormDocument): void {
    if (this.isOver) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.keep(views, document), PAUSE_MS);
  }

  /** Keeps what stands in the form now. */
  keep(views: FormViews, document: FormDocument): void {
    clearTimeout(this.timer);
    if (this.isOver) return;
    const never = new Set(document.fields.flatMap((field) => ("slot" in field || !NEVER.has(field.type ?? "") ? [] : [field.key])));
    const values = Object.entries(views.values()).filter(([key, value]) => value !== null && value !== false && !never.has(key));
    const slots = Object.fromEntries(views.slots.filter((slot) => !slot.isEmpty).map((slot) => [slot.slot.key, slot.memo]));
    if (!values.length) return this.drop();
    const kept: Kept = { values: Object.fromEntries(values), slots };
    try {
      sessionStorage.setItem(this.name, JSON.stringify(kept));
    } catch {
      // No storage here, or none left: the form itself has everything still.
    }
  }

  /** Forgets what was typed. */
  drop(): void {
    clearTimeout(this.timer);
    try {
      sessionStorage.removeItem(this.name);
    } catch {
      // No storage here.
    }
  }

  /** It was sent: nothing more is kept. */
  end(): void {
    this.isOver = true;
    this.drop();
  }

  leave(): void {
    clearTimeout(this.timer);
  }
}
