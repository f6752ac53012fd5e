import { describe, expect, it } from "vitest";

import type { FormDocument } from "../api/schemas";
import { asFormula, comparisonOf, inWords, itemsIn, relationsOf } from "./conditions";

const document = {
  key: "f",
  kind: "web",
  title: "F",
  fields: [
    { key: "visit", type: "choice", label: "What is it about?", options: [{ value: "move", label: "Moving the piano" }, { value: "tuning" }] },
    { key: "differs", type: "yes_no", label: "Another address" },
    { key: "piano-count", type: "number", label: "Pianos" },
  ],
  slots: [],
} as unknown as FormDocument;

describe("a condition in words", () => {
  it.each([
    ['visit = "move"', "“What is it about?” is “Moving the piano”"],
    ['OR(visit = "move"; visit = "tuning")', "“What is it about?” is “Moving the piano” or “tuning”"],
    ["differs", "“Another address” is yes"],
    ["=NOT(differs)", "“Another address” is no"],
    ["'piano-count' = 2", "“Pianos” is 2"],
    ["'piano-count' > 2", "“Pianos” is more than 2"],
    ['visit <> "move"', "“What is it about?” is not “Moving the piano”"],
    ["NOT(ISBLANK(visit))", "“What is it about?” is filled"],
    ["'piano-count' * 2 > 2", null],
    ['OR(visit = "move"; differs)', null],
    ["gone", null],
  ])("%s", (condition, words) => {
    expect(inWords(condition, document)).toBe(words);
  });
});

describe("a condition that is put together without typing", () => {
  it("reads back as it was chosen, for every field and relation", () => {
    for (const item of itemsIn(document)) {
      for (const relation of relationsOf(item)) {
        const value = ["is", "is_not", "includes", "more", "less"].includes(relation) ? "2" : "";
        const comparison = { key: item.key, relation, value };
        expect(comparisonOf(asFormula(comparison, document), document)).toEqual(comparison);
      }
    }
  });

  it("keeps a value with quotation marks", () => {
    const comparison = { key: "visit", relation: "is", value: 'the "grand"' } as const;
    expect(asFormula(comparison, document)).toBe('visit = "the ""grand"""');
    expect(comparisonOf(asFormula(comparison, document), document)).toEqual(comparison);
  });
});
