/**
 * Changing an own layout's document: pure functions from one document to the next.
 *
 * A document holds differences only. What is set back to what the base layout says leaves no
 * trace in it.
 */

import type { ComponentChange, LineChange, OwnDocument, PreviewLine } from "./schemas";

export function nameOf(change: ComponentChange): string {
  return change.extra ?? change.component ?? "";
}

/** The entry about a component, or an empty one. */
export function entryFor(document: OwnDocument, component: string): ComponentChange {
  return document.ask.find((change) => nameOf(change) === component) ?? { component };
}

/** Changes the entry about a component; an entry that says nothing more is taken out. */
export function changeComponent(document: OwnDocument, component: string, part: ComponentChange): OwnDocument {
  const at = document.ask.findIndex((change) => nameOf(change) === component);
  const entry = simplified({ ...entryFor(document, component), ...part });
  const says = Object.keys(entry).some((name) => name !== "component");
  if (at < 0) return says ? { ...document, ask: [...document.ask, entry] } : document;
  const ask = says ? document.ask.with(at, entry) : document.ask.toSpliced(at, 1);
  return { ...document, ask };
}

/** Forgets everything that is said about a component. */
export function forgetComponent(document: OwnDocument, component: string): OwnDocument {
  return { ...document, ask: document.ask.filter((change) => nameOf(change) !== component) };
}

/** Gives a component a label in a language; an empty one is as in the base layout. */
export function relabel(document: OwnDocument, component: string, language: string, text: string): OwnDocument {
  const { [language]: _before, ...others } = entryFor(document, component).label ?? {};
  return changeComponent(document, component, { label: text ? { ...others, [language]: text } : others });
}

/** A name for an extra from what people call it: small letters and `_`, and not taken yet. */
export function extraName(label: string, taken: readonly string[]): string {
  const plain = label
    .normalize("NFD")
    .toLowerCase()
    .replace(/\p{M}/gu, "")
    .replace(/[^a-z]+/g, "_")
    .replace(/^_+|_+$/g, "")
    .slice(0, 28);
  const base = plain.length < 2 ? "extra" : plain;
  let name = base;
  for (let round = 0; taken.includes(name); round++) name = `${base}_${String.fromCharCode(97 + round)}`;
  return name;
}

/**
 * Has components asked for in an order: those that stand otherwise than in the base, and those that are
 * added, say after which one they come.
 */
export function arrange(document: OwnDocument, base: readonly string[], wanted: readonly string[]): OwnDocument {
  const kept = new Set(longestKept(base.filter((name) => wanted.includes(name)), wanted));
  let next: OwnDocument = document;
  for (const name of wanted) {
    if (kept.has(name)) next = changeComponent(next, name, { first: false, after: null });
  }
  const moved = wanted.filter((name) => !kept.has(name));
  for (const name of moved) {
    const before = wanted[wanted.indexOf(name) - 1];
    next = changeComponent(next, name, before === undefined ? { first: true, after: null } : { first: false, after: before });
  }
  // They are placed one after the other, so they must stand in the order that is wanted.
  const entries = moved.map((name) => entryFor(next, name));
  return { ...next, ask: [...next.ask.filter((change) => !moved.includes(nameOf(change))), ...entries] };
}

/** Moves a name one place up (-1) or down (1). */
export function shifted(names: readonly string[], name: string, by: -1 | 1): string[] {
  const at = names.indexOf(name);
  const to = at + by;
  if (at < 0 || to < 0 || to >= names.length) return [...names];
  return names.toSpliced(at, 1).toSpliced(to, 0, name);
}

/** The most names of one order that stand in the same order in another. */
function longestKept(from: readonly string[], to: readonly string[]): string[] {
  let best: string[][] = [];
  for (const name of to.filter((one) => from.includes(one))) {
    const place = from.indexOf(name);
    const before = best.filter((run) => from.indexOf(run.at(-1) ?? "") < place);
    const longest = before.reduce<string[]>((a, b) => (b.length > a.length ? b : a), []);
    best = [...best, [...longest, name]];
  }
  return best.reduce<string[]>((a, b) => (b.length > a.length ? b : a), []);
}

// Lines

/** Writes a line otherwise: one of the base layout, or one that was added. */
export function rewriteLine(document: OwnDocument, row: PreviewLine, script: string, text: string): OwnDocument {
  const at = changeOf(document.lines, row, script);
  if (row.was === null) {
    const entry = document.lines[at];
    return entry ? renameAnchors(putLine(document, at, { ...entry, add: text }), row.line, text) : document;
  }
  if (text === row.was) return at < 0 ? document : takeOutLine(document, at);
  return putLine(document, at, { change: row.was, to: text, script });
}

/** Has a line no longer written, or an added one taken out again. */
export function dropLine(document: OwnDocument, row: PreviewLine, script: string): OwnDocument {
  const at = changeOf(document.lines, row, script);
  if (row.was !== null) return putLine(document, at, { drop: row.was, script });
  const after = document.lines[at]?.after ?? null;
  return takeOutLine(renameAnchors(document, row.line, after), at);
}

/** Has a line that was changed or dropped written as in the base layout. */
export function restoreLine(document: OwnDocument, row: PreviewLine, script: string): OwnDocument {
  const at = changeOf(document.lines, row, script);
  return at < 0 ? document : takeOutLine(document, at);
}

/** Adds a line after another one, or before all others. */
export function addLine(document: OwnDocument, text: string, after: string | null, script: string): OwnDocument {
  return addLineChange(document, after === null ? { add: text, first: true, script } : { add: text, after, script });
}

/**
 * The rows to show: those that the service answered, as the document has them now. An added line
 * that could not be read stays where it was, so that nothing goes under the hands of who is typing.
 */
export function currentRows(
  answered: readonly PreviewLine[],
  before: readonly PreviewLine[],
  changes: readonly LineChange[],
  script: string,
): PreviewLine[] {
  const rows = answered.flatMap((row) => {
    const at = changeOf(changes, row, script);
    const change = changes[at];
    if (row.was === null) return change?.add == null ? [] : [{ ...row, line: change.add }];
    const dropped = change?.drop != null;
    return [{ line: change?.to ?? row.was, was: row.was, change: at < 0 ? null : at, dropped }];
  });
  changes.forEach((change, index) => {
    if (change.add == null || scriptOf(change) !== script || rows.some((row) => row.change === index)) return;
    const place = before.findIndex((row) => row.change === index);
    const row = { line: change.add, was: null, change: index, dropped: false };
    rows.splice(place < 0 ? rows.length : Math.min(place, rows.length), 0, row);
  });
  return rows;
}

/** Where the entry about a row stands now, whatever stood where when the row was answered; or -1. */
function changeOf(changes: readonly LineChange[], row: PreviewLine, script: string): number {
  if (row.was === null) return row.change ?? -1;
  return changes.findIndex(
    (change) => scriptOf(change) === script && (change.change === row.was || change.drop === row.was),
  );
}

function scriptOf(change: LineChange): string {
  return change.script ?? "";
}

function addLineChange(document: OwnDocument, change: LineChange): OwnDocument {
  return { ...document, lines: [...document.lines, withoutEmpty(change)] };
}

function putLine(document: OwnDocument, at: number, change: LineChange): OwnDocument {
  if (at < 0) return addLineChange(document, change);
  return { ...document, lines: document.lines.with(at, withoutEmpty(change)) };
}

function takeOutLine(document: OwnDocument, at: number): OwnDocument {
  return { ...document, lines: document.lines.toSpliced(at, 1) };
}

/** Lines that follow one whose text is another now follow it still. */
function renameAnchors(document: OwnDocument, from: string, to: string | null): OwnDocument {
  const lines = document.lines.map((change) => (change.after === from ? withoutEmpty({ ...change, after: to }) : change));
  return { ...document, lines };
}

function withoutEmpty(change: LineChange): LineChange {
  return Object.fromEntries(
    Object.entries(change).filter(([, value]) => value !== null && value !== undefined && value !== "" && value !== false),
  );
}

function simplified(change: ComponentChange): ComponentChange {
  return Object.fromEntries(
    Object.entries(change).filter(([name, value]) => {
      if (name === "label") return Object.keys((value as object | undefined) ?? {}).length > 0;
      return value !== null && value !== undefined && (value !== false || name === "required");
    }),
  );
}
