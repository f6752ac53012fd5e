import { describe, expect, it } from "vitest";

import type { Overview } from "../api/schemas";
import { nextSteps } from "./nextSteps";

const calm: Overview = {
  editions: [{ dataset: "demo", number: 1, addresses: 10, countries: ["GB"] }],
  forms: 4,
  forms_published: 4,
  drafts_waiting: 0,
  records: 9,
  records_last_week: 1,
  captured: 40,
  picked: 39,
  picked_unchanged: 38,
  allowances: [],
};
const first = (change: Partial<Overview>): string => nextSteps({ ...calm, ...change })[0]?.text ?? "";

describe("what to do next", () => {
  it("puts reference data before everything else", () => {
    expect(first({ editions: [], forms: 0, drafts_waiting: 3 })).toMatch(/^Load reference data/);
  });

  it("names the drafts that wait, one or several", () => {
    expect(first({ drafts_waiting: 1 })).toContain("the draft that differs");
    expect(first({ drafts_waiting: 3 })).toContain("the 3 drafts that differ");
  });

  it("notices when most addresses are typed in by hand, but not from a few", () => {
    expect(first({ picked: 10 })).toMatch(/^Most addresses are typed in by hand/);
    expect(first({ captured: 4, picked: 1 })).toMatch(/^Everything is published/);
  });

  it("says before it is used up that something may soon fetch no more, and whose", () => {
    const page = { subject: "page visit", name: "public page of visit", state: "near" } as const;
    expect(first({ allowances: [page] })).toBe("The public page of visit has fetched nearly as many addresses as it may: its form says how many it may fetch, under “Open to everybody”.");
    expect(first({ allowances: [{ subject: "5f", name: "Shop", state: "used_up" }] })).toContain("The key “Shop” can fetch no more addresses for now");
  });

  it("always has something to say, and each step that leads somewhere says where", () => {
    const steps = nextSteps(calm);
    expect(steps.length).toBeGreaterThan(0);
    for (const step of steps) expect(step.to).toMatch(/^\//);
  });
});
