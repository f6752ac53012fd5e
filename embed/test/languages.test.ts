import { describe, expect, it } from "vitest";

import { autofillOf } from "../src/form/slot/autofill";
import { wantedLanguages } from "../src/form/languages";

describe("the languages that labels are wanted in", () => {
  it("are the element's own, the browser's, the page's, and English, each once", () => {
    expect(wantedLanguages("ga", ["fr-FR", "fr", "en"], "en")).toEqual(["ga", "fr-FR", "fr", "en"]);
    expect(wantedLanguages(null, ["ar-EG"], "")).toEqual(["ar-EG", "en"]);
  });
});

describe("what autofill is told of a part", () => {
  it("is a token of the standard in the slot's own section", () => {
    expect(autofillOf("town", "piano")).toBe("section-piano address-level2");
    expect(autofillOf("postcode", "bill")).toBe("section-bill postal-code");
  });

  it("is that there is nothing to fill in where the standard has no token", () => {
    expect(autofillOf("number", "piano")).toBe("off");
  });
});
