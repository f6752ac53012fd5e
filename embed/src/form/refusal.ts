/** What is wrong with a filled form, shown at its places: as the service says, or what is missing. */

import { type Place, ServiceError } from "../service";
import type { Words } from "../words";
import type { FieldView } from "./field";
import type { Marked } from "./frame";
import { SlotView } from "./slot/view";
import type { FormViews } from "./views";

/** Shows why a form was refused: what to say above all, and the places that are marked. */
export function refused(error: unknown, views: FormViews, words: Words): { sentence: string; marked: Marked[] } {
  const problem = error instanceof ServiceError ? error : new ServiceError(0, String(error));
  if (problem.status === 0 || problem.status >= 500) {
    const reason = problem.status ? problem.message : words.say("noAnswer");
    return { sentence: `${reason} ${words.say("nothingLost")}`, marked: [] };
  }
  const others = problem.places.filter((place) => !placed(place, views, words));
  const marked = views.inOrder().filter((one) => one.hasProblem).map(asMarked);
  const count = marked.length + others.length;
  const sentence = count
    ? [words.say("attention", { count }), ...others.map((other) => words.problem(other))].join(" ")
    : problem.message;
  return { sentence, marked };
}

/** Shows a problem at its field or slot; false where there is none for it. */
function placed(place: Place, views: FormViews, words: Words): boolean {
  const [, kind, key] = place.pointer.split("/");
  const field = kind === "values" ? views.fields.get(key ?? "") : undefined;
  const slot = views.slots.find((one) => (field ? one.fields.includes(field) : one.slot.key === key));
  if (!field) {
    slot?.setProblem(words.problem(place));
    return slot !== undefined;
  }
  slot?.unfold();
  field.shown = true;
  field.setProblem(words.problem(place));
  return true;
}

/** Marks what is needed and not given among some items; the parts of addresses as a whole. */
export function markMissing(views: FormViews, keys: ReadonlySet<string>, words: Words): Marked[] {
  const parts = new Set(views.slots.flatMap((slot) => slot.fields));
  const missing = views.inOrder(keys).filter((one) => {
    if (!one.shown || !one.isEmpty) return false;
    return one instanceof SlotView ? one.isNeeded : one.isRequired && !parts.has(one);
  });
  for (const one of missing) {
    one.setProblem(words.say(one instanceof SlotView ? "addressIsNeeded" : "isNeeded"));
  }
  return missing.map(asMarked);
}

function asMarked(view: FieldView | SlotView): Marked {
  return { view, label: view instanceof SlotView ? view.slot.label : view.label, problem: view.problemText };
}
