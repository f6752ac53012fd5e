import { describe, expect, it } from "vitest";

import { firstCountry } from "../src/form/slot/country";

describe("the country a slot begins with", () => {
  const offered = ["GB", "FR", "BE", "JP"];

  it("is the form's own setting, whatever the browser speaks", () => {
    expect(firstCountry(offered, "JP", ["fr-BE"])).toBe("JP");
  });

  it("is else what the browser's languages point to, the first that is offered", () => {
    expect(firstCountry(offered, null, ["de-AT", "fr-BE", "en-GB"])).toBe("BE");
    expect(firstCountry(offered, undefined, ["ja"])).toBe("JP");
  });

  it("is else the first one", () => {
    expect(firstCountry(offered, "", ["de-AT", "not a tag"])).toBe("GB");
    expect(firstCountry([], null, [])).toBe("");
  });
});
