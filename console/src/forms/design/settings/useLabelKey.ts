/** A key that was made by itself follows the label, once that is written. */

import { nameOf, itemOf, typeOf } from "../edits";
import { useFieldTypes } from "../fieldTypes";
import { keyFrom, keysOf, renamed } from "../keys";
import type { Design } from "../../kind";
import { isCaptured } from "./KeySetting";

/** What to do when a label has been written. */
export function useLabelKey(design: Design, itemKey: string, select: (key: string) => void): () => void {
  const types = useFieldTypes();
  return () => {
    const { document, edit } = design;
    const item = itemOf(document, itemKey);
    if (!item?.label || isCaptured(design, itemKey)) return;
    const type = typeOf(item);
    const title = type === "slot" ? "Address" : (types.find((one) => one.name === type)?.title ?? "");
    // Keys that somebody chose, or that are made from another label already, stay.
    const isMadeByItself = itemKey.replace(/_\d+$/, "") === keyFrom(title, new Set());
    if (!isMadeByItself || item.label === title) return;
    const taken = keysOf(document);
    taken.delete(itemKey);
    const key = keyFrom(nameOf(item), taken, type === "slot" ? "address" : "field");
    if (key === itemKey) return;
    let next = renamed(document, itemKey, key);
    for (const part of "parts" in item ? item.parts : []) {
      if (part.key.startsWith(`${itemKey}_`)) next = renamed(next, part.key, part.key.replace(itemKey, key));
    }
    edit(next);
    select(key);
  };
}
