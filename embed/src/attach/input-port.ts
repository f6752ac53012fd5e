/** An input of a page as what a fill writes through. */

import type { Value } from "../form/model";
import type { FieldPort } from "../form/slot/port";
import { type PageInput, type Writable, findInput } from "./finding";
import type { Say } from "./say";
import type { Tree } from "./trees";
import { holds, write } from "./writing";

/** How long a page's own code has to make something of what was written. */
const SETTLES_MS = 60;

export class InputPort implements FieldPort {
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Ends with what is being read back. */
  private reading: AbortController | undefined;

  constructor(
    private readonly input: PageInput,
    private readonly say: Say,
  ) {}

  get key(): string {
    return this.input.key;
  }

  get label(): string {
    return this.input.label ?? this.input.key;
  }

  /** The element as it is now: pages draw their inputs anew. */
  get element(): Writable | null {
    const { element, count, fault } = findInput(document, this.input);
    if (fault) this.say("selector", this.key, `the input “${this.key}”: ${fault}`);
    if (count > 1) this.say("input_several", this.key, `the input “${this.key}” was found ${count} times, and the first was taken. Say more exactly how it is found.`);
    return element;
  }

  get value(): Value {
    return this.element?.value || null;
  }

  set value(value: Value) {
    this.leave();
    const { element } = this;
    if (!element) {
      this.sayMissing();
      return;
    }
    const text = value === null ? "" : String(value);
    const isSame = element.localName === "select" ? holds(element, text, this.input.writes) : element.value === text;
    if (isSame) return;
    if (!write(element, text, this.input.writes)) {
      this.say("option_missing", this.key, `the list “${this.key}” has no option for “${shown(element)}”. Change the mapping, or how an option is chosen.`);
      return;
    }
    // Whoever types there meanwhile knows better: their text is not written over.
    this.reading = new AbortController();
    element.addEventListener("input", (event) => event.isTrusted && this.leave(), { signal: this.reading.signal });
    this.timer = setTimeout(() => this.verify(text, true), SETTLES_MS);
  }

  get text(): string {
    return String(this.value ?? "");
  }

  setProblem(): void {
    // What is wrong with its inputs is the page's to say.
  }

  focus(): void {
    this.element?.focus();
  }

  /** Nothing more is written. */
  leave(): void {
    clearTimeout(this.timer);
    this.reading?.abort();
    this.reading = undefined;
  }

  sayMissing(): void {
    const ways = (this.input.find ?? []).map((way) => Object.entries(way).filter(([, value]) => value).map(([name, value]) => `${name} “${value}”`).join("")).join(", ");
    this.say("input_missing", this.key, `the input “${this.key}” is not on this page: looked for ${ways}. Mend how it is found, or take it out of the target.`);
  }

  /** Reads back what the page made of a text; writes it once more, then says so. */
  private verify(text: string, again: boolean): void {
    const { element } = this;
    const isTheirs = element !== null && (element.getRootNode() as Tree).activeElement === element;
    if (!element || isTheirs || holds(element, text, this.input.writes)) {
      this.leave();
    } else if (again) {
      write(element, text, this.input.writes);
      this.timer = setTimeout(() => this.verify(text, false), SETTLES_MS);
    } else {
      this.leave();
      this.say("value_refused", this.key, `the page did not keep what was written into “${this.key}”: it takes fewer characters, or others.`);
    }
  }
}

/** An input without what people typed into it: the developer console is no place for that. */
function shown(element: Writable): string {
  return element.name || element.id || element.localName;
}
