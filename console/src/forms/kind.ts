/** What the console says of forms. */

import type { KindOfDocument } from "../parts/documents/kind";

export const FORMS: KindOfDocument = {
  path: "forms",
  plural: "forms",
  page: "/forms",
  lists: ["forms", "overview"],
  deleted: "It cannot be brought back.",
  restored: "People meet that version from now on.",
  none: {
    button: "Close the form",
    question: "Close the form?",
    ok: "Close it",
    says: "Nobody can fill it any more, until a version is published again. Records stay.",
    done: "Nobody can fill the form any more.",
  },
};
