/** Reference data as the service answers it. */

export type JobState = "receiving" | "waiting" | "running" | "done" | "failed" | "cancelled";

export interface Job {
  id: string;
  kind: "load" | "rebuild" | "compare";
  dataset: string;
  state: JobState;
  phase: string;
  source_name: string;
  edition: number | null;
  rows_done: number;
  rows_bad: number;
  rows_per_second: number;
  seconds: number;
  seconds_left: number | null;
  made_at: string;
  made_by: string;
  message: string;
  file_bytes: number | null;
}

export interface Rules {
  bad_share: number;
  automatic: boolean;
  gone_share: number;
  changed_share: number;
  moved_share: number;
  moved_m: number;
  keep: number;
}

export interface DatasetSummary {
  name: string;
  active_edition: number | null;
  addresses: number;
  editions: number;
  disk_bytes: number;
  open_job: Job | null;
}

export interface EditionSummary {
  number: number;
  active: boolean;
  addresses: number;
  rows_used: number;
  rows_bad: number;
  source_name: string;
  built_at: string | null;
  activated_at: string | null;
  changes_to: number | null;
  index_bytes: number;
  rows_bytes: number;
  rows_kept: boolean;
}

export interface Dataset {
  name: string;
  active_edition: number | null;
  previous_edition: number | null;
  rules: Rules;
  editions: EditionSummary[];
  jobs: Job[];
}

export interface Finding {
  name: string;
  title: string;
  advice: string;
  left_out: boolean;
  count: number;
  samples: { line: number; id: string; column: string; value: string }[];
}

export type DifferenceKind = "added" | "gone" | "changed" | "moved";

export interface Difference {
  id: string;
  before: string;
  after: string;
  components: string[];
  moved_m: number | null;
}

export interface TownDifferences extends Record<DifferenceKind, number> {
  country_code: string;
  town: string;
}

export interface Comparison extends Record<DifferenceKind, number> {
  base: number;
  before: number;
  after: number;
  moved_m: number;
  components: Record<string, number>;
  towns: TownDifferences[];
  towns_more: number;
  samples: Record<DifferenceKind, Difference[]>;
  against: string[];
}

export interface Edition extends EditionSummary {
  dataset: string;
  job: string | null;
  findings: Finding[];
  comparison: Comparison | null;
}

const OPEN: JobState[] = ["receiving", "waiting", "running"];

export function isOpen(job: Job): boolean {
  return OPEN.includes(job.state);
}
