import { describe, expect, it } from "vitest";

import { Latest } from "../src/latest";

interface Work {
  give: (value: string) => void;
  fail: (error: Error) => void;
  signal: AbortSignal;
}

/** Two pieces of work begun one after the other, and what became of them. */
function two(): { latest: Latest; first: Work; second: Work; ends: Promise<string | null>[] } {
  const latest = new Latest();
  const begun: Work[] = [];
  const work = (signal: AbortSignal): Promise<string> =>
    new Promise((give, fail) => begun.push({ give, fail, signal }));
  const ends = [latest.run(work), latest.run(work)];
  return { latest, first: begun[0]!, second: begun[1]!, ends };
}

describe("the latest of several pieces of work", () => {
  it.each(["first", "second"] as const)("is all that counts, also where the %s ends first", async (which) => {
    const { first, second, ends } = two();
    (which === "first" ? first : second).give("A");
    (which === "first" ? second : first).give("B");
    expect(await Promise.all(ends)).toEqual([null, which === "first" ? "B" : "A"]);
  });

  it("cancels the one before it, whose failure nobody hears of", async () => {
    const { first, second, ends } = two();
    expect([first.signal.aborted, second.signal.aborted]).toEqual([true, false]);
    first.fail(new Error("cancelled"));
    second.give("B");
    expect(await Promise.all(ends)).toEqual([null, "B"]);
  });

  it("hands its own failure on", async () => {
    const { second, ends } = two();
    second.fail(new Error("no answer"));
    await expect(ends[1]).rejects.toThrow("no answer");
  });

  it("counts no more once it is dropped, whether it ends well or not", async () => {
    const { latest, second, ends } = two();
    latest.drop();
    second.fail(new Error("cancelled"));
    expect(await ends[1]).toBe(null);
  });
});
