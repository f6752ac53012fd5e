/**
 * What is being edited, held outside of the page that edits it: a page that fails is drawn anew, and has it again.
 *
 * As long as nothing fails it goes with its page.
 */

const held = new Map<string, unknown>();
const drafts = new Set<string>();
let isFailing = false;

/** Holds a value; null where there is nothing to be held. */
export function hold(name: string, value: unknown): void {
  if (value === null) held.delete(name);
  else held.set(name, value);
}

export const isHeld = (name: string): boolean => held.has(name);
export const heldAs = (name: string): unknown => held.get(name);

/** A page is left; what it held is let go, unless it is left because it failed. */
export function release(name: string): void {
  if (!isFailing) held.delete(name);
}

/** A page keeps what is edited on it as a draft by itself; done, it says so no more. */
export function keepsDraft(name: string): () => void {
  drafts.add(name);
  return () => void (isFailing || drafts.delete(name));
}

/** Whether the page, or the one that has failed, keeps what is edited on it by itself. */
export const isKeptAsDraft = (): boolean => drafts.size > 0;

/** A page has failed: whatever it held stays until it is drawn anew, or let go. */
export function failed(): void {
  isFailing = true;
}

/** It is drawn anew, with what it held. */
export function drawnAnew(): void {
  isFailing = false;
  drafts.clear();
}

/** What was held is not wanted any more. */
export function letGo(): void {
  isFailing = false;
  held.clear();
  drafts.clear();
}

/** All that is held, for a file. */
export function everything(): Record<string, unknown> {
  return Object.fromEntries(held);
}
