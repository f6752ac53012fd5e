import { describe, expect, it } from "vitest";

import vectors from "../../tests/vectors/visibility.json";
import { type FormDocument, itemsOf } from "../src/form/model";
import { holds } from "../src/form/visibility";

const document = vectors.document as unknown as FormDocument;

describe("visibility, as the service has it", () => {
  for (const { says, values, shown } of vectors.cases) {
    it(says, () => {
      const found = itemsOf(document).flatMap((item) => {
        if (!holds(document, item.show_when, values)) return [];
        return "parts" in item ? item.parts.map((part) => part.key) : [item.key];
      });
      expect(found).toEqual(shown);
    });
  }

  it("puts slots that no entry places at the end", () => {
    const free = { ...document, fields: document.fields.filter((f) => !("slot" in f)) };
    expect(itemsOf(free).at(-1)?.key).toBe("s");
  });
});
