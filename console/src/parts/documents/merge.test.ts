import { describe, expect, it } from "vitest";

import type { FormDocument } from "../../api/schemas";
import { changed, itemsOf, moved, removed, added } from "../../forms/design/edits";
import { FORM } from "../../forms/kind";
import { merge as mergeAny, shapeOf } from "./merge";

const base = {
  key: "f", kind: "web", title: "F", slots: [],
  fields: ["a", "b", "c", "d"].map((key) => ({ key, label: key.toUpperCase() })),
} as unknown as FormDocument;
const keys = (document: FormDocument) => itemsOf(document).map((item) => item.key);
const merge = (...given: [FormDocument, FormDocument, FormDocument, ReadonlySet<string>?]) => mergeAny(FORM, ...given);
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

describe("a document with several lists", () => {
  type Page = { key: string; title: string; inputs?: { key: string; label?: string; required?: boolean }[]; parts?: { key: string }[] };
  const named = { keyOf: (item: object) => (item as { key: string }).key, labelOf: (item: object) => (item as { label?: string }).label ?? "" };
  const shape = shapeOf<Page>("The page", { inputs: named, parts: named });
  const page: Page = { key: "p", title: "P", inputs: [{ key: "a", label: "A" }, { key: "b", label: "B" }] };
  const withA = (more: object): Page => ({ ...page, inputs: [{ key: "a", label: "A", ...more }, { key: "b", label: "B" }] });

  it("has everything of both, and the same key in two lists is two things", () => {
    const merged = mergeAny(shape, page, withA({ label: "Mine" }), { ...page, title: "Q", parts: [{ key: "a" }] });
    expect(merged).toEqual({ document: { ...withA({ label: "Mine" }), title: "Q", parts: [{ key: "a" }] }, conflicts: [], tookTheirs: true });
  });

  it("names where two have changed the same", () => {
    const [mine, theirs] = [withA({ label: "Mine" }), withA({ label: "Theirs" })];
    expect(mergeAny(shape, page, mine, theirs).conflicts).toEqual([{ key: "inputs/a", setting: "label", label: "Mine", mine: "Mine", theirs: "Theirs" }]);
    expect(mergeAny(shape, page, mine, theirs, new Set(["inputs/a/label"])).document).toEqual(theirs);
  });

  it("is theirs, and nothing came in, where the order of its settings alone differs", () => {
    const { key, title, inputs } = page;
    expect(mergeAny(shape, page, page, { inputs, title, key } as Page).tookTheirs).toBe(false);
  });

  it("loses nothing where two things in a list have one name", () => {
    const twice = { ...page, inputs: [{ key: "a", label: "A" }, { key: "a", label: "Again" }] };
    const mine = { ...twice, title: "Mine" };
    expect(mergeAny(shape, twice, mine, twice)).toEqual({ document: mine, conflicts: [], tookTheirs: false });
    expect(mergeAny(shape, page, mine, page).document).toEqual(mine);
    const theirs = withA({ label: "Theirs" });
    const both = mergeAny(shape, page, mine, theirs);
    expect(both.conflicts).toMatchObject([{ key: "", setting: "inputs", label: "The page" }]);
    expect([both.document, mergeAny(shape, page, mine, theirs, new Set(["/inputs"])).document.inputs]).toEqual([mine, theirs.inputs]);
  });
});
