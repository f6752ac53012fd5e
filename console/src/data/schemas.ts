/** Reference data as the service answers it. */

import type * as api from "../../../embed/src/api";

export type Job = api.JobAnswer;
export type JobState = Job["state"];
export type Rules = api.RulesSchema;
export type DatasetSummary = api.DatasetSummary;
export type EditionSummary = api.EditionSummary;
export type Dataset = api.DatasetAnswer;
export type Finding = api.FindingSchema;
export type Difference = api.DifferenceSample;
export type DifferenceKind = "added" | "gone" | "changed" | "moved";
export type TownDifferences = api.TownDifferences;
export type Comparison = Omit<api.ComparisonSchema, "samples"> & { samples: Record<DifferenceKind, Difference[]> };
export type Edition = Omit<api.EditionAnswer, "comparison"> & { comparison: Comparison | null };

const OPEN: JobState[] = ["receiving", "waiting", "running"];

export function isOpen(job: Job): boolean {
  return OPEN.includes(job.state);
}
