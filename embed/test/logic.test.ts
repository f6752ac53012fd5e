import { describe, expect, it } from "vitest";

import vectors from "../../tests/vectors/logic.json";
import { type AddressValue } from "../src/formula/address-value";
import { type FormLogic, workOut } from "../src/form/logic";
import { type FormDocument, type Value, itemsOf } from "../src/form/model";
import { toData } from "./formula-cases";

const document = vectors.document as unknown as FormDocument;
const logic = vectors.logic as unknown as FormLogic;

interface Case {
  says: string;
  values: Record<string, Value>;
  slots: Record<string, AddressValue>;
  shown: string[];
  needed: string[];
  comes_to: Record<string, unknown>;
}

describe("what a form comes to, as the service has it", () => {
  const keys = itemsOf(document).flatMap((item) => [
    item.key,
    ...("parts" in item ? item.parts.map((part) => part.key) : []),
  ]);
  for (const { says, values, slots, shown, needed, comes_to } of vectors.cases as unknown as Case[]) {
    it(says, () => {
      const worked = workOut(document, logic, { values, slots, today: 0 });
      expect(keys.filter((key) => worked.shown.has(key))).toEqual(shown);
      expect(keys.filter((key) => worked.needed.has(key))).toEqual(needed);
      const given = Object.entries(worked.values).filter(([, value]) => value !== null);
      expect(Object.fromEntries(given.map(([key, value]) => [key, toData(value)]))).toEqual(comes_to);
    });
  }

  const { stops } = vectors;
  for (const { says, characters, stopped_at, shown, needed } of stops.cases) {
    it(says, () => {
      const typing = { values: { notes: "a".repeat(characters) }, slots: {}, today: 0 };
      const worked = workOut(stops.document as unknown as FormDocument, stops.logic as unknown as FormLogic, typing);
      expect(worked.stoppedAt).toBe(stopped_at);
      expect(stops.logic.order.filter((key) => worked.shown.has(key))).toEqual(shown);
      expect([...worked.needed].sort()).toEqual(needed);
    });
  }

  it("puts slots that no entry places at the end", () => {
    const free = { ...document, fields: document.fields.filter((f) => !("slot" in f)) };
    expect(itemsOf(free).at(-1)?.key).toBe("t");
  });
});
