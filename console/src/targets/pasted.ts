/** The fields in HTML that was pasted: it is read, and nothing in it runs or is fetched. */

import { seenFields } from "../../../embed/src/attach/seen";
import type { SeenField } from "./useTargets";

export function fieldsOf(html: string): SeenField[] {
  return seenFields(new DOMParser().parseFromString(html, "text/html"));
}
