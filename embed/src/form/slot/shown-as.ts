/**
 * How much of a slot is seen: its parts, those of them that are filled or needed, or the address in
 * its country's lines, with a way to the rest.
 */

import { make } from "../../dom";
import type { Texts } from "../../words";
import type { Slot } from "../model";
import type { Parts } from "./parts";

type Say = (name: keyof Texts, given?: Record<string, string | number>) => string;
/** Nothing given yet; all parts; those that are filled or needed; the lines alone. */
type Sight = "closed" | "all" | "short" | "lines";

export class ShownAs {
  /** The lines, with a way to change them. */
  readonly lines: HTMLElement;
  /** The way to parts that were left out of sight. */
  readonly more: HTMLElement;
  /** The way to parts that are locked. */
  readonly lock: HTMLElement;
  private readonly written = make("address", { class: "lines", dir: "auto" });
  private readonly moreButton = make("button", { type: "button", class: "link" });
  private sight: Sight = "closed";
  private isLocked = false;

  constructor(
    private readonly slot: Slot,
    private readonly parts: Parts,
    private readonly say: Say,
  ) {
    const change = make("button", { type: "button", class: "link" }, say("changeAddress"));
    change.addEventListener("click", () => {
      this.open();
      this.parts.firstShown()?.focus();
    });
    this.lines = make("div", { class: "filled-lines", hidden: true }, this.written, change);
    this.more = make("div", { class: "more-parts", hidden: true }, this.moreButton);
    this.moreButton.addEventListener("click", () => {
      const [first] = this.parts.foldable();
      this.look("all");
      first?.focus();
    });
    const byHand = make("button", { type: "button", class: "link" }, say("changeByHand"));
    byHand.addEventListener("click", () => {
      this.setLocked(false);
      this.parts.firstShown()?.focus();
    });
    this.lock = make("p", { class: "help lock", hidden: true }, say("partsLocked"), " ", byHand);
    if (slot.appearance === "parts_only") this.look("all");
  }

  /** All parts are in sight: somebody wants to type, or something there is wrong. */
  open(): void {
    this.look("all");
  }

  /**
   * An address was filled in.
   *
   * Args:
   *   isWhole: it is one address, not what is known of several.
   *   lines: in its country's lines; empty where they are not known.
   */
  filled(isWhole: boolean, lines: readonly string[]): void {
    this.setLocked(Boolean(this.slot.locked) && isWhole);
    const lacks = this.parts.firstNeeded(!isWhole) !== undefined;
    this.written.textContent = lines.join("\n");
    if (!isWhole || lacks) this.look("all");
    else if (this.showsLines && lines.length) this.look("lines");
    else this.look(this.slot.shows_empty ? "all" : "short");
  }

  /** Nothing is filled any more, or another country was chosen. */
  reset(): void {
    this.setLocked(false);
    this.look(this.parts.areEmpty && this.slot.appearance !== "parts_only" && this.sight !== "all" ? "closed" : "all");
  }

  /** Parts have got other labels, or others are shown. */
  update(): void {
    this.look(this.sight);
  }

  private get showsLines(): boolean {
    return (this.slot.shown_as ?? (this.slot.appearance === "one_box" ? "lines" : "parts")) === "lines";
  }

  private look(sight: Sight): void {
    this.sight = sight;
    this.lines.hidden = sight !== "lines";
    this.parts.element.hidden = sight === "closed" || sight === "lines";
    const foldable = sight === "short" ? this.parts.foldable() : [];
    this.parts.fold(foldable);
    this.more.hidden = foldable.length === 0;
    if (foldable.length) this.moreButton.textContent = this.say("addParts", { parts: this.listed(foldable.map((part) => part.label)) });
    this.lock.hidden = !this.isLocked || this.parts.element.hidden;
  }

  private listed(labels: string[]): string {
    return labels.length > 4 ? `${labels.slice(0, 4).join(", ")} …` : labels.join(", ");
  }

  private setLocked(locked: boolean): void {
    this.isLocked = locked;
    for (const part of this.parts.views) part.locked = locked;
    this.lock.hidden = !locked || this.parts.element.hidden;
  }
}
