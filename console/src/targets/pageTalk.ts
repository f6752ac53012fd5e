/** What becomes of what a foreign page says: held against the page that was opened, and against what it may say at all. */

import * as z from "zod";

import type { TriedField } from "../../../embed/src/attach/inspection";
import type { FromRelay } from "../../../embed/src/attach/relay";
import { short } from "../../../embed/src/attach/seen";
import type { SeenField } from "./useTargets";

// As the service takes them (SeenInputSchema), whatever a page makes of them.
const text = z.string().max(2000).transform(short);
const length = z.int().min(1).nullable().transform((given) => (given !== null && given <= 10_000 ? given : null));
const position = z.int().min(0).max(500);
const pixels = z.number().transform((given) => Math.max(-100_000, Math.min(100_000, Math.round(given))));
const seenField = z.object({
  type: z.enum(["text", "list", "radio", "switch", "hidden", "region"]),
  name: text, id: text, autocomplete: text, class_name: text, label: text, is_named: z.boolean(), placeholder: text, block: text,
  position, several_lines: z.boolean(), is_whole: z.literal(false), is_read_only: z.boolean(),
  options: z.array(z.object({ value: text, text })).max(5000).transform((given) => given.slice(0, 500)),
  max_length: length,
  pieces: z.array(z.object({ name: text, id: text, max_length: length, position })).max(4),
  place: z.object({ left: pixels, top: pixels, width: pixels, height: pixels }).nullable(),
});
const fromPage = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("anchorline-page"), url: z.url().max(4000), fields: z.array(seenField).max(500) }),
  z.object({ kind: z.literal("anchorline-found"), key: text, count: z.int().min(0).max(10_000) }),
  z.object({
    kind: z.literal("anchorline-tried"),
    fields: z.array(z.object({ key: text, found: z.boolean(), kept: z.string().max(100_000).nullable(), holds: z.boolean() })).max(500),
    said: z.array(z.string().max(2000)).max(200),
  }),
]);

export interface Tried {
  fields: TriedField[];
  /** What the page's script has said of mistakes. */
  said: string[];
}

export interface Talk {
  /**
   * `blocked`: the browser holds the page back; `silent`: nothing was heard in time; `elsewhere`: another page answers than
   * the one that was opened; `odd`: what it says is nothing that is taken; `gone`: one of the two windows was closed.
   */
  state: "closed" | "opening" | "blocked" | "silent" | "open" | "elsewhere" | "odd" | "gone";
  /** The origin that was opened. */
  origin: string;
  /** The address of the page as it says it; empty before. */
  url: string;
  fields: SeenField[];
  tried: Tried | null;
  /** How often the field that was last shown is found. */
  found: { key: string; count: number } | null;
  /** Where it differs, in a sentence; the address that answers, where one could be opened instead. */
  problem: string;
  instead: string | null;
}

export type Event = { kind: "open"; origin: string } | { kind: "patience" } | { kind: "trying" } | FromRelay;

export const CLOSED: Talk = { state: "closed", origin: "", url: "", fields: [], tried: null, found: null, problem: "", instead: null };

/** What is known of the page after something has happened. */
export function next(talk: Talk, event: Event): Talk {
  switch (event.kind) {
    case "open":
      return { ...CLOSED, state: "opening", origin: event.origin };
    case "patience":
      return talk.state === "opening" ? { ...talk, state: "silent" } : talk;
    case "trying":
      return { ...talk, tried: null };
    case "blocked":
      return { ...talk, state: "blocked" };
    case "opened":
      return talk.state === "blocked" ? { ...talk, state: "opening" } : talk;
    case "gone":
      return talk.state === "closed" ? talk : { ...talk, state: talk.state === "opening" ? "silent" : "gone" };
    case "heard":
      return heard(talk, event.origin, event.text);
    default:
      return talk;
  }
}

function heard(talk: Talk, origin: string, text: string | null): Talk {
  if (origin !== talk.origin) {
    const problem = `You opened ${talk.origin}, and ${origin || "a page without an origin"} answers. Nothing of what it says was taken.`;
    return { ...talk, state: "elsewhere", problem, instead: /^https?:/.test(origin) ? origin : null };
  }
  const said = fromPage.safeParse(parsed(text));
  if (!said.success) {
    const [first] = said.error.issues;
    const place = first?.path.length ? ` (${first.path.join(".")}: ${first.message})` : "";
    return { ...talk, state: "odd", problem: `The page said something that nobody here understands${place}. Nothing of it was taken.` };
  }
  if (said.data.kind === "anchorline-tried") return { ...talk, tried: { fields: said.data.fields, said: said.data.said } };
  if (said.data.kind === "anchorline-found") return { ...talk, found: { key: said.data.key, count: said.data.count } };
  const claimed = new URL(said.data.url).origin;
  if (claimed !== origin) {
    return { ...talk, state: "odd", problem: `The page at ${origin} says that it is at ${claimed}. Nothing of what it says was taken.` };
  }
  return { ...talk, state: "open", url: said.data.url, fields: said.data.fields, problem: "", instead: null };
}

function parsed(text: string | null): unknown {
  try {
    return text === null ? null : JSON.parse(text);
  } catch {
    return null;
  }
}
