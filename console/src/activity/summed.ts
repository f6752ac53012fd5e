/** Days added up by form and page. */

import type * as api from "../../../embed/src/api";

export interface Whole {
  key: string;
  kind: api.QualityDay["kind"];
  title: string;
  counts: api.DayCounts;
}

/** One for each form and page, those that were shown most first. */
export function summed(days: readonly api.QualityDay[]): Whole[] {
  const found = new Map<string, Whole>();
  for (const { kind, name, title, counts } of days) {
    const key = `${kind} ${name}`;
    const there = found.get(key);
    if (!there) {
      found.set(key, { key, kind, title, counts: { ...counts } });
      continue;
    }
    for (const one of Object.keys(counts) as (keyof api.DayCounts)[]) there.counts[one] += counts[one];
  }
  return [...found.values()].sort((a, b) => b.counts.shown - a.counts.shown);
}
