/** What stands in the place of a form: while it is loaded, where it cannot be shown, after it was sent. */

import { make } from "../dom";
import { type Words, directionOf } from "../words";
import { FormFrame } from "./frame";
import type { FormDocument } from "./model";
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

export function loading(words: Words): HTMLElement {
  return make("p", { role: "status", class: "loading" }, words.say("loading"));
}

/** A form that nobody can fill now. */
export function closed(form: FormDocument, words: Words, level: number): HTMLElement {
  const heading = new FormFrame(level).heading({}, form.title);
  return make("div", { class: "form" }, heading, make("p", {}, form.public?.closed_text || words.say("closed")));
}

export function cannotBeShown(why: unknown, words: Words, again: () => void): HTMLElement {
  const button = make("button", { type: "button", class: "link" }, words.say("tryAgain"));
  button.addEventListener("click", again);
  const detail = why instanceof Error ? why.message : String(why);
  return make("div", { role: "alert", class: "alert shown" }, `${words.say("cannotBeShown")} ${detail} `, button);
}
