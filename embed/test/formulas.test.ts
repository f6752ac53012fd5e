import { describe, expect, it } from "vitest";

import vectors from "../../tests/vectors/formulas.json";
import { type AddressValue } from "../src/formula/address-value";
import { type Case, type Cases, comesTo } from "./formula-cases";

const given: Cases = { today: vectors.today, slots: vectors.slots as unknown as Record<string, AddressValue>, cases: [] };

describe("formulas, as the service works them out", () => {
  for (const one of vectors.cases as unknown as Case[]) {
    it(one.formula, () => {
      expect(comesTo(given, { ...one, values: vectors.values })).toEqual(one.value);
    });
  }
});
