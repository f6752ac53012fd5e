/** Own layouts, as the service answers them. */

import type { Place } from "../../api/call";

export interface ComponentChange {
  component?: string | null;
  extra?: string | null;
  label?: Record<string, string>;
  required?: boolean | null;
  hidden?: boolean;
  add?: boolean;
  first?: boolean;
  after?: string | null;
}

export interface LineChange {
  add?: string | null;
  change?: string | null;
  to?: string | null;
  drop?: string | null;
  first?: boolean;
  after?: string | null;
  script?: string;
}

export interface OwnDocument {
  key: string;
  title: string;
  countries: string[];
  forms: string[];
  ask: ComponentChange[];
  lines: LineChange[];
}

export interface OwnSummary {
  key: string;
  title: string;
  countries: string[];
  forms: string[];
  published_version: number | null;
  draft_differs: boolean;
  changed_at: string;
  conflicts: number;
}

export interface Difference {
  country_code: string;
  about: string;
  detail: string;
}

export interface Conflict {
  country_code: string;
  pointer: string;
  was: string;
  now: string;
  detail: string;
}

export interface OwnDraft {
  document: OwnDocument;
  own_layout: OwnSummary;
  problems: Place[];
  conflicts: Conflict[];
  differences: Difference[];
}

export interface PreviewComponent {
  component: string;
  label: string;
  labels: Record<string, string>;
  required: boolean;
  added: boolean;
  change: number | null;
}

export interface PreviewLine {
  line: string;
  was: string | null;
  change: number | null;
  dropped: boolean;
}

export interface Preview {
  country_code: string;
  name: string;
  languages: string[];
  base: PreviewComponent[];
  components: PreviewComponent[];
  hidden: { component: string; label: string }[];
  lines: Record<string, PreviewLine[]>;
  written: string[];
  written_base: string[];
  differences: Difference[];
  problems: Place[];
}

export interface Sample {
  label: string;
  components: Record<string, string>;
  record: string | null;
  form: string | null;
}

export interface Version {
  number: number;
  published_at: string;
  published_by: string;
  in_force: boolean;
}
