import { describe, expect, it } from "vitest";

import { practiceText } from "../src/finder/practice";

describe("the word for practice addresses", () => {
  it.each([
    ["rehearsal 1 lantern", "rehearsal", "1 lantern"],
    ["  Rehearsal  row ", "rehearsal", "row"],
    ["rehearsal", "rehearsal", null],
    ["rehearsals row", "rehearsal", null],
    ["1 lantern", "rehearsal", null],
    ["rehearsal 1", null, null],
    ["", "rehearsal", null],
  ])("of “%s” with the word %s leaves %s", (typed, word, rest) => expect(practiceText(typed, word)).toBe(rest));
});
