/** Where a mapping is made: on a form, or on a target that is read as one. */

import type { FormDocument } from "../../api/schemas";
import type { Design } from "../kind";

/** A document with mappings, as the workbench reads and changes it: a form, whatever it is kept as. */
export interface Mapped {
  document: FormDocument;
  edit: (document: FormDocument, what: string) => void;
  /** As the service keeps it. */
  kept: FormDocument;
  /** Waits until all of it is kept. */
  now: () => Promise<unknown>;
}

export interface MappingPlace {
  /** The document's calls: `forms/supplier`. */
  whole: string;
  /** The calls of one of its addresses. */
  of: (slot: string) => string;
  /** The document as the service takes it. */
  sent: (document: FormDocument) => unknown;
  /** A place that the service names, as one in the form. */
  pointer: (given: string) => string;
  /** Where the button above the workbench leads. */
  back: string;
  /** Whether records are kept of it, and rules can be taken over from forms. */
  isForm: boolean;
}

export const onForm = (form: string): MappingPlace => ({
  whole: `forms/${form}`,
  of: (slot) => `forms/${form}/slots/${slot}`,
  sent: (document) => document,
  pointer: (given) => given,
  back: "Back to the form",
  isForm: true,
});

export const mappedForm = (design: Design): Mapped => ({
  document: design.document,
  edit: design.edit,
  kept: design.keeper.kept.body.document,
  now: () => design.keeper.now(),
});
