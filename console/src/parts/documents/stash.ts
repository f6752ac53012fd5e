/** What was not kept on the service yet, kept in the browser: a closed tab loses nothing. */

import type { Stashed } from "./keeper";

const name = (path: string): string => `anchorline.draft.${path}`;

let waiting: { path: string; stashed: Stashed<unknown> | null } | null = null;
const PAUSE_MS = 100;

/** Keeps it as soon as typing pauses; at once where the page is left. */
export function stash(path: string, stashed: Stashed<unknown> | null): void {
  if (!waiting) setTimeout(flushStash, PAUSE_MS);
  else if (waiting.path !== path) flushStash();
  waiting = { path, stashed };
}

export function flushStash(): void {
  if (waiting) write(waiting.path, waiting.stashed);
  waiting = null;
}

function write(path: string, stashed: Stashed<unknown> | null): void {
  try {
    if (stashed) localStorage.setItem(name(path), JSON.stringify(stashed));
    else localStorage.removeItem(name(path));
  } catch {
    // A browser that keeps nothing, or is full: the service has what it was sent.
  }
}

export function stashed<Document>(path: string): Stashed<Document> | null {
  try {
    const text = localStorage.getItem(name(path));
    return text ? (JSON.parse(text) as Stashed<Document>) : null;
  } catch {
    return null;
  }
}
