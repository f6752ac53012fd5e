/** Where a problem of a draft is: the item that its pointer leads to. */

import type { Place } from "../../api/call";
import type { FormDocument } from "../../api/schemas";
import { keyOfEntry } from "./edits";

export interface FoundProblem {
  /** Of the field or slot; empty for the form itself. */
  key: string;
  /** The setting, such as `shown_when`; of a slot's rule, `mapping`. */
  setting: string;
  detail: string;
  at: number | null;
  length: number | null;
}

export function located(document: FormDocument, places: readonly Place[]): FoundProblem[] {
  return places.map(({ pointer, detail, at, length }) => {
    const [, group = "", index = "", setting = ""] = pointer.split("/");
    const entry = group === "fields" ? document.fields[Number(index)] : undefined;
    const slot = group === "slots" ? document.slots[Number(index)] : undefined;
    const key = index === "" ? "" : entry ? keyOfEntry(entry) : (slot?.key ?? "");
    return { key, setting: key ? setting : group, detail, at: at ?? null, length: length ?? null };
  });
}
