/** Own layouts, as the service answers them; what may be left out of one stays optional. */

import type * as api from "../../../../embed/src/api";

export type ComponentChange = Partial<api.ComponentChangeSchema>;
export type LineChange = Partial<api.LineChangeSchema>;
export type OwnDocument = Omit<api.OwnLayoutDocument, "ask" | "lines"> & {
  ask: ComponentChange[];
  lines: LineChange[];
};
export type OwnSummary = api.OwnLayoutSummary;
export type Difference = api.DifferenceSchema;
export type Conflict = api.ConflictSchema;
export type OwnDraft = Omit<api.OwnLayoutDraft, "document"> & { document: OwnDocument };
export type PreviewComponent = api.PreviewComponent;
export type PreviewLine = api.PreviewLine;
export type Preview = api.PreviewAnswer;
export type Sample = api.SampleSchema;
