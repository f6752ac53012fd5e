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
