import { expect, it } from "vitest";

import { began, edited, merged, redone, typedAt, undone } from "./history";

it("goes back and forth, and takes typing on as one step", () => {
  let state = began("published");
  state = edited(state, "a", "label");
  state = edited(state, "ab", "label");
  state = edited(state, "ab!", "help");
  expect(state.past).toEqual(["published", "ab"]);
  state = undone(undone(state));
  expect([state.present, state.future]).toEqual(["published", ["ab", "ab!"]]);
  expect(undone(state)).toBe(state);
  state = redone(state);
  expect(state.present).toBe("ab");
  state = edited(state, "other", "label");
  expect([state.future, redone(state)]).toEqual([[], state]);
});

it("keeps the steps where another's changes come in", () => {
  const state = merged(edited(began("a"), "b"), "b and theirs");
  expect([state.present, undone(state).present]).toEqual(["b and theirs", "a"]);
});

it("counts an edit that changes nothing for none", () => {
  const state = began("a");
  expect(edited(state, "a")).toBe(state);
});

it("knows typing by the one text that changes", () => {
  const lines = (text: string, more = {}) => ({ title: "A", lines: [{ label: "x" }, { label: text }], ...more });
  expect(typedAt(lines("a"), lines("ab"))).toBe("/lines/1/label");
  for (const other of [lines("a"), lines("b", { title: "B" }), lines("b", { kind: "x" }), { ...lines("b"), lines: [] }, null, "a"]) {
    expect(typedAt(lines("a"), other)).toBe("");
  }
});
