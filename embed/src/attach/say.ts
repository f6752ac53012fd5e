/**
 * What is wrong with how a page is attached: said once to whoever builds it, with the remedy, and
 * counted by the service for the administrator. Nothing that somebody typed is ever in it.
 */

import type * as api from "../api";

export type FaultKind = api.TargetFaultReport["kind"];
/** Says a mistake; `subject` is what it is about: a field's key, an attribute, a path. */
export type Say = (kind: FaultKind, subject: string, text: string) => void;
type Report = (fault: api.TargetFaultReport) => void;

const said = new Set<string>();

/** Says a sentence on the developer console, once; whether it was new. */
export function warn(target: string, text: string): boolean {
  const message = `Anchorline, target “${target}”: ${text}`;
  if (said.has(message)) return false;
  said.add(message);
  console.warn(message);
  return true;
}

export function sayer(target: string, report: Report): Say {
  return (kind, subject, text) => {
    if (warn(target, text)) report({ kind, subject: subject.slice(0, 200), detail: text.slice(0, 600) });
  };
}
