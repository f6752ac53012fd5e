import { describe, expect, it } from "vitest";

import { samplePostcode } from "./layouts";

describe("a postcode to try a layout with", () => {
  it("fits the first mask", () => {
    expect(samplePostcode({ masks: ["99999", "99999-9999"], starts: [] })).toBe("00000");
    expect(samplePostcode({ masks: ["A9A 9A9"], starts: [] })).toBe("K0K 0K0");
    expect(samplePostcode({ masks: [], starts: [] })).toBe("");
  });

  it("begins as it must", () => {
    expect(samplePostcode({ masks: ["99999"], starts: ["974"] })).toBe("97400");
    expect(samplePostcode({ masks: ["LV-9999"], starts: ["LV"] })).toBe("LV-0000");
    expect(samplePostcode({ masks: ["AAAA 9AA"], starts: ["FIQQ"] })).toBe("FIQQ 0KK");
  });
});
