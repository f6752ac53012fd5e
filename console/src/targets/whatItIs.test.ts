import { describe, expect, it } from "vitest";

import type { PageAddress, TargetDocument } from "./useTargets";
import { LEFT, MORE, inCapitals, moreOf, whatItIs, withCapitals, withChoice } from "./whatItIs";

const address = (mapping: unknown[]): PageAddress => ({ key: "a", label: "A", mapping }) as unknown as PageAddress;
const target = (...mappings: unknown[][]): TargetDocument => ({ key: "t", title: "T", addresses: mappings.map(address) }) as unknown as TargetDocument;
const rules = (document: TargetDocument, at = 0): unknown[] => (document.addresses?.[at]?.mapping ?? []) as unknown[];

describe("what an input is", () => {
  it.each([
    [[], LEFT],
    [[{ components: ["town"], into: "x" }], "town"],
    [[{ lines: "street", into: "x" }], "line:street"],
    [[{ components: ["unit", "building"], into: "x" }], MORE],
    [[{ components: ["town"], into: "x", changes: ["upper"] }], "town"],
    [[{ components: ["town"], into: "x", changes: ["ascii", "upper"] }], MORE],
    [[{ fit: { into: ["x", "y"] } }], MORE],
  ])("of %j is %s", (mapping, choice) => expect(whatItIs(address(mapping), "x")).toBe(choice));

  it("is said in words where it is more", () => {
    expect(moreOf(address([{ components: ["unit", "building"], into: "x" }]), "x").label).toBe("Unit, Building");
    expect(moreOf(address([{ fit: { into: ["x", "y"] } }]), "x")).toEqual({ label: "One of 2 lines for what no other field takes", isShared: true });
  });

  it("is changed without touching other inputs", () => {
    const before = target([{ components: ["town"], into: "x" }, { components: ["region"], into: "y" }]);
    const after = withChoice(before, 0, "x", "line:street");
    expect(rules(after)).toEqual([{ components: ["region"], into: "y" }, { lines: "street", into: "x" }]);
    expect(rules(withChoice(after, 0, "x", LEFT))).toEqual([{ components: ["region"], into: "y" }]);
  });

  it("stays in capitals when it is something else", () => {
    const before = target([{ components: ["town"], into: "x" }, { fit: { into: ["y", "z"] } }]);
    const after = withCapitals(withCapitals(before, "x", true), "z", true);
    expect([inCapitals(after.addresses![0]!, "x"), inCapitals(after.addresses![0]!, "y"), inCapitals(after.addresses![0]!, "none")]).toEqual([true, true, false]);
    expect(rules(withChoice(after, 0, "x", "region"))).toContainEqual({ components: ["region"], into: "x", changes: ["upper"] });
    expect(rules(withCapitals(withCapitals(after, "x", false), "y", false))).toEqual([
      { components: ["town"], into: "x", changes: [] },
      { fit: { into: ["y", "z"] }, changes: [] },
    ]);
  });

  it("of one address is taken out of another, so that nothing is filled twice", () => {
    const after = withChoice(target([{ components: ["town"], into: "x" }], []), 1, "x", "town");
    expect([rules(after, 0), rules(after, 1)]).toEqual([[], [{ components: ["town"], into: "x" }]]);
  });
});
