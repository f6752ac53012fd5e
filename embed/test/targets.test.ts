/** Options and pieces: the same vectors as the core's (tests/core/targets/test_fields.py). */

import { expect, test } from "vitest";

import optionCases from "../../tests/vectors/options.json";
import pieceCases from "../../tests/vectors/pieces.json";
import { fitting } from "../src/attach/options";
import { split } from "../src/attach/pieces";

interface OptionCase {
  options: [string, string][];
  text: string;
  writes: string;
  value: string | null;
}

test.each(optionCases as OptionCase[])("an option for “$text” by $writes", ({ options, text, writes, value }) => {
  const found = fitting(options.map(([of, read]) => ({ texts: { value: of, text: read } })), text, writes);
  expect(found?.texts.value ?? null).toBe(value);
});

test.each(pieceCases as [string, (number | null)[], string[]][])("“%s” over %j", (text, lengths, pieces) => {
  expect(split(text, lengths)).toEqual(pieces);
});
