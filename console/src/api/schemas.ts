/** The answers that the console works with, by the names that its pages use. */

import type * as api from "../../../embed/src/api";
import type { FormDocument } from "../../../embed/src/form/model";

export type { Field, FormDocument, Rule, Slot } from "../../../embed/src/form/model";
export type { FillAnswer } from "../../../embed/src/service";

export type Session = api.SessionAnswer;
export type Overview = api.OverviewAnswer;
export type FormSummary = api.FormSummary;
export type Draft = Omit<api.DraftAnswer, "document"> & { document: FormDocument };
export type RecordSummary = api.RecordSummary;
export type RecordPage = api.RecordList;
export type CapturedAddress = api.CapturedSchema;
export type RecordAnswer = api.RecordAnswer;
