import { describe, expect, it } from "vitest";

import type { Suggestion } from "../src/service";
import { type Action, type FinderState, initial, noteOn, onlyRow, options, question, reduce } from "../src/finder/state";

const row = (id: string, count = 1): Suggestion => ({
  id,
  kind: count > 1 ? "street" : "address",
  label: `Label ${id}`,
  country_code: "GB",
  count,
  matches: [],
});

function after(...actions: Action[]): FinderState {
  return actions.reduce(reduce, initial);
}

const typed: Action[] = [{ type: "typed", text: "lab" }, { type: "requested" }];
const answer = (request: number, rows: Suggestion[], next: string | null = null): Action => ({
  type: "answered",
  request,
  rows,
  after: next,
  more: false,
  note: "",
});

describe("what is said of an answer", () => {
  it("names what was read otherwise, and what there is not", () => {
    expect(noteOn({ corrected: {}, unmatched: [] })).toBe("");
    expect(noteOn({ corrected: { cresent: "crescent" }, unmatched: ["99"] })).toBe(
      "Read “cresent” as “crescent”. Not found: “99”.",
    );
  });

  it("goes with the rows that it is about", () => {
    const noted = { ...answer(1, [row("a")]), note: "Read “a” as “b”." } as Action;
    expect(after(...typed, noted).note).toBe("Read “a” as “b”.");
    expect(after(...typed, noted, { type: "requested" }, answer(2, [row("a")])).note).toBe("");
  });
});

describe("the finder's state", () => {
  it("shows an answer to the latest question", () => {
    const state = after(...typed, answer(1, [row("a")]));
    expect([state.status, state.open, options(state).length]).toEqual(["ready", true, 1]);
  });

  it("ignores an answer to an earlier question, whichever comes first", () => {
    const late = after(...typed, { type: "requested" }, answer(2, [row("new")]), answer(1, [row("old")]));
    expect(late.rows.map((r) => r.id)).toEqual(["new"]);
    const early = after(...typed, { type: "requested" }, answer(1, [row("old")]));
    expect(early.rows).toEqual([]);
  });

  it("ignores a failure of an earlier question", () => {
    const state = after(...typed, { type: "requested" }, { type: "failed", request: 1 });
    expect(state.status).toBe("waiting");
  });

  it("leaves what was typed alone when nothing is found or the service fails", () => {
    expect(after(...typed, answer(1, [])).text).toBe("lab");
    const failed = after(...typed, { type: "failed", request: 1 });
    expect([failed.text, failed.status, failed.open]).toEqual(["lab", "failed", false]);
  });

  it("moves through the rows and the input in a ring", () => {
    let state = after(...typed, answer(1, [row("a"), row("b")]));
    const seen = [];
    for (let i = 0; i < 4; i++) {
      state = reduce(state, { type: "moved", by: 1, count: 2 });
      seen.push(state.active);
    }
    expect(seen).toEqual([0, 1, -1, 0]);
    expect(reduce({ ...state, active: -1 }, { type: "moved", by: -1, count: 2 }).active).toBe(1);
  });

  it("opens a group in place, searches inside it, and goes back", () => {
    const open = after(...typed, answer(1, [row("g", 9)]), { type: "groupOpened", group: row("g", 9) });
    expect([open.text, question(open)]).toEqual(["Label g ", ""]);
    const inside = reduce(open, { type: "typed", text: "Label g 12" });
    expect([question(inside), inside.groups.length]).toEqual(["12", 1]);
    expect(options(inside)[0]?.type).toBe("back");
    const back = reduce(inside, { type: "wentBack" });
    expect(back.groups).toEqual([]);
  });

  it("leaves the group when its label is deleted into", () => {
    const open = after({ type: "groupOpened", group: row("g", 9) });
    expect(reduce(open, { type: "typed", text: "Lab" }).groups).toEqual([]);
    expect(reduce(open, { type: "typed", text: "Label g" }).groups.length).toBe(1);
  });

  it("adds further pages of a group below the first", () => {
    const open = after({ type: "groupOpened", group: row("g", 9) }, { type: "requested" });
    const first = reduce(open, answer(1, [row("a")], "50"));
    expect(options(first).map((o) => o.type)).toEqual(["back", "row", "more"]);
    const both = reduce(reduce(first, { type: "requested" }), {
      type: "answered", request: 2, rows: [row("b")], after: null, more: true, note: "",
    });
    expect(options(both).map((o) => o.type)).toEqual(["back", "row", "row"]);
  });

  it("forgets everything when the text is emptied, also an answer that is still to come", () => {
    const state = after(...typed, { type: "typed", text: " " }, answer(1, [row("a")]));
    expect([state.rows.length, state.open, state.status]).toEqual([0, false, "idle"]);
  });

  it("can take a group as far as it goes, where that is wanted", () => {
    const open = after(
      { type: "groupOpened", group: row("g", 9) },
      { type: "requested" },
      answer(1, [row("a")]),
    );
    expect(options(open, true).map((o) => o.type)).toEqual(["back", "take", "row"]);
    expect(options(open).map((o) => o.type)).toEqual(["back", "row"]);
  });

  it("has a row for Enter only where there is one, and it is the latest answer's", () => {
    const one = after(...typed, answer(1, [row("a")]));
    expect(onlyRow(one)).toBe(0);
    expect(onlyRow(after(...typed, answer(1, [row("a"), row("b")])))).toBe(-1);
    expect(onlyRow(after(...typed, answer(1, [row("a")], "8")))).toBe(-1);
    expect(onlyRow(reduce(one, { type: "requested" }))).toBe(-1);
    expect(onlyRow(initial)).toBe(-1);
    const group = after({ type: "groupOpened", group: row("g", 9) }, { type: "requested" }, answer(1, [row("a")]));
    expect(onlyRow(group, true)).toBe(2);
  });

  it("keeps the picked label and nothing else", () => {
    const state = after(...typed, answer(1, [row("a")]), { type: "picked", label: "Label a" });
    expect([state.text, state.open, state.rows.length]).toEqual(["Label a", false, 0]);
  });
});
