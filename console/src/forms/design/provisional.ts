/** The logic of a form until the service has checked the change that was just made. */

import type { FormLogic } from "../../../../embed/src/form/logic";
import type { FormDocument } from "../../api/schemas";
import { isSlot, itemsOf } from "./edits";

/**
 * What the live form works with: the formulas that were checked last, and everything that is there
 * now; what has just been added stands in the order on the form.
 */
export function provisional(document: FormDocument, logic: FormLogic): FormLogic {
  const keys = itemsOf(document).flatMap((item) => (isSlot(item) ? [item.key, ...item.parts.map((part) => part.key)] : [item.key]));
  const known = new Set(logic.order);
  return keys.every((key) => known.has(key)) ? logic : { ...logic, order: keys };
}
