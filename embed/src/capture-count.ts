/**
 * How well capture goes, counted on the page: no cookie, no id, nothing of what was typed but what
 * was searched and not found. Told once the page is left.
 *
 * Nothing is counted where the page says `count="no"`, or the browser asks not to be followed
 * (Global Privacy Control).
 */

import type * as api from "./api";
import { type Connection, type FillAnswer, path } from "./service";

type Counts = Required<api.CaptureCounts>;
/** Whose captures these are. */
export interface Counted {
  kind: "form" | "target";
  name: string;
}

/** So long a search without a result stands before it counts as one: people type on. */
const STANDS_MS = 1000;
const LONGEST_TEXT = 120;
const MOST_TEXTS = 20;

/** Counts what happens in one slot. */
export class CaptureCount {
  private counts = zero();
  private readonly notFound = new Set<string>();
  private readonly ending = new AbortController();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isPicked = false;
  private isPartly = false;
  private hasAddress = false;
  private isChanged = false;
  private isByHand = false;
  private isShown = false;
  private isBegun = false;

  /**
   * Args:
   *   slot: the element in which everything happens; events of shadow trees in it reach it.
   *   isPart: whether something typed elsewhere on the page is typed into this address.
   */
  constructor(
    private readonly slot: HTMLElement,
    private readonly of: Counted,
    private readonly connection: Connection,
    isPart?: (event: Event) => boolean,
  ) {
    const { signal } = this.ending;
    if (isPart) slot.ownerDocument.addEventListener("input", (event) => event.isTrusted && isPart(event) && this.typed(false), { signal, capture: true });
    slot.addEventListener("input", (event) => event.isTrusted && this.typed(isInFinder(event)), { signal });
    slot.addEventListener("anchorline-by-hand", () => this.byHand(), { signal });
    slot.addEventListener("anchorline-status", (event) => this.status(event as CustomEvent<{ status: string }>), { signal });
    addEventListener("pagehide", () => this.end(), { signal });
    document.addEventListener("visibilitychange", () => document.visibilityState === "hidden" && this.tell(), { signal });
  }

  /** An address was filled in, or what is known of several. */
  filled(answer: FillAnswer, isWhole: boolean): void {
    this.taken(isWhole);
    this.stands(answer);
  }

  /** An address was picked, or what is known of several: once in a capture, however often one is picked in it. */
  taken(isWhole: boolean): void {
    if (isWhole && !this.isPicked) this.counts.picked++;
    if (!isWhole && !this.isPicked && !this.isPartly) this.counts.partly++;
    if (isWhole) this.isPicked = true;
    else this.isPartly = true;
    this.hasAddress = true;
  }

  /** What of it stands in the fields. */
  stands(answer: FillAnswer): void {
    this.counts.characters += Object.values(answer.values).reduce<number>((sum, value) => sum + String(value ?? "").length, 0);
  }

  /** The slot goes from its page. */
  leave(): void {
    this.end();
    clearTimeout(this.timer);
    this.ending.abort();
  }

  private typed(inFinder: boolean): void {
    if (!this.isBegun) this.counts.begun++;
    this.isBegun = true;
    if (inFinder) {
      this.counts.keys++;
      clearTimeout(this.timer);
    } else if (this.isPicked && !this.isChanged) {
      this.isChanged = true;
      this.counts.changed++;
    } else if (!this.isPicked) {
      this.byHand();
    }
  }

  private byHand(): void {
    if (this.isByHand) return;
    this.isByHand = this.hasAddress = true;
    this.counts.by_hand++;
  }

  private status({ detail, target }: CustomEvent<{ status: string }>): void {
    clearTimeout(this.timer);
    const finder = target as { text?: string } | null;
    const text = (finder?.text ?? "").trim().slice(0, LONGEST_TEXT);
    if (detail.status !== "empty" || !text || this.notFound.size >= MOST_TEXTS) return;
    this.timer = setTimeout(() => this.notFound.add(text), STANDS_MS);
  }

  /** Nobody goes on here: the page is left, or the slot is taken away. */
  private end(): void {
    if (this.isBegun && !this.hasAddress) this.counts.left++;
    this.isBegun = false;
    this.tell();
  }

  /** Tells what was counted since the last time. */
  private tell(): void {
    if (!this.isShown && !this.slot.hidden) {
      this.isShown = true;
      this.counts.shown++;
    }
    const { counts, notFound } = this;
    if (!Object.values(counts).some(Boolean)) return;
    this.counts = zero();
    const body: api.CaptureReport = { counts, not_found: [...notFound] };
    notFound.clear();
    const { kind, name } = this.of;
    void fetch(`${this.connection.base}/api/v1/${path`${kind}s/${name}/capture-counts`}`, {
      method: "POST",
      headers: { ...this.connection.headers, "Content-Type": "application/json" },
      body: JSON.stringify(body),
      keepalive: true,
    }).catch(() => undefined);
  }
}

/** Whether a page and its browser let captures be counted. */
export function mayCount(said: string | null | undefined): boolean {
  return said !== "no" && !(navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl;
}

function isInFinder(event: Event): boolean {
  return event.composedPath().some((node) => node instanceof Element && node.localName.startsWith("anchorline-finder"));
}

function zero(): Counts {
  return { shown: 0, begun: 0, picked: 0, partly: 0, by_hand: 0, changed: 0, left: 0, keys: 0, characters: 0 };
}
