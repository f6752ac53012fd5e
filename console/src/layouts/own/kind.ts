/** What the console says of own layouts. */

import type { KindOfDocument } from "../../parts/documents/kind";
import { LISTS } from "./useOwn";

export const OWN_LAYOUTS: KindOfDocument = {
  path: "layouts/own",
  plural: "own_layouts",
  page: "/layouts/own",
  lists: LISTS,
  deleted: "The base layouts hold again at once. It cannot be brought back; what was captured with it stays.",
  restored: "Forms follow at once.",
  none: {
    button: "Restore the base layouts",
    question: "Restore the base layouts?",
    ok: "Restore them",
    says: "Forms follow at once. The versions of this layout stay.",
    done: "The base layouts hold again.",
  },
};
