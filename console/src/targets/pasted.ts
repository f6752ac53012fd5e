/** The inputs in HTML that was pasted: it is read, and nothing in it runs or is fetched. */

import { seenInputs } from "../../../embed/src/attach/seen";
import type { SeenInput } from "./useTargets";

export function inputsOf(html: string): SeenInput[] {
  return seenInputs(new DOMParser().parseFromString(html, "text/html"));
}
