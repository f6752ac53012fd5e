/** What is said after a form was sent. */

import { make } from "../dom";
import { type Words, directionOf } from "../words";
import type { Sent } from "./sending";

interface Said {
  heading: HTMLElement;
  language: string;
  words: Words;
  /** Fills in another one. */
  again: () => void;
}

export function thanksFor(sent: Sent, { heading, language, words, again }: Said): HTMLElement {
  const another = make("button", { type: "button", class: "link" }, words.say("another"));
  another.addEventListener("click", again);
  const reference = make("p", {}, `${words.say("reference")} `, make("code", {}, sent.id ?? ""));
  return make("div", { class: "thanks", lang: language, dir: directionOf(language) }, heading, reference, another);
}
