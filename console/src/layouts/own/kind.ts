/** What the console says of own layouts, and of what they are made. */

import type { KindOfDocument } from "../../parts/documents/kind";
import { shapeOf } from "../../parts/documents/merge";
import { nameOf } from "./changes";
import type { ComponentChange, LineChange, OwnDocument } from "./schemas";
import { LISTS } from "./useOwn";

/** The line of the base layout that a change is about, or the one that it adds, with its script. */
const lineOf = ({ change, drop, add, script }: LineChange): string => `${change ?? drop ?? add ?? ""} ${script ?? ""}`.trim();

export const OWN_LAYOUTS: KindOfDocument<OwnDocument> = {
  path: "layouts/own",
  plural: "own_layouts",
  page: "/layouts/own",
  lists: LISTS,
  shape: shapeOf<OwnDocument>("The layout", {
    ask: { keyOf: (item) => nameOf(item as ComponentChange), labelOf: (item) => nameOf(item as ComponentChange) },
    lines: { keyOf: (item) => lineOf(item as LineChange), labelOf: (item) => lineOf(item as LineChange) },
  }),
  plain: (document) => document,
  deleted: "The base layouts hold again at once. It cannot be brought back; what was captured with it stays.",
  restored: "Forms follow at once.",
  publishing: {
    first: () => "Nothing of this layout is published yet. Forms follow at once; it says otherwise than its base layouts:",
    from: "Forms follow at once:",
  },
  none: {
    button: "Restore the base layouts",
    question: "Restore the base layouts?",
    ok: "Restore them",
    says: "Forms follow at once. The versions of this layout stay.",
    done: "The base layouts hold again.",
  },
};
