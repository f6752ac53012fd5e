/** An input of a page as what a fill writes through. */

import type { Value } from "../form/model";
import type { FieldPort } from "../form/slot/port";
import { isCombobox } from "./combobox";
import { type PageInput, type Writable, findInput } from "./finding";
import type { Say } from "./say";
import type { Tree } from "./trees";
import { holds, read, write } from "./writing";

/** How long a page's own code has to make something of what was written. */
const SETTLES_MS = 60;
/** What a person does who changes an input by themselves, and who is about to. */
const CHANGES = ["input", "change"];
const BEGINS = ["keydown", "pointerdown"];

export class InputPort implements FieldPort {
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Ends when somebody goes on there by themselves, or something else is written. */
  private hold: AbortController | undefined;
  /** Whether the page may still be making something of what was written. */
  private isSettling = false;
  /** What was written last, for as long as it stands there as the page spells it; null for nothing. */
  private written: string | null = null;

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
    const { element, written } = this;
    if (!element) return null;
    // A list is chosen in by and by, and a page may spell what was written in a way of its own.
    const isOurs = written !== null && (this.isSettling || holds(element, written, this.input.writes));
    return (isOurs ? written : read(element)) || null;
  }

  set value(value: Value) {
    this.leave();
    const { element } = this;
    if (!element) {
      this.sayMissing();
      return;
    }
    const text = value === null ? "" : String(value);
    const isSame = element.localName === "select" ? holds(element, text, this.input.writes) : read(element) === text;
    this.written = text;
    if (!isSame) void this.write(element, text);
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

  /** Nothing more is written, and nothing listens any more. */
  leave(): void {
    clearTimeout(this.timer);
    this.isSettling = false;
    this.hold?.abort();
    this.hold = undefined;
  }

  sayMissing(): void {
    const ways = (this.input.find ?? []).map((way) => Object.entries(way).filter(([, value]) => value).map(([name, value]) => `${name} “${value}”`).join("")).join(", ");
    const { other } = findInput(document, this.input);
    const instead = other ? ` There is a ${other} instead, into which no text can be written.` : "";
    const frame = !other && hasForeignFrame() ? " It may stand in a frame of another origin, which this script cannot reach: attach it on the page in that frame." : "";
    this.say("input_missing", this.key, `the input “${this.key}” is not on this page: looked for ${ways}.${instead}${frame} Mend how it is found, or take it out of the target.`);
  }

  private async write(element: Writable, text: string): Promise<void> {
    // Whoever types there meanwhile knows better: their text is not written over.
    this.hold = new AbortController();
    const { signal } = this.hold;
    for (const type of CHANGES) element.addEventListener(type, (event) => event.isTrusted && this.takenOver(), { signal });
    for (const type of BEGINS) element.addEventListener(type, (event) => event.isTrusted && this.isSettling && this.leave(), { signal });
    this.sayIfLocked(element);
    this.isSettling = true;
    const isThere = await write(element, text, this.input.writes, signal);
    if (signal.aborted) return;
    if (isThere) this.timer = setTimeout(() => void this.verify(text, signal, true), SETTLES_MS);
    else {
      this.takenOver();
      this.say("option_missing", this.key, `the list “${this.key}” has no option for ${text ? "a value of the mapping" : "nothing, and could not be emptied"}. Change the mapping, or how an option is chosen.`);
    }
  }

  private takenOver(): void {
    this.written = null;
    this.leave();
  }

  /** Reads back what the page made of a text; writes it once more, then says so. */
  private async verify(text: string, signal: AbortSignal, again: boolean): Promise<void> {
    const { element } = this;
    const isTheirs = element !== null && (element.getRootNode() as Tree).activeElement === element;
    if (!element || isTheirs || holds(element, text, this.input.writes)) {
      this.isSettling = false;
    } else if (again) {
      await write(element, text, this.input.writes, signal);
      if (!signal.aborted) this.timer = setTimeout(() => void this.verify(text, signal, false), SETTLES_MS);
    } else {
      this.isSettling = false;
      const longest = (element as HTMLInputElement).maxLength ?? -1;
      const reason = longest >= 0 && text.length > longest ? `it takes ${longest} characters. Set max_length in the target.` : "it takes other characters. Change the mapping.";
      this.say("value_refused", this.key, `the page did not keep what was written into “${this.key}”: ${reason}`);
    }
  }

  private sayIfLocked(element: Writable): void {
    const { disabled, readOnly } = element as HTMLInputElement;
    if (disabled) this.say("input_locked", this.key, `the input “${this.key}” is disabled on this page: what is written there is not sent. Find another one, or take it out of the target.`);
    else if (readOnly && !isCombobox(element)) this.say("input_locked", this.key, `the input “${this.key}” can only be read on this page: people cannot correct what is written there.`);
  }
}

/** Whether there is a frame on the page whose inputs nobody but its own scripts can see. */
function hasForeignFrame(): boolean {
  return Array.from(document.querySelectorAll("iframe")).some((frame) => {
    try {
      return frame.contentDocument === null;
    } catch {
      return true;
    }
  });
}
