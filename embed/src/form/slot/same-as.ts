/** An address that is the same as another one of the form, and follows it until it is changed. */

import { make } from "../../dom";
import type { MakeFeature, SlotFeature, SlotHost } from "./feature";
import type { SlotState } from "./state";
import { idBeside } from "../ids";

const PAUSE_MS = 200;

class SameAs implements SlotFeature {
  readonly stands = "before";
  readonly element: HTMLElement;
  private readonly box: HTMLInputElement;
  private taken = "";
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly host: SlotHost) {
    const key = host.slot.same_as ?? "";
    const id = idBeside(host.slot.key, "same");
    this.box = make("input", { type: "checkbox", id });
    const label = make("label", { for: id }, host.say("sameAs", { slot: host.labelOf(key) }));
    this.element = make("div", { class: "field yes_no same-as" }, this.box, label);
    this.box.addEventListener("change", () => this.switched());
  }

  update(): void {
    const source = this.source;
    this.element.hidden = source === null;
    if (!this.box.checked || !source || signature(source) === this.taken) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.take(), PAUSE_MS);
  }

  changedByHand(): void {
    if (!this.box.checked) return;
    this.box.checked = false;
    clearTimeout(this.timer);
  }

  leave(): void {
    clearTimeout(this.timer);
  }

  private get source(): SlotState | null {
    return this.host.other(this.host.slot.same_as ?? "");
  }

  private switched(): void {
    this.taken = "";
    if (this.box.checked) void this.take();
  }

  private async take(): Promise<void> {
    const { source } = this;
    if (!source) return;
    this.taken = signature(source);
    if (!source.address.given) {
      this.host.announce(this.host.say("nothingToTake", { slot: this.host.labelOf(this.host.slot.same_as ?? "") }));
      return;
    }
    await this.host.take(source);
  }
}

function signature(state: SlotState): string {
  return JSON.stringify([state.country, state.picked?.id ?? "", state.components]);
}

export const sameAs: MakeFeature = (host) => new SameAs(host);
