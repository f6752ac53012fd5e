/** The finder of a slot: set up as the slot says, and what happens in it handed on. */

import type { FinderElement } from "../../finder/element";
import type { Connection } from "../../service";
import type { Words } from "../../words";
import type { Slot } from "../model";
import type { Picked } from "./state";

interface Handlers {
  pick: (picked: Picked) => void;
  byHand: () => void;
  /** The lookup is slow or silent: the fields are to be at hand. */
  unfold: () => void;
}

export function finderOf(slot: Slot, place: { words: Words; connection: Connection }, handlers: Handlers): FinderElement {
  const finder = document.createElement("anchorline-finder") as FinderElement;
  finder.words = place.words;
  finder.setAttribute("label", place.words.say("findAddress"));
  finder.setAttribute("kinds", (slot.kinds ?? []).join(","));
  finder.setAttribute("takes-groups", "");
  if (slot.language) finder.setAttribute("language", slot.language);
  if (slot.datasets?.length) finder.setAttribute("datasets", slot.datasets.join(","));
  if (slot.practice_word) finder.setAttribute("practice-word", slot.practice_word);
  finder.connection = place.connection;
  finder.addEventListener("anchorline-pick", (event) => handlers.pick((event as CustomEvent<Picked>).detail));
  finder.addEventListener("anchorline-by-hand", () => handlers.byHand());
  finder.addEventListener("anchorline-status", (event) => {
    const { status } = (event as CustomEvent<{ status: string }>).detail;
    if (status === "failed" || status === "slow") handlers.unfold();
  });
  return finder;
}
