import { describe, expect, it } from "vitest";

import type { FormDocument } from "../api/schemas";
import { inWords } from "./conditions";

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
    ["'piano-count' > 2", null],
    ['OR(visit = "move"; differs)', null],
    ["gone", null],
  ])("%s", (condition, words) => {
    expect(inWords(condition, document)).toBe(words);
  });
});
