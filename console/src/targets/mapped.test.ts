import { expect, test } from "vitest";

import { asForm, fromForm, onTarget } from "./mapped";
import type { AnyTarget } from "./useTargets";

const TARGET = {
  key: "shop",
  kind: "page",
  title: "Shop",
  origins: ["https://shop.example"],
  fields: [
    { key: "note", label: "Note", several_lines: true },
    { key: "town", label: null, max_length: 8 },
  ],
  addresses: [{ key: "delivery", label: "Delivery", finder: { sits: "after", at: "note" }, mapping: [{ components: ["town"], into: "town" }] }],
} as unknown as AnyTarget;

test("a target is a form with its fields and addresses", () => {
  const form = asForm(TARGET);
  expect(form.fields).toEqual([
    { key: "note", label: "Note", max_length: null, type: "long_text" },
    { key: "town", label: "town", max_length: 8, type: "text" },
  ]);
  expect(form.slots[0]?.mapping).toEqual([{ components: ["town"], into: "town" }]);
});

test("what is changed of its mapping in that form is changed in the target, and nothing else", () => {
  const form = asForm(TARGET);
  const changed = { ...form, slots: form.slots.map((slot) => ({ ...slot, mapping: [] })) };
  const [address] = fromForm(TARGET, changed).addresses ?? [];
  expect(address).toEqual({ ...TARGET.addresses?.[0], mapping: [], examples: [] });
  expect(fromForm(TARGET, changed).fields).toEqual(TARGET.fields);
});

test("places that the service names are those of the form", () => {
  expect(onTarget(TARGET).pointer("/addresses/0/mapping/1")).toBe("/slots/0/mapping/1");
  expect(onTarget(TARGET).pointer("/fields/0/find")).toBe("/fields/0/find");
});
