/** The shapes of the answers that the console works with; those of forms are the embed's own. */

import type { FormDocument } from "../../../embed/src/form/model";

export type { Field, FormDocument, Rule, Slot } from "../../../embed/src/form/model";
export type { FillAnswer } from "../../../embed/src/service";

export interface Session {
  email: string;
  name: string;
  csrf_token: string;
}

export interface Overview {
  editions: { dataset: string; number: number; addresses: number; countries: string[] }[];
  forms: number;
  forms_published: number;
  drafts_waiting: number;
  records: number;
  records_last_week: number;
  captured: number;
  picked: number;
  picked_unchanged: number;
}

export interface FormSummary {
  key: string;
  kind: "record" | "web";
  title: string;
  published_version: number | null;
  draft_differs: boolean;
  record_count: number;
  changed_at: string;
}

export interface Draft {
  document: FormDocument;
  form: FormSummary;
}

export interface RecordSummary {
  id: string;
  form: string;
  form_version: number;
  label: string;
  made_at: string;
  made_by: string;
}

export interface RecordPage {
  records: RecordSummary[];
  total: number;
  after: string | null;
}

export interface CapturedAddress {
  label: string;
  country_code: string;
  components: Record<string, string>;
  component_labels: Record<string, string>;
  facts: { latitude: number | null; longitude: number | null; use: string | null };
  lines: string[];
  address_id: string | null;
  edition: string | null;
  typed: string;
  changed: string[];
  layout: string;
  notes: string[];
}

export interface RecordAnswer extends RecordSummary {
  values: Record<string, string | number | boolean | null>;
  /** What the form calls the fields, by their keys. */
  labels: Record<string, string>;
  slots: Record<string, CapturedAddress>;
}
