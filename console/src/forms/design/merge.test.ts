import { describe, expect, it } from "vitest";

import type { FormDocument } from "../../api/schemas";
import { changed, itemsOf, moved, removed, added } from "./edits";
import { merge } from "./merge";

const base = {
  key: "f", kind: "web", title: "F", slots: [],
  fields: ["a", "b", "c", "d"].map((key) => ({ key, label: key.toUpperCase() })),
} as unknown as FormDocument;
const keys = (document: FormDocument) => itemsOf(document).map((item) => item.key);
const field = (key: string) => ({ key, label: key }) as never;

describe("two people's changes to one draft", () => {
  it("come together where they are about different things", () => {
    const mine = changed(base, "a", { label: "Mine" });
    const theirs = { ...changed(base, "b", { help: "theirs" }), intro: "Hello" };
    const { document, conflicts, tookTheirs } = merge(base, mine, theirs);
    expect(conflicts).toEqual([]);
    expect(tookTheirs).toBe(true);
    expect(document.intro).toBe("Hello");
    expect(document.fields.slice(0, 2)).toMatchObject([{ label: "Mine" }, { label: "B", help: "theirs" }]);
  });

  it("come together within one field, setting by setting", () => {
    const merged = merge(base, changed(base, "a", { label: "Mine" }), changed(base, "a", { help: "theirs" }));
    expect(merged.document.fields[0]).toEqual({ key: "a", label: "Mine", help: "theirs" });
    expect(merged.conflicts).toEqual([]);
  });

  it("are shown where both changed the same, and theirs counts where that is chosen", () => {
    const [mine, theirs] = [changed(base, "a", { label: "Mine" }), changed(base, "a", { label: "Theirs" })];
    const merged = merge(base, mine, theirs);
    expect(merged.conflicts).toEqual([{ key: "a", setting: "label", label: "Mine", mine: "Mine", theirs: "Theirs" }]);
    expect(merged.document.fields[0]).toMatchObject({ label: "Mine" });
    expect(merge(base, mine, theirs, new Set(["a/label"])).document.fields[0]).toMatchObject({ label: "Theirs" });
  });

  it("keep what both have added, each below what it stood below", () => {
    const mine = added(base, field("m"), 1);
    const theirs = added(base, field("t"), 3);
    expect(keys(merge(base, mine, theirs).document)).toEqual(["a", "m", "b", "c", "t", "d"]);
  });

  it("take away what one removed and the other left alone", () => {
    const merged = merge(base, changed(base, "a", { label: "Mine" }), removed(base, "c"));
    expect([keys(merged.document), merged.conflicts]).toEqual([["a", "b", "d"], []]);
  });

  it("ask where one removed what the other changed", () => {
    const [mine, theirs] = [removed(base, "c"), changed(base, "c", { label: "Theirs" })];
    const merged = merge(base, mine, theirs);
    expect(merged.conflicts).toMatchObject([{ key: "c", setting: "*", mine: null }]);
    expect(keys(merged.document)).toEqual(["a", "b", "d"]);
    expect(keys(merge(base, mine, theirs, new Set(["c/*"])).document)).toEqual(["a", "b", "c", "d"]);
  });

  it("stand in the order of whoever moved something", () => {
    const mine = moved(base, "d", 0);
    const theirs = added(base, field("t"), 4);
    expect(keys(merge(base, mine, theirs).document)).toEqual(["d", "t", "a", "b", "c"]);
    expect(keys(merge(base, changed(base, "a", { help: "x" }), moved(base, "d", 0)).document)).toEqual(["d", "a", "b", "c"]);
  });

  it("are mine alone where they have changed nothing", () => {
    const mine = changed(base, "a", { label: "Mine" });
    expect(merge(base, mine, base)).toEqual({ document: { ...mine, slots: [] }, conflicts: [], tookTheirs: false });
  });
});
