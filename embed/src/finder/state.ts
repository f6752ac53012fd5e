/**
 * What the finder knows, and how each thing that happens changes it: pure, without a browser.
 *
 * `request` numbers the latest request; an answer to any other one is ignored, so that an older
 * answer is never shown over a newer one.
 */

import type { Suggestion, Suggestions } from "../service";
import { ENGLISH, type Words } from "../words";

export type Status = "idle" | "waiting" | "slow" | "ready" | "empty" | "failed";

export interface FinderState {
  text: string;
  status: Status;
  rows: Suggestion[];
  /** Where the next page of an opened group begins; null where there is none. */
  after: string | null;
  /** Index into `options(state)`; -1 for none. */
  active: number;
  open: boolean;
  /** The groups that were opened, the innermost last. */
  groups: Suggestion[];
  request: number;
  /** What was read otherwise than it was typed, in words; empty where nothing was. */
  note: string;
}

export type Option =
  | { type: "row"; row: Suggestion }
  | { type: "back"; group: Suggestion }
  /** Take the group as far as it goes, and type in the rest. */
  | { type: "take"; group: Suggestion }
  | { type: "more" };

export type Action =
  | { type: "typed"; text: string }
  | { type: "requested" }
  | { type: "slow"; request: number }
  | {
      type: "answered";
      request: number;
      rows: Suggestion[];
      after: string | null;
      more: boolean;
      note: string;
    }
  | { type: "failed"; request: number }
  | { type: "moved"; by: 1 | -1; count: number }
  | { type: "pointed"; at: number }
  | { type: "shown" }
  | { type: "hidden" }
  | { type: "groupOpened"; group: Suggestion }
  | { type: "wentBack" }
  | { type: "picked"; label: string }
  /** The text is put back to what stood there before. */
  | { type: "restored"; text: string };

export const initial: FinderState = {
  text: "",
  status: "idle",
  rows: [],
  after: null,
  active: -1,
  open: false,
  groups: [],
  request: 0,
  note: "",
};

/** What a person should know of how an answer came about: one or two short sentences. */
export function noteOn(answer: Pick<Suggestions, "corrected" | "unmatched">, words: Words = ENGLISH): string {
  const read = Object.entries(answer.corrected).map(([typed, word]) => words.say("as", { typed, word }));
  const missing = answer.unmatched.map((word) => `“${word}”`);
  return [
    read.length ? words.say("readAs", { parts: read.join(", ") }) : "",
    missing.length ? words.say("notFound", { parts: missing.join(", ") }) : "",
  ]
    .filter(Boolean)
    .join(" ");
}

/** The rows of the list: a way back, the group itself, the suggestions, and a way on. */
export function options(state: FinderState, takesGroups = false): Option[] {
  const group = state.groups.at(-1);
  return [
    ...(group ? [{ type: "back", group } as const] : []),
    ...(group && takesGroups ? [{ type: "take", group } as const] : []),
    ...state.rows.map((row) => ({ type: "row", row }) as const),
    ...(group && state.after !== null ? [{ type: "more" } as const] : []),
  ];
}

/** The row that Enter takes where none is active: the only one. */
export function onlyRow(state: FinderState, takesGroups = false): number {
  if (state.rows.length !== 1 || state.after !== null || state.status === "waiting") return -1;
  return options(state, takesGroups).findIndex((option) => option.type === "row");
}

/** What is searched for: inside a group, what was typed after the group's label. */
export function question(state: FinderState): string {
  const group = state.groups.at(-1);
  return group ? state.text.slice(groupText(group).length).trim() : state.text.trim();
}

/** What stands in the input while a group is open. */
export function groupText(group: Suggestion): string {
  return `${group.label} `;
}

export function reduce(state: FinderState, action: Action): FinderState {
  switch (action.type) {
    case "typed":
      return typed(state, action.text);
    case "requested":
      return { ...state, request: state.request + 1, status: "waiting" };
    case "slow":
      return isOutdated(state, action.request) ? state : { ...state, status: "slow" };
    case "answered":
      return answered(state, action);
    case "failed":
      return isOutdated(state, action.request)
        ? state
        : { ...state, status: "failed", rows: [], after: null, active: -1, open: false };
    case "moved":
      return moved(state, action.by, action.count);
    case "pointed":
      return { ...state, active: action.at };
    case "shown":
      return { ...state, open: state.rows.length > 0 || state.groups.length > 0 };
    case "hidden":
      return { ...state, open: false, active: -1 };
    case "groupOpened":
      return {
        ...state,
        groups: [...state.groups, action.group],
        text: groupText(action.group),
        rows: [],
        after: null,
        active: -1,
        open: true,
        note: "",
      };
    case "wentBack":
      return wentBack(state);
    case "picked":
    case "restored":
      return { ...initial, text: action.type === "picked" ? action.label : action.text, request: state.request + 1 };
  }
}

function typed(state: FinderState, text: string): FinderState {
  // Whoever deletes into the group's label leaves the group.
  const groups = state.groups.filter((group) => text.startsWith(groupText(group).trimEnd()));
  const next = { ...state, text, groups, active: -1 };
  if (text.trim() || groups.length) return next;
  return { ...next, rows: [], after: null, open: false, status: "idle", request: state.request + 1 };
}

function answered(
  state: FinderState,
  answer: Extract<Action, { type: "answered" }>,
): FinderState {
  if (isOutdated(state, answer.request)) return state;
  const rows = answer.more ? [...state.rows, ...answer.rows] : answer.rows;
  const next: FinderState = {
    ...state,
    rows,
    after: answer.after,
    status: rows.length ? "ready" : "empty",
    note: rows.length ? answer.note : "",
    active: answer.more ? state.active : -1,
  };
  return { ...next, open: options(next).length > 0 };
}

function moved(state: FinderState, by: 1 | -1, count: number): FinderState {
  if (!count) return state;
  if (!state.open) return { ...state, open: true, active: by === 1 ? 0 : count - 1 };
  // One step beyond either end is the input itself.
  const next = state.active + by;
  if (next === count) return { ...state, active: -1 };
  return { ...state, active: next < -1 ? count - 1 : next };
}

function wentBack(state: FinderState): FinderState {
  const groups = state.groups.slice(0, -1);
  const outer = groups.at(-1);
  const text = outer ? groupText(outer) : (state.groups[0]?.label ?? state.text);
  return { ...state, groups, text, active: -1, rows: [], after: null };
}

function isOutdated(state: FinderState, request: number): boolean {
  return request !== state.request;
}
