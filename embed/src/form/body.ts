/**
 * Where the fields of a form stand: pages, sections and columns, and the step that is filled now.
 *
 * What a condition hides is `hidden`; what belongs to another step is `away`. Either way it keeps
 * what was typed into it.
 */

import { make } from "../dom";
import type { Words } from "../words";
import type { Field, FormDocument } from "./model";
import { type Item, type Page, isQuestion, shapeOf, stepsOf } from "./shape";

interface Container {
  element: HTMLElement;
  keys: string[];
}

export class FormBody {
  readonly element = make("div", { class: "body" });
  readonly progress = make("div", { class: "progress", hidden: true });
  private containers: Container[] = [];
  private elements = new Map<string, HTMLElement>();
  private steps: string[][] = [];
  private shown: ReadonlySet<string> = new Set();
  private at = 0;
  /** A step that is shown although nothing in it is: what is being made stands in it. */
  private revealed = -1;
  private frame = "";

  constructor(
    private readonly words: Words,
    private readonly level: number,
  ) {}

  /** Lays a form out; elements that stay are moved, not made anew. */
  arrange(document: FormDocument, elementOf: (item: Item) => HTMLElement): void {
    const pages = shapeOf(document);
    if (this.isAsBefore(document, pages, elementOf)) return;
    this.containers = [];
    this.elements = new Map();
    for (const item of pages.flatMap((page) => page.groups.flatMap((group) => group.items))) {
      const element = elementOf(item);
      element.dataset.key = item.key;
      this.elements.set(item.key, element);
    }
    this.steps = stepsOf(pages, document.style ?? "whole");
    this.at = Math.min(this.at, Math.max(0, this.steps.length - 1));
    this.element.replaceChildren(...pages.map((page) => this.page(page)));
  }

  /**
   * Puts elements that are new in the place of the old ones, where nothing else has changed.
   *
   * Whoever makes a form types into a label of one field: the others need not be moved.
   */
  private isAsBefore(document: FormDocument, pages: readonly Page[], elementOf: (item: Item) => HTMLElement): boolean {
    const items = pages.flatMap((page) => page.groups.flatMap((group) => group.items));
    const markers = pages.flatMap((page) => [page.marker, ...page.groups.map((group) => group.marker)]);
    const frame = JSON.stringify([document.style ?? "whole", markers, items.map((item) => [item.key, isQuestion(item)])]);
    const isSame = frame === this.frame;
    this.frame = frame;
    if (!isSame) return false;
    for (const item of items) {
      const [old, element] = [this.elements.get(item.key), elementOf(item)];
      if (old === element) continue;
      element.dataset.key = item.key;
      old?.replaceWith(element);
      this.elements.set(item.key, element);
    }
    return true;
  }

  /** Shows what is to be shown, of the step that is filled now. */
  update(shown: ReadonlySet<string>): void {
    this.shown = shown;
    if (!this.isThere(this.at)) this.at = this.nearest(this.at);
    const now = new Set(this.steps[this.at] ?? []);
    for (const [key, element] of this.elements) element.classList.toggle("away", !now.has(key));
    for (const { element, keys } of this.containers) {
      element.hidden = !keys.some((key) => now.has(key) && this.isSeen(key));
    }
    this.showProgress();
  }

  get isFirst(): boolean {
    return this.following(-1) < 0;
  }

  get isLast(): boolean {
    return this.following(1) < 0;
  }

  /** Keys of what is filled now. */
  get current(): ReadonlySet<string> {
    return new Set(this.steps[this.at] ?? []);
  }

  /** Goes a step on or back, over those of which nothing is shown. */
  step(by: 1 | -1): void {
    const next = this.following(by);
    this.revealed = -1;
    if (next >= 0) this.go(next);
  }

  /** Goes to the step that something stands in, and unfolds what it is folded into. */
  reveal(key: string): void {
    const at = this.steps.findIndex((keys) => keys.includes(key));
    this.revealed = at;
    if (at >= 0 && at !== this.at) this.go(at);
    const folded = this.elements.get(key)?.closest("details");
    if (folded) folded.open = true;
  }

  /** Puts the focus where a step begins. */
  focus(): void {
    const heading = this.element.querySelector<HTMLElement>("section:not([hidden]) > .page-title");
    (heading ?? this.progress).focus();
  }

  private go(at: number): void {
    this.at = at;
    this.update(this.shown);
  }

  private isSeen(key: string): boolean {
    return this.shown.has(key) && !this.elements.get(key)?.hidden;
  }

  private isThere(at: number): boolean {
    return at === this.revealed || (this.steps[at]?.some((key) => this.isSeen(key)) ?? false);
  }

  private following(by: 1 | -1): number {
    for (let at = this.at + by; at >= 0 && at < this.steps.length; at += by) {
      if (this.isThere(at)) return at;
    }
    return -1;
  }

  /** A step that is there: the one before it, or else the first after it. */
  private nearest(at: number): number {
    for (let before = at - 1; before >= 0; before--) if (this.isThere(before)) return before;
    const after = this.steps.findIndex((_, place) => this.isThere(place));
    return Math.max(0, after);
  }

  private showProgress(): void {
    const there = this.steps.flatMap((_, at) => (this.isThere(at) ? [at] : []));
    this.progress.hidden = this.steps.length < 2 || there.length < 2;
    if (this.progress.hidden) return;
    const at = there.indexOf(this.at) + 1;
    const text = this.words.say("progress", { at, count: there.length });
    const bar = make("progress", { max: String(there.length), value: String(at), "aria-label": text });
    this.progress.tabIndex = -1;
    this.progress.replaceChildren(bar, make("span", {}, text));
  }

  private page(page: Page): HTMLElement {
    const keys = page.groups.flatMap((group) => group.items.map((item) => item.key));
    const groups = page.groups.map((group) => this.group(group.marker, group.items, page.marker));
    const title = page.marker?.label
      ? make(this.heading(0), { class: "page-title", tabindex: "-1" }, page.marker.label)
      : null;
    const help = page.marker?.help ? make("p", { class: "help" }, page.marker.help) : null;
    const element = make("section", { class: "form-page" }, title, help, ...groups);
    if (page.marker) element.dataset.key = page.marker.key;
    this.containers.push({ element, keys });
    return element;
  }

  private group(marker: Field | null, items: Item[], page: Field | null): HTMLElement {
    const columns = marker?.columns ?? page?.columns ?? 1;
    const elements = items.flatMap((item) => this.elements.get(item.key) ?? []);
    const grid = make("div", { class: columns === 2 ? "grid two" : "grid" }, ...elements);
    const element = marker ? this.section(marker, grid) : grid;
    this.containers.push({ element, keys: items.map((item) => item.key) });
    return element;
  }

  private section(marker: Field, grid: HTMLElement): HTMLElement {
    const title = marker.label ? make(this.heading(1), { class: "section-title" }, marker.label) : null;
    const help = marker.help ? make("p", { class: "help" }, marker.help) : null;
    let element: HTMLElement;
    if (marker.foldable) {
      element = make("details", { open: !marker.folded }, make("summary", {}, title ?? marker.label ?? "…"), help, grid);
    } else element = make("section", {}, title, help, grid);
    element.classList.add("section");
    element.dataset.key = marker.key;
    return element;
  }

  private heading(below: number): "h2" | "h3" | "h4" | "h5" {
    return (["h2", "h3", "h4", "h5"] as const)[this.level - 1 + below] ?? "h5";
  }
}
