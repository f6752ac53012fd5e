/** A tick box or a switch: on for `yes`, for its own value, and for a text that it is called by; else off. */

import { labelsOf } from "../labels";
import { plain } from "../options";
import { type Control, ElementControl } from "./control";
import { focused, left } from "./events";

const YES = new Set(["yes", "true", "on", "1"]);
const NO = new Set(["", "no", "false", "off", "0"]);

export class SwitchControl extends ElementControl implements Control {
  readonly type = "switch";

  read(): string {
    return this.isOn ? "yes" : "";
  }

  holds(text: string): boolean {
    return this.meant(text) === this.isOn;
  }

  write(text: string): Promise<boolean> {
    const wanted = this.meant(text);
    if (wanted === null) return Promise.resolve(false);
    focused(this.element);
    if (wanted !== this.isOn) this.element.click();
    left(this.element);
    return Promise.resolve(this.isOn === wanted);
  }

  private get isOn(): boolean {
    return (this.element as HTMLInputElement).checked || this.element.getAttribute("aria-checked") === "true";
  }

  /** Whether a text switches it on; null where it says neither. */
  private meant(text: string): boolean | null {
    const wanted = plain(text);
    if (NO.has(wanted)) return false;
    const called = [(this.element as HTMLInputElement).value ?? "", ...labelsOf(this.element)];
    return YES.has(wanted) || called.some((one) => plain(one) === wanted) ? true : null;
  }
}
