/** What the console says of forms, and of what they are made. */

import type { Draft, FormDocument } from "../api/schemas";
import type { KindOfDocument } from "../parts/documents/kind";
import type { Shape } from "../parts/documents/merge";
import type { Edited } from "../parts/documents/useKeeping";
import { bare } from "./design/bare";
import { type Item, isSlot, itemsOf, nameOf } from "./design/edits";

/** Fields and addresses stand in one order, whichever list of the document an item is in. */
export const FORM: Shape<FormDocument> = {
  whole: "The form",
  apart: (document) => {
    const { fields: _fields, slots: _slots, ...settings } = document;
    return { settings, lists: { "": itemsOf(document) } };
  },
  together: ({ settings, lists }) => {
    const items = (lists[""] ?? []) as Item[];
    const fields = items.map((item) => (isSlot(item) ? { slot: item.key } : item));
    return { ...settings, fields, slots: items.filter(isSlot) } as FormDocument;
  },
  keyOf: (_list, item) => (item as Item).key,
  labelOf: (_list, item) => nameOf(item as Item),
};

export const FORMS: KindOfDocument<FormDocument> = {
  path: "forms",
  plural: "forms",
  page: "/forms",
  lists: ["forms", "overview"],
  shape: FORM,
  plain: bare,
  deleted: "Its draft and all its versions are deleted. It cannot be brought back.",
  restored: "People meet that version from now on.",
  publishing: {
    first: ({ kind }) =>
      `Nothing of this form is published yet. From now on ${kind === "web" ? "anyone can fill it at its public page" : "staff can fill it"}.`,
    from: "For everybody who fills the form from now on:",
    note: "Pages that are open now can still be sent as they are.",
  },
  none: {
    button: "Close the form",
    question: "Close the form?",
    ok: "Close it",
    says: "Nobody can fill it any more, until a version is published again. Records stay.",
    done: "Nobody can fill the form any more.",
  },
};

/** A form that is being made. */
export type Design = Edited<FormDocument, Draft>;
