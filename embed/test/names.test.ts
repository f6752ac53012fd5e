import { describe, expect, it } from "vitest";

import { dictionary, valueAt } from "../src/dictionary";
import { NO_ADDRESS } from "../src/formula/address-value";
import { evaluate } from "../src/formula/evaluate";
import { asGiven } from "../src/form/given";
import { workOut } from "../src/form/logic";
import type { FormDocument } from "../src/form/model";
import { translated } from "../src/form/translated";
import { autofillOf } from "../src/form/slot/autofill";
import { ENGLISH } from "../src/words";

// What every object of JavaScript has without anybody having put it there.
const NAMES = [...Object.getOwnPropertyNames(Object.prototype), "title", "length", "name"];

const formWith = (key: string) => ({
  key: "f",
  kind: "web",
  title: "F",
  fields: [
    { key, label: "It" },
    { key: "of", type: "formula", label: "Of", formula: "LEN(it)" },
    { key: "chosen", type: "choice", label: "Chosen", options: [{ value: key, label: "One" }] },
    { slot: `${key}2` },
  ],
  slots: [{ key: `${key}2`, label: "Where", countries: ["GB"], parts: [{ key: `${key}3`, component: "town" }], mapping: [] }],
}) as unknown as FormDocument;

const inGerman = (form: FormDocument, items: object) =>
  translated({ ...form, translations: { de: { items } } } as unknown as FormDocument, "de");

describe.each(NAMES)("%s is a name like any other", (key) => {
  const document = formWith(key);
  const logic = JSON.parse(
    JSON.stringify({ order: [key, "of", "chosen", `${key}2`, `${key}3`], formulas: { of: { call: "LEN", of: [{ call: "text", of: [{ field: key }] }] } }, shown: {}, required: {} }),
  ) as Parameters<typeof workOut>[1];

  it("as the key of a field that nobody has filled", () => {
    const worked = workOut(document, logic, { values: {}, slots: {}, today: 0 });
    expect(worked.values[key]).toBeNull();
    expect(worked.values["of"]).toBe(0);
    expect([...worked.needed]).toEqual([]);
  });

  it("as the key of one that is filled, and of an address", () => {
    const values = Object.fromEntries([[key, "abc"]]);
    const worked = workOut(document, logic, { values, slots: {}, today: 0 });
    expect([worked.values[key], worked.values["of"]]).toEqual(["abc", 3]);
    expect(Object.keys(worked.values)).toContain(key);
    const given = asGiven(worked, Object.fromEntries([[`${key}2`, NO_ADDRESS]]));
    expect(Object.entries(given.values)).toContainEqual([key, "abc"]);
  });

  it("in formulas", () => {
    const nothing = { values: {}, slots: {}, today: 0 };
    expect(evaluate({ field: key }, nothing)).toBeNull();
    expect(evaluate({ call: "ADDRESS", of: [{ slot: key }] }, nothing)).toBeNull();
    const slots = dictionary([["s", { ...NO_ADDRESS, components: {} }]]);
    expect(evaluate({ call: "COMPONENT", of: [{ slot: "s" }, { value: key }] }, { ...nothing, slots })).toBeNull();
  });

  it("as something that is not translated, and as an option that is not", () => {
    expect(inGerman(document, {}).fields[0]).toEqual(document.fields[0]);
    expect(inGerman(document, { chosen: { options: {} } }).fields[2]).toEqual(document.fields[2]);
    expect(translated(document, key)).toBe(document);
  });

  it("as a part that no country knows, and as what is filled into a sentence", () => {
    expect(autofillOf(key, "s")).toBe("off");
    expect(ENGLISH.problem({ detail: "As it is.", kind: key, given: {} })).toBe("As it is.");
    expect(valueAt({}, key)).toBeUndefined();
    expect(dictionary()[key]).toBeUndefined();
  });
});
