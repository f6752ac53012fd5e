import { describe, expect, it } from "vitest";

import { CLOSED, type Event, type Talk, next } from "./pageTalk";

const ORIGIN = "https://shop.example";
const FIELD = {
  type: "text", name: "street", id: "", autocomplete: "", class_name: "", label: "Street", is_named: true, placeholder: "", block: "", position: 0,
  several_lines: false, options: [], max_length: null, pieces: [], place: { left: 8, top: 8.6, width: 100, height: 20 }, is_whole: false, is_read_only: false,
};
const opened = next(CLOSED, { kind: "open", origin: ORIGIN });
const says = (data: unknown, origin = ORIGIN): Talk => next(opened, { kind: "heard", origin, text: JSON.stringify(data) });
const page = (changes: object = {}): object => ({ kind: "anchorline-page", url: `${ORIGIN}/checkout`, fields: [FIELD], ...changes });

describe("what a page says that was opened from the console", () => {
  it("is taken where it is the page that was opened and says what it may", () => {
    expect(says(page())).toMatchObject({ state: "open", url: `${ORIGIN}/checkout`, fields: [{ label: "Street" }] });
    const tried = next(says(page()), { kind: "heard", origin: ORIGIN, text: '{"kind":"anchorline-tried","fields":[{"key":"a","found":true,"kept":null,"holds":false}],"said":["x"]}' });
    expect(tried.tried).toEqual({ fields: [{ key: "a", found: true, kept: null, holds: false }], said: ["x"] });
    expect(next(tried, { kind: "trying" }).tried).toBeNull();
  });

  it("is held against the origin that was opened, which is offered instead", () => {
    const other = says(page({ url: "https://www.shop.example/" }), "https://www.shop.example");
    expect(other).toMatchObject({ state: "elsewhere", fields: [], instead: "https://www.shop.example" });
    expect(other.problem).toContain("You opened https://shop.example, and https://www.shop.example answers");
    expect(says(page(), "null")).toMatchObject({ state: "elsewhere", instead: null });
  });

  it("is not believed where it claims to be another page", () => {
    const claimed = says(page({ url: "https://bank.example/login" }));
    expect(claimed).toMatchObject({ state: "odd", fields: [], url: "" });
    expect(claimed.problem).toBe("The page at https://shop.example says that it is at https://bank.example. Nothing of what it says was taken.");
  });

  it.each([
    null, undefined, 0, "x", [], {}, { kind: "anchorline-page" }, { kind: "other" },
    page({ url: "no address" }), page({ url: null }), page({ url: "javascript:alert(1)" }), page({ fields: null }), page({ fields: {} }),
    page({ fields: [null] }), page({ fields: [{ ...FIELD, label: null }] }), page({ fields: [{ ...FIELD, label: { toString: 1 } }] }),
    page({ fields: [{ ...FIELD, type: "script" }] }), page({ fields: [{ ...FIELD, options: 3 }] }), page({ fields: [{ ...FIELD, options: [null] }] }),
    page({ fields: [{ ...FIELD, max_length: "9" }] }), page({ fields: [{ ...FIELD, place: { left: 0 } }] }), page({ fields: [{ ...FIELD, pieces: [1] }] }), page({ fields: [{ ...FIELD, is_whole: true }] }), page({ fields: Array(501).fill(FIELD) }), page({ fields: [{ ...FIELD, name: "x".repeat(2001) }] }),
    { kind: "anchorline-tried", fields: [{}], said: [] }, { kind: "anchorline-tried", fields: [], said: [{}] }, { kind: "anchorline-tried" },
  ])("is nothing where it is %j", (data) => {
    const heard = says(data);
    expect(heard).toMatchObject({ state: "odd", fields: [], tried: null });
    expect(heard.problem).toContain("Nothing of");
  });

  it("is nothing where it is no JSON", () => {
    for (const text of [null, "", "{", "undefined"]) expect(next(opened, { kind: "heard", origin: ORIGIN, text }).state).toBe("odd");
  });

  it("is cut to what the service takes", () => {
    const long = { ...FIELD, label: `${"x".repeat(300)}`, name: "a\u0000b", max_length: 99_999_999, options: Array(600).fill({ value: "v", text: "t" }) };
    const [seen] = says(page({ fields: [long] })).fields;
    expect(seen).toMatchObject({ label: "x".repeat(200), name: "a b", max_length: null });
    expect(seen?.options).toHaveLength(500);
    expect(says(page({ fields: Array(500).fill(FIELD) })).fields).toHaveLength(500);
  });
});

describe("a page that is opened", () => {
  const after = (...events: Event[]): string => events.reduce(next, opened).state;

  it("is waited for, and it is said what it is waiting for", () => {
    expect(after()).toBe("opening");
    expect(after({ kind: "patience" })).toBe("silent");
    expect(after({ kind: "blocked" })).toBe("blocked");
    expect(after({ kind: "blocked" }, { kind: "patience" })).toBe("blocked");
    expect(after({ kind: "blocked" }, { kind: "opened" })).toBe("opening");
    expect(after({ kind: "ready" }, { kind: "opened" })).toBe("opening");
  });

  it("may be closed", () => {
    expect(after({ kind: "gone" })).toBe("silent");
    expect(after({ kind: "heard", origin: ORIGIN, text: JSON.stringify(page()) }, { kind: "gone" })).toBe("gone");
    expect(next(CLOSED, { kind: "gone" })).toBe(CLOSED);
  });

  it("is another one when it is opened anew", () => {
    expect(next(says(page()), { kind: "open", origin: "https://b.example" })).toEqual({ ...CLOSED, state: "opening", origin: "https://b.example" });
  });
});
