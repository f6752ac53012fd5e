/**
 * What the console and the small window that stands between it and a foreign page say to each other.
 *
 * The foreign page knows that window as its opener, and the console not at all: it can send the small window elsewhere,
 * and nothing else. What it says is handed on as text, with the origin that the browser tells; the console decides.
 */

import type { FromConsole } from "./inspection";

/** The place of the small window's page; what follows its `#` names the channel. */
export const RELAY = "/console/opened-page";

export const channelOf = (name: string): string => `anchorline page ${name}`;

export type ToRelay = { kind: "open"; url: string } | { kind: "pass"; message: FromConsole } | { kind: "end" };

export type FromRelay =
  | { kind: "ready" }
  /** The browser has held the page back: somebody has to press the button in the small window. */
  | { kind: "blocked" }
  | { kind: "opened" }
  /** What the page has said, as JSON; null where it can be none, or is far too long. */
  | { kind: "heard"; origin: string; text: string | null }
  | { kind: "gone" };
