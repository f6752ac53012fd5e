/** The answers that the console works with, by the names that its pages use. */

import type * as api from "../../../embed/src/api";
import type { FormDocument } from "../../../embed/src/form/model";

export type { Field, FormDocument, Rule, RulePart, Slot } from "../../../embed/src/form/model";
export type { FillAnswer } from "../../../embed/src/service";

export type Session = api.SessionAnswer;
export type Overview = api.OverviewAnswer;
export type FormSummary = api.FormSummary;
export type Draft = Omit<api.FormDraft, "document"> & { document: FormDocument };
export type FormAnswer = Omit<api.FormAnswer, "document"> & { document: FormDocument };
export type Difference = api.DifferenceAnswer;
export type DocumentVersion = api.DocumentVersionSchema;
export type FieldType = api.FieldTypeSchema;
export type ReadyMade = Omit<api.ReadyMadeForm, "document"> & { document: FormDocument };
export type Proposal = Omit<api.TableAnswer, "document"> & { document: FormDocument };
export type ColumnGuess = api.ColumnGuess;
export type Editors = api.Editors;
export type FormulaFunction = api.FormulaFunction;
export type TryFormulaAnswer = api.TryFormulaAnswer;
export type RecordSummary = api.RecordSummary;
export type RecordPage = api.RecordList;
export type CapturedAddress = api.CapturedSchema;
export type RecordAnswer = api.RecordAnswer;
export type RecordHistory = api.RecordHistory;
