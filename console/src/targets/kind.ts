/** What the console says of targets. */

import type { KindOfDocument } from "../parts/documents/kind";

export const TARGETS: KindOfDocument = {
  path: "targets",
  plural: "targets",
  page: "/targets",
  lists: ["targets"],
  deleted: "Its versions go as well. Pages that attach to it go on without a finder; the desktop agent knows its screens no more.",
  restored: "Pages and desktop agents follow at once.",
  none: {
    button: "Put it out of use",
    question: "Put the target out of use?",
    ok: "Put it out of use",
    says: "Pages that attach to it go on without a finder, until a version is published again.",
    done: "No page or program can use the target any more.",
  },
};
