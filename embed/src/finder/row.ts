/** What a suggestion's row shows. */

import { make } from "../dom";
import { highlighted } from "../highlight";
import type { Suggestion } from "../service";
import type { Words } from "../words";

export function suggestionContent(row: Suggestion, country: string, words: Words): Node[] {
  const text = make("span", { class: "label", dir: "auto" }, ...highlighted(row.label, row.matches));
  const label = country ? [text, make("span", { class: "count" }, country)] : [text];
  if (row.count === 1) return label;
  const count = make("span", { class: "count" }, words.say("addresses", { count: row.count }));
  return [...label, count, make("span", { class: "opens", "aria-hidden": "true" }, "›")];
}
