/** What a page's inputs are, as a target is proposed from them: never what stands in them. */

import type * as api from "../api";
import { isCombobox } from "./combobox";
import { labelsOf, writableIn } from "./finding";
import { type Tree, treesIn } from "./trees";

const MOST_INPUTS = 200;
const MOST_OPTIONS = 400;
const LONGEST = 200;

/** The inputs of a page into which text is written, in their order. */
export function seenInputs(page: Tree): api.SeenInputSchema[] {
  const all = [...treesIn(page)].flatMap((tree) => [...writableIn(tree)]);
  return all.slice(0, MOST_INPUTS).map((element) => {
    const isList = element.localName === "select" || isCombobox(element);
    const options = element.localName === "select" ? Array.from((element as HTMLSelectElement).options).slice(0, MOST_OPTIONS) : [];
    const longest = (element as HTMLInputElement).maxLength ?? -1;
    return {
      element: isList ? "select" : element.localName === "textarea" ? "textarea" : "input",
      name: short(element.getAttribute("name")),
      id: short(element.id),
      autocomplete: short(element.getAttribute("autocomplete")),
      class_name: short(element.classList.item(0)),
      label: short(labelsOf(element).find((label) => label.trim())),
      placeholder: short(element.getAttribute("placeholder")),
      options: options.map((option) => ({ value: short(option.value), text: short(option.text) })),
      max_length: longest > 0 && longest <= 10_000 ? longest : null,
    };
  });
}

/** A text as it is told of: in one line, without what stands behind labels, not too long. */
export function short(text: string | null | undefined): string {
  return (text ?? "").replace(/[\s\p{Cc}]+/gu, " ").replace(/[\s:*]+$/u, "").trim().slice(0, LONGEST);
}
