/** Undo and redo: the documents before and after, and where one was. */

export interface History<Document> {
  past: readonly Document[];
  present: Document;
  future: readonly Document[];
  /** What the last edit was about: the next one about the same is the same step. */
  about: string;
}

const MOST_STEPS = 300;

export function began<Document>(present: Document, before: readonly Document[] = []): History<Document> {
  return { past: before, present, future: [], about: "" };
}

/** After an edit; what is about the same as the last one, such as typing on, is one step with it. */
export function edited<Document>(history: History<Document>, next: Document, about = ""): History<Document> {
  if (next === history.present) return history;
  const goesOn = about !== "" && about === history.about && history.past.length > 0;
  const past = goesOn ? history.past : [...history.past, history.present].slice(-MOST_STEPS);
  return { past, present: next, future: [], about };
}

export function undone<Document>(history: History<Document>): History<Document> {
  const before = history.past.at(-1);
  if (before === undefined) return history;
  return { past: history.past.slice(0, -1), present: before, future: [history.present, ...history.future], about: "" };
}

export function redone<Document>(history: History<Document>): History<Document> {
  const [next, ...future] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.present], present: next, future, about: "" };
}

/** With a document that came from elsewhere; steps before it can still be undone. */
export function merged<Document>(history: History<Document>, next: Document): History<Document> {
  return { ...history, present: next, future: [], about: "" };
}

/** Where the only text stands that an edit has changed, as in typing; empty where it changed anything else. */
export function typedAt(before: unknown, after: unknown): string {
  const found = changedTexts(before, after, "");
  return found?.length === 1 ? (found[0] ?? "") : "";
}

/** Where texts differ; null where anything else does. */
function changedTexts(before: unknown, after: unknown, at: string): string[] | null {
  if (before === after) return [];
  if (typeof before === "string" && typeof after === "string") return [at];
  if (typeof before !== "object" || typeof after !== "object" || before === null || after === null) return null;
  const [one, other] = [Object.entries(before), new Map(Object.entries(after))];
  if (Array.isArray(before) !== Array.isArray(after) || one.length !== other.size) return null;
  const found: string[] = [];
  for (const [name, value] of one) {
    const inside = other.has(name) ? changedTexts(value, other.get(name), `${at}/${name}`) : null;
    if (inside === null) return null;
    found.push(...inside);
  }
  return found;
}
