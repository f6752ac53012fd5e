import { describe, expect, it } from "vitest";

import type { FormDocument } from "../../api/schemas";
import { fieldChoices } from "../mapping/fields";
import { withAt } from "../mapping/pointers";
import { partName } from "../mapping/rules";
import { merge } from "../../parts/documents/merge";
import { FORM } from "../kind";
import { withBrought } from "./brought";
import { changed, itemsOf } from "./edits";
import { renamed } from "./keys";


const NAMES = Object.getOwnPropertyNames(Object.prototype);

describe.each(NAMES)("a field called %s", (key) => {
  const form = {
    key: "f", kind: "web", title: "F", translations: { de: { items: {} } },
    fields: [{ key, label: "It" }, { key: "a", label: "A" }, { slot: "s" }],
    slots: [{ key: "s", label: "S", countries: [], parts: [{ key: "part", component: key }], mapping: [{ components: [key], into: key }] }],
  } as unknown as FormDocument;

  it("is renamed everywhere, and nothing else is", () => {
    const now = renamed(form, key, "other");
    expect(itemsOf(now).map((item) => item.key)).toEqual(["other", "a", "s"]);
    expect(now.slots[0]?.mapping[0]).toMatchObject({ into: "other" });
    expect(itemsOf(renamed(form, "a", key)).map((item) => item.key)).toEqual([key, key, "s"]);
  });

  it("is merged as all others are", () => {
    const merged = merge(FORM, form, changed(form, key, { label: "Mine" }), changed(form, "a", { label: "Theirs" }));
    expect(merged.conflicts).toEqual([]);
    expect(itemsOf(merged.document).map((item) => ("label" in item ? item.label : ""))).toEqual(["Mine", "Theirs", "S"]);
  });

  it("brings nothing along, and has no label but its own", () => {
    expect(withBrought(form, {})).toEqual(form);
    const slot = form.slots[0]!;
    expect(fieldChoices(form, slot, {}).map((choice) => choice.label)).not.toContain(undefined);
    expect(partName(key, {})).toBe(key);
  });

  it("is put right where something in it is wrong", () => {
    expect(withAt(form, "/slots/0/mapping/0/into", "a").slots[0]?.mapping[0]).toMatchObject({ into: "a" });
  });
});
