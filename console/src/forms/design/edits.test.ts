import { describe, expect, it } from "vitest";

import type { FormDocument } from "../../api/schemas";
import { added, changed, duplicated, itemsOf, moved, newSlot, removed, withinSection } from "./edits";
import { keyFrom, keysOf, renamed, renamedInFormula } from "./keys";

const field = (key: string, more = {}) => ({ key, label: key, ...more });
const form = (fields: unknown[], slots: unknown[] = []) =>
  ({ key: "f", kind: "web", title: "F", fields, slots }) as unknown as FormDocument;
const keys = (document: FormDocument) => itemsOf(document).map((item) => item.key);

describe("editing a form", () => {
  const document = form(
    [field("a"), { slot: "s" }, field("sec", { type: "section" }), field("b"), field("c"), field("p", { type: "page" }), field("d")],
    [newSlot("s", "S", ["GB"])],
  );

  it("adds, moves and removes, and leaves the document that it began with as it was", () => {
    const before = JSON.stringify(document);
    expect(keys(added(document, field("x") as never, 2))).toEqual(["a", "s", "x", "sec", "b", "c", "p", "d"]);
    expect(keys(moved(document, "d", 0))).toEqual(["d", "a", "s", "sec", "b", "c", "p"]);
    expect(keys(moved(document, "a", 6))).toEqual(["s", "sec", "b", "c", "p", "d", "a"]);
    const without = removed(document, "s");
    expect([keys(without), without.slots]).toEqual([["a", "sec", "b", "c", "p", "d"], []]);
    expect(JSON.stringify(document)).toBe(before);
  });

  it("gives a slot that no entry places a row at the end", () => {
    const loose = form([field("a")], [newSlot("s", "S", ["GB"])]);
    expect(keys(loose)).toEqual(["a", "s"]);
    expect(added(loose, field("x") as never, 2).fields).toEqual([field("a"), { slot: "s" }, field("x")]);
  });

  it("copies a section with all that stands in it, and an address with its mapping", () => {
    expect(withinSection(document, "sec")).toEqual(["sec", "b", "c"]);
    expect(keys(duplicated(document, "sec").document)).toEqual(["a", "s", "sec", "b", "c", "sec_2", "b_2", "c_2", "p", "d"]);
    const copy = duplicated(document, "s");
    const slot = copy.document.slots.find((one) => one.key === copy.key);
    expect(copy.key).toBe("s_2");
    expect(slot?.parts[0]?.key).toBe("s_2_organisation");
    expect(slot?.mapping[0]?.into).toBe("s_2_organisation");
    expect(new Set(keysOf(copy.document)).size).toBe([...keysOf(copy.document)].length);
  });

  it("leaves settings out that have no effect, but a slot's that it may stay empty", () => {
    const set = changed(changed(document, "a", { help: "h", required: true }), "a", { help: "", required: false });
    expect(set.fields[0]).toEqual(field("a"));
    expect(changed(document, "s", { required: false }).slots[0]?.required).toBe(false);
    expect(changed(document, "s", { required: true }).slots[0]).not.toHaveProperty("required");
  });
});

describe("keys", () => {
  it.each([
    ["What is it about?", "what_is_it_about"],
    ["Größe (cm)", "grosse_cm"],
    ["Élise’s piano", "elises_piano"],
    ["2nd line", "field_2nd_line"],
    ["郵便番号", "field"],
    ["", "field"],
  ])("of “%s”", (label, key) => expect(keyFrom(label, new Set())).toBe(key));

  it("are numbered where they are taken", () => {
    expect(keyFrom("Name", new Set(["name", "name_2"]))).toBe("name_3");
  });

  it.each([
    ["n * 2 + N", "n", "count", "count * 2 + count"],
    ['IF(n = "n"; n; 0)', "n", "count", 'IF(count = "n"; count; 0)'],
    ["'a-b' + ab", "a-b", "c", "c + ab"],
    ["LEN(len)", "len", "x", "LEN(x)"],
    ["nn + n", "n", "a-b", "nn + 'a-b'"],
  ])("in %s", (formula, old, key, wanted) => expect(renamedInFormula(formula, old, key)).toBe(wanted));

  it("follow into rules, conditions and translations", () => {
    const document = {
      ...form([field("a"), field("b", { shown_when: 'a = "x"' }), { slot: "s" }], [{ key: "s", label: "S", countries: ["GB"], parts: [], mapping: [{ components: ["town"], into: "a", changes: [] }] }]),
      translations: { de: { items: { a: { label: "A" } } } },
    } as unknown as FormDocument;
    const next = renamed(document, "a", "town");
    expect(next.fields[1]).toMatchObject({ shown_when: 'town = "x"' });
    expect(next.slots[0]?.mapping[0]?.into).toBe("town");
    expect(next.translations?.de?.items).toEqual({ town: { label: "A" } });
  });
});
