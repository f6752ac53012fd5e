/** The fields that a rule of a mapping writes. */

import type { Rule } from "./model";

export function ruleFills(rule: Rule): string[] {
  const lines = rule.fit ? [...rule.fit.into, ...(rule.fit.overflow ? [rule.fit.overflow] : [])] : [];
  return rule.into ? [rule.into, ...lines] : lines;
}
