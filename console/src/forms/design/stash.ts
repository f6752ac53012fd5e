/** What was not kept on the service yet, kept in the browser: a closed tab loses nothing. */

import type { Stashed } from "./keeper";

const name = (form: string): string => `anchorline.draft.${form}`;

let waiting: { form: string; stashed: Stashed | null } | null = null;
const PAUSE_MS = 100;

/** Keeps it as soon as typing pauses; at once where the page is left. */
export function stash(form: string, stashed: Stashed | null): void {
  if (!waiting) setTimeout(flushStash, PAUSE_MS);
  waiting = { form, stashed };
}

export function flushStash(): void {
  if (waiting) write(waiting.form, waiting.stashed);
  waiting = null;
}

function write(form: string, stashed: Stashed | null): void {
  try {
    if (stashed) localStorage.setItem(name(form), JSON.stringify(stashed));
    else localStorage.removeItem(name(form));
  } catch {
    // A browser that keeps nothing, or is full: the service has what it was sent.
  }
}

export function stashed(form: string): Stashed | null {
  try {
    const text = localStorage.getItem(name(form));
    return text ? (JSON.parse(text) as Stashed) : null;
  } catch {
    return null;
  }
}
