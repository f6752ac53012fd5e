/** What tells a person who fills a form from a program: a field nobody sees, and time. */

import { make } from "../dom";
import type { FormDocument } from "./model";

const LEAST_SECONDS = 2;

export class Guard {
  readonly element: HTMLElement | null;
  private readonly trap = make("input", { type: "text", name: "homepage", tabindex: "-1", autocomplete: "off", "aria-hidden": "true" });
  private readonly since = performance.now();

  constructor(private readonly document: FormDocument) {
    const isOpen = document.kind === "web" && !document.public?.without_trap;
    this.element = isOpen ? make("div", { class: "trap", "aria-hidden": "true" }, this.trap) : null;
  }

  /** What is sent of it. */
  get given(): { trap?: string; seconds?: number } {
    if (this.document.kind !== "web") return {};
    return { seconds: this.seconds, ...(this.trap.value ? { trap: this.trap.value } : {}) };
  }

  /** Waits until it is not too soon: who fills a form so fast need not be told. */
  async settled(): Promise<void> {
    const least = this.document.kind === "web" ? (this.document.public?.least_seconds ?? LEAST_SECONDS) : 0;
    const left = least - this.seconds;
    if (left > 0) await new Promise((go) => setTimeout(go, left * 1000));
  }

  private get seconds(): number {
    return Math.round((performance.now() - this.since) / 100) / 10;
  }
}
