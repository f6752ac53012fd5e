import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { FinderEngine, PAUSE_MS, type Question, SLOW_MS } from "../src/finder/engine";
import { ENGLISH } from "../src/words";
import type { Suggestion, Suggestions } from "../src/service";

const row = (label: string, count = 1): Suggestion => ({
  id: label, kind: "address", label, country_code: "GB", count, matches: [],
});

const found = (...suggestions: Suggestion[]): Suggestions => ({
  suggestions, after: null, corrected: {}, unmatched: [],
});

class Service {
  requests: { question: Question; signal: AbortSignal; give: (a: Suggestions) => void; fail: () => void }[] = [];
  ask = (question: Question, signal: AbortSignal): Promise<Suggestions> =>
    new Promise((give, reject) => {
      const fail = (): void => reject(new Error("no"));
      signal.addEventListener("abort", fail);
      this.requests.push({ question, signal, give, fail });
    });
}

let service: Service;
let picked: [string, string][];
let engine: FinderEngine;
const pause = (ms = PAUSE_MS): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  service = new Service();
  picked = [];
  engine = new FinderEngine(service.ask, () => undefined, (r, typed) => picked.push([r.id, typed]));
});
afterEach(() => vi.useRealTimers());

describe("the finder's engine", () => {
  it("asks once after a pause, with the latest text", async () => {
    for (const text of ["a", "ab", "abb"]) engine.type(text);
    await pause();
    expect(service.requests.map((a) => a.question.text)).toEqual(["abb"]);
  });

  it("asks nothing for an empty text", async () => {
    engine.type("  ");
    await pause();
    expect(service.requests).toEqual([]);
  });

  it("cancels the question that is outdated", async () => {
    engine.type("a");
    await pause();
    engine.type("ab");
    expect(service.requests[0]?.signal.aborted).toBe(true);
    await pause();
    service.requests[1]?.give({ suggestions: [row("new")], after: null, corrected: {}, unmatched: [] });
    await pause(0);
    expect(engine.state.rows.map((r) => r.id)).toEqual(["new"]);
    expect(engine.state.status).toBe("ready");
  });

  it("says that it is slow, and then still takes the answer", async () => {
    engine.type("a");
    await pause();
    await pause(SLOW_MS);
    expect(engine.state.status).toBe("slow");
    service.requests[0]?.give({ suggestions: [row("late")], after: null, corrected: {}, unmatched: [] });
    await pause(0);
    expect(engine.state.status).toBe("ready");
  });

  it("fails quietly when the service does", async () => {
    engine.type("a");
    await pause();
    service.requests[0]?.fail();
    await pause(0);
    expect([engine.state.status, engine.state.text]).toEqual(["failed", "a"]);
  });

  it("opens a group, picks inside it, and tells what was typed at first", async () => {
    engine.type("abb");
    await pause();
    service.requests[0]?.give({ suggestions: [row("Abbey Lane", 12)], after: null, corrected: {}, unmatched: [] });
    await pause(0);
    engine.choose(0);
    expect(service.requests[1]?.question).toEqual({ text: "", within: "Abbey Lane", after: null, elsewhere: false });
    service.requests[1]?.give({ suggestions: [row("12 Abbey Lane")], after: null, corrected: {}, unmatched: [] });
    await pause(0);
    engine.choose(1);
    expect(picked).toEqual([["12 Abbey Lane", "abb"]]);
  });

  it("takes a group with all that was typed, before it was opened and inside it", async () => {
    const settings = { takesGroups: true, looksElsewhere: false, elsewhereNote: "", words: ENGLISH };
    engine = new FinderEngine(
      service.ask, () => undefined, (r, typed) => picked.push([r.id, typed]), () => settings,
    );
    engine.type("abb");
    await pause();
    service.requests[0]?.give(found(row("Abbey Lane", 12)));
    await pause(0);
    engine.choose(0);
    engine.type("Abbey Lane 41");
    await pause();
    service.requests.at(-1)?.give(found());
    await pause(0);
    expect(engine.options.map((o) => o.type)).toEqual(["back", "take"]);
    engine.choose(1);
    expect(picked).toEqual([["Abbey Lane", "abb 41"]]);
    expect(engine.state.text).toBe("Abbey Lane");
  });

  it("looks in other countries where the chosen one has nothing, and says so", async () => {
    const settings = { takesGroups: false, looksElsewhere: true, elsewhereNote: "Not in Here.", words: ENGLISH };
    engine = new FinderEngine(service.ask, () => undefined, () => undefined, () => settings);
    engine.type("rue");
    await pause();
    service.requests[0]?.give(found());
    await pause(0);
    expect(service.requests[1]?.question).toEqual({ text: "rue", within: null, after: null, elsewhere: true });
    service.requests[1]?.give(found(row("Rue Verte")));
    await pause(0);
    expect([engine.state.rows.length, engine.state.note]).toEqual([1, "Not in Here."]);
  });

  it("puts an earlier text back without asking anything", async () => {
    engine.type("abb");
    engine.restore("ab", "ab");
    await pause();
    expect(service.requests).toEqual([]);
    expect([engine.state.text, engine.typed, engine.state.open]).toEqual(["ab", "ab", false]);
  });

  it("goes back to what was typed", async () => {
    engine.type("abb");
    await pause();
    service.requests[0]?.give({ suggestions: [row("Abbey Lane", 12)], after: null, corrected: {}, unmatched: [] });
    await pause(0);
    engine.choose(0);
    engine.back();
    expect(engine.state.text).toBe("abb");
    expect(service.requests.at(-1)?.question).toEqual({ text: "abb", within: null, after: null, elsewhere: false });
  });
});
