/**
 * What the console and a page that it has opened say to each other while a target is made.
 *
 * The page was opened by the console with `#anchorline-inspect`; each listens to the other's window
 * and origin alone. Only somebody who is signed in to the console is at its end.
 */

import type * as api from "../api";

export const INSPECT = "#anchorline-inspect";

/** What became of one field that was tried. */
export interface TriedField {
  key: string;
  /** Whether it was found on the page. */
  found: boolean;
  /** What stands there now; null where it was not found. */
  kept: string | null;
  /** Whether it is what was to be written. */
  holds: boolean;
}

export type FromPage =
  | { kind: "anchorline-page"; url: string; fields: api.SeenFieldSchema[] }
  | { kind: "anchorline-found"; key: string; count: number }
  | { kind: "anchorline-tried"; fields: TriedField[]; said: string[] };

export type FromConsole =
  | { kind: "anchorline-look" }
  | { kind: "anchorline-try"; fields: api.PageFieldSchema[]; values: Record<string, string> }
  | { kind: "anchorline-show"; field: api.PageFieldSchema };
