import { describe, expect, it } from "vitest";

import type { FormDocument } from "../../api/schemas";
import { ruleAt, withAt } from "./pointers";
import { kindOf, partName, partOf, withKind } from "./rules";

const DOCUMENT = {
  key: "f",
  kind: "web",
  title: "F",
  fields: [],
  slots: [{ key: "s", label: "S", countries: [], parts: [], mapping: [{ components: ["strete"], into: "a" }] }],
} as unknown as FormDocument;

describe("places in a document", () => {
  it("puts what is offered where it is wrong, and leaves the rest as it is", () => {
    const mended = withAt(DOCUMENT, "/slots/0/mapping/0/components/0", "street");
    expect(mended.slots[0]?.mapping[0]).toEqual({ components: ["street"], into: "a" });
    expect(DOCUMENT.slots[0]?.mapping[0]?.components).toEqual(["strete"]);
    expect(withAt(DOCUMENT, "/slots/0/mapping/0/if_written", "append").slots[0]?.mapping[0]?.if_written).toBe("append");
    expect(withAt(DOCUMENT, "/slots/7/key", "x")).toEqual(DOCUMENT);
  });

  it("names the rule that a place is in", () => {
    expect(ruleAt("/slots/1/mapping/12/components/0", 1)).toBe(12);
    expect(ruleAt("/slots/1/mapping/12", 0)).toBeNull();
    expect(ruleAt("/slots/1/parts/0", 1)).toBeNull();
  });
});

describe("rules", () => {
  it("become another kind and keep their target and changes", () => {
    const rule = { components: ["town"], into: "a", changes: ["upper"] };
    expect(withKind(rule, "fit", "x")).toEqual({ fit: { into: ["a"] }, changes: ["upper"] });
    expect(kindOf(withKind(rule, "lines", "x"))).toBe("lines");
    expect(withKind({ fit: { into: ["l1", "l2"] } }, "components", "x")).toEqual({ components: [], into: "l1" });
  });

  it("take several typed words as a group", () => {
    expect(partOf("town")).toBe("town");
    expect(partOf(" number  street ")).toEqual({ components: ["number", "street"], changes: [] });
    expect(partName({ components: ["number", "street"] }, { number: "Number" })).toBe("Number street");
  });
});
