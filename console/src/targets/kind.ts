/** What the console says of targets, and of what they are made. */

import type { KindOfDocument } from "../parts/documents/kind";
import { shapeOf } from "../parts/documents/merge";
import type { AnyTarget } from "./useTargets";

type Named = { key: string; label?: string | null };
const NAMED = { keyOf: (item: object) => (item as Named).key, labelOf: (item: object) => (item as Named).label ?? (item as Named).key };

export const TARGETS: KindOfDocument<AnyTarget> = {
  path: "targets",
  plural: "targets",
  page: "/targets",
  lists: ["targets"],
  shape: shapeOf<AnyTarget>("The target", { fields: NAMED, addresses: NAMED }),
  plain: (document) => document,
  deleted: "Its versions go as well. Pages that attach to it go on without a finder; the desktop agent knows its screens no more.",
  restored: "Pages and desktop agents follow at once.",
  publishing: {
    first: ({ kind }) =>
      `Nothing of this target is published yet. From now on ${kind === "program" ? "desktop agents know its screens" : "pages can attach to it"}.`,
    from: "Pages and desktop agents follow at once:",
  },
  none: {
    button: "Put it out of use",
    question: "Put the target out of use?",
    ok: "Put it out of use",
    says: "Pages that attach to it go on without a finder, until a version is published again.",
    done: "No page or program can use the target any more.",
  },
};
