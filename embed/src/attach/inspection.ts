/**
 * What the console and a page that it has opened say to each other while a target is made.
 *
 * The page was opened by the console with `#anchorline-inspect`; each listens to the other's window
 * and origin alone. Only somebody who is signed in to the console is at its end.
 */

import type * as api from "../api";

export const INSPECT = "#anchorline-inspect";

/** What became of one input that was tried. */
export interface TriedInput {
  key: string;
  /** Whether it was found on the page. */
  found: boolean;
  /** What stands there now; null where it was not found. */
  kept: string | null;
}

export type FromPage =
  | { kind: "anchorline-page"; url: string; inputs: api.SeenInputSchema[] }
  | { kind: "anchorline-tried"; inputs: TriedInput[]; said: string[] };

export type FromConsole =
  | { kind: "anchorline-look" }
  | { kind: "anchorline-try"; inputs: api.PageInputSchema[]; values: Record<string, string> };
