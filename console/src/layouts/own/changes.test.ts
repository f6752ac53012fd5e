import { describe, expect, it } from "vitest";

import {
  addLine, arrange, changeComponent, dropLine, extraName, relabel, restoreLine, rewriteLine, shifted, currentRows,
} from "./changes";
import type { OwnDocument, PreviewLine } from "./schemas";

const EMPTY: OwnDocument = { key: "k", title: "T", countries: ["FR"], forms: [], ask: [], lines: [] };
const shipped = (line: string): PreviewLine => ({ line, was: line, change: null, dropped: false });

/** What the service does with entries that say where a component comes: the rule, once more. */
function placed(base: string[], document: OwnDocument): string[] {
  const order = [...base];
  for (const { component = "", add, first, after } of document.ask) {
    let at = order.indexOf(component ?? "");
    if (at < 0 && !add) continue;
    if (at < 0) at = order.push(component ?? "") - 1;
    if (!first && !after) continue;
    order.splice(at, 1);
    order.splice(first ? 0 : order.indexOf(after ?? "") + 1, 0, component ?? "");
  }
  return order;
}

describe("what is asked for", () => {
  it("leaves no trace of what is set back", () => {
    const named = relabel(EMPTY, "town", "en", "City");
    expect(named.ask).toEqual([{ component: "town", label: { en: "City" } }]);
    expect(relabel(named, "town", "en", "").ask).toEqual([]);
    const optional = changeComponent(named, "town", { required: false });
    expect(optional.ask).toEqual([{ component: "town", label: { en: "City" }, required: false }]);
    expect(changeComponent(optional, "town", { required: null }).ask).toEqual(named.ask);
  });

  it("keeps labels in other languages", () => {
    const both = relabel(relabel(EMPTY, "town", "en", "City"), "town", "fr", "Ville");
    expect(relabel(both, "town", "en", "Place").ask[0]?.label).toEqual({ en: "Place", fr: "Ville" });
  });

  it("comes in any order that is wanted, with as few entries as may be", () => {
    const base = ["a", "b", "c", "d", "e"];
    const orders = [
      ["b", "a", "c", "d", "e"], ["e", "a", "b", "c", "d"], ["e", "d", "c", "b", "a"],
      ["c", "a", "e", "b", "d"], base,
    ];
    for (const wanted of orders) {
      const document = arrange(EMPTY, base, wanted);
      expect(placed(base, document)).toEqual(wanted);
    }
    expect(arrange(EMPTY, base, orders[1] ?? []).ask).toEqual([{ component: "e", first: true }]);
  });

  it("goes back to the order of the base without a trace", () => {
    const base = ["a", "b", "c"];
    const moved = arrange(EMPTY, base, shifted(base, "c", -1));
    expect(moved.ask).toHaveLength(1);
    expect(arrange(moved, base, base).ask).toEqual([]);
  });

  it("places what is added", () => {
    const added = changeComponent(EMPTY, "n", { add: true });
    const moved = arrange(added, ["a", "b"], ["a", "n", "b"]);
    expect(moved.ask).toEqual([{ component: "n", add: true, after: "a" }]);
    expect(placed(["a", "b"], moved)).toEqual(["a", "n", "b"]);
  });

  it("names extras after what people call them", () => {
    expect(extraName("Étage, porte 2!", [])).toBe("etage_porte");
    expect(extraName("Note", ["note"])).toBe("note_a");
    expect(extraName("電話", [])).toBe("extra");
  });
});

describe("lines", () => {
  it("are rewritten, and set back without a trace", () => {
    const once = rewriteLine(EMPTY, shipped("number street"), "", "street number");
    expect(once.lines).toEqual([{ change: "number street", to: "street number" }]);
    const row = { line: "street number", was: "number street", change: 0, dropped: false };
    expect(rewriteLine(once, row, "", "number street").lines).toEqual([]);
    expect(restoreLine(once, row, "").lines).toEqual([]);
    expect(dropLine(once, row, "").lines).toEqual([{ drop: "number street" }]);
  });

  it("are rewritten once, however often that is before the service has answered", () => {
    const row = shipped("number street");
    const typed = ["number str", "number stre"].reduce((next, text) => rewriteLine(next, row, "", text), EMPTY);
    expect(typed.lines).toEqual([{ change: "number street", to: "number stre" }]);
    expect(currentRows([row], [], typed.lines, "")[0]?.line).toBe("number stre");
    expect(rewriteLine(typed, row, "", "number street").lines).toEqual([]);
  });

  it("that follow an added one go on following it", () => {
    const added = addLine(addLine(EMPTY, "region", "district", ""), "nation", "region", "");
    const row = { line: "region", was: null, change: 0, dropped: false };
    expect(rewriteLine(added, row, "", "REGION").lines[1]).toEqual({ add: "nation", after: "REGION" });
    expect(dropLine(added, row, "").lines).toEqual([{ add: "nation", after: "district" }]);
  });

  it("of another script say so", () => {
    expect(addLine(EMPTY, "region", null, "Jpan").lines).toEqual([{ add: "region", first: true, script: "Jpan" }]);
  });

  it("that cannot be read stay where they were, as they were typed", () => {
    const fresh = [shipped("organisation"), shipped("place")];
    const changes = [{ add: "nat", after: "organisation" }, { change: "place", to: "plac" }];
    const before = [
      shipped("organisation"),
      { line: "nation", was: null, change: 0, dropped: false },
      shipped("place"),
    ];
    expect(currentRows(fresh, before, changes, "").map((row) => row.line)).toEqual(["organisation", "nat", "plac"]);
  });
});
