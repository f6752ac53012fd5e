/** What a field of a target is on the page now. */

import { type Found, type PageFieldSchema, findBy } from "../finding";
import { typeOf } from "../holders";
import { ComboboxControl } from "./combobox";
import type { Control } from "./control";
import { ListControl } from "./list";
import { RadioControl } from "./radio";
import { RegionControl } from "./region";
import { SplitControl } from "./split";
import { SwitchControl } from "./switch";
import { TextControl } from "./text";

export interface FoundField extends Omit<Found, "element"> {
  control: Control | null;
}

export function findField(field: PageFieldSchema): FoundField {
  const pieces = field.pieces ?? [];
  if (!pieces.length) {
    const { element, ...found } = findBy(document, field.find ?? [], field.type);
    return { ...found, control: element && controlOf(element, field.writes) };
  }
  const found = pieces.map((piece) => findBy(document, piece.find ?? []));
  const controls = found.flatMap(({ element }) => (element ? controlOf(element, "any") : []) ?? []);
  const lengths = pieces.map((piece, at) => piece.max_length ?? lengthOf(found[at]?.element));
  return {
    control: controls.length === pieces.length ? new SplitControl(controls, lengths) : null,
    count: Math.max(...found.map((one) => one.count)),
    fault: found.map((one) => one.fault).find(Boolean) ?? "",
    other: found.map((one) => one.other).find(Boolean) ?? "",
  };
}

/** The control that an element is; null where it holds nothing. */
export function controlOf(element: HTMLElement, writes: PageFieldSchema["writes"]): Control | null {
  const type = typeOf(element);
  if (type === "list") return element.localName === "select" ? new ListControl(element as HTMLSelectElement, writes) : new ComboboxControl(element, writes);
  if (type === "radio") return new RadioControl(element, writes);
  if (type === "switch") return new SwitchControl(element);
  if (type === "region") return new RegionControl(element);
  return type ? new TextControl(element as HTMLInputElement, type) : null;
}

function lengthOf(element: HTMLElement | null | undefined): number | null {
  const longest = (element as HTMLInputElement | null | undefined)?.maxLength ?? -1;
  return longest > 0 ? longest : null;
}
