import { describe, expect, it } from "vitest";

import type { FormDocument } from "../src/form/model";
import { shapeOf, stepsOf } from "../src/form/shape";
import { bestLanguage, languagesOf, translated } from "../src/form/translated";

const field = (key: string, type = "text") => ({ key, type, label: key });
const form = (...fields: unknown[]) => ({ key: "f", kind: "web", title: "F", fields, slots: [] }) as unknown as FormDocument;
const document = form(
  field("a"), field("p1", "page"), field("h", "heading"), field("b"), field("s", "section"), field("c"), field("sum", "formula"),
  field("p2", "page"), field("d"), field("n", "note"),
);

describe("how a form is laid out", () => {
  it("divides pages into what stands before their first section, and sections", () => {
    const shape = shapeOf(document).map((page) => [
      page.marker?.key ?? null,
      page.groups.map((group) => [group.marker?.key ?? null, group.items.map((item) => item.key)]),
    ]);
    expect(shape).toEqual([
      [null, [[null, ["a"]]]],
      ["p1", [[null, ["h", "b"]], ["s", ["c", "sum"]]]],
      ["p2", [[null, ["d", "n"]]]],
    ]);
  });

  it.each([
    ["whole", [["a", "h", "b", "c", "sum", "d", "n"]]],
    ["pages", [["a"], ["h", "b", "c", "sum"], ["d", "n"]]],
    ["questions", [["a"], ["h", "b"], ["c"], ["sum", "d", "n"]]],
  ])("is filled %s", (style, steps) => {
    expect(stepsOf(shapeOf(document), style)).toEqual(steps);
  });

  it("has one step where there is nothing to ask", () => {
    expect(stepsOf(shapeOf(form(field("n", "note"))), "questions")).toEqual([["n"]]);
    expect(stepsOf([], "questions")).toEqual([]);
  });
});

describe("the languages of a form", () => {
  const several = {
    ...form(field("a"), { ...field("c", "choice"), options: [{ value: "x", label: "X" }, { value: "y" }] }),
    translations: { de: { title: "Formular", items: { a: { label: "Ä" }, c: { options: { x: "Iks" } } } }, "pt-BR": { items: {} } },
  } as unknown as FormDocument;

  it("are its own first", () => expect(languagesOf(several)).toEqual(["en", "de", "pt-BR"]));

  it.each([
    [["de-AT", "en"], "de"],
    [["pt"], "pt-BR"],
    [["pt-BR", "de"], "pt-BR"],
    [["fr", "xx"], "en"],
    [[], "en"],
  ])("for somebody who reads %j", (wanted, best) => expect(bestLanguage(several, wanted)).toBe(best));

  it("say what is translated, and the rest as it is written", () => {
    const german = translated(several, "de");
    expect(german.title).toBe("Formular");
    expect(german.fields).toMatchObject([{ label: "Ä" }, { label: "c", options: [{ label: "Iks" }, { value: "y", label: null }] }]);
    expect(translated(several, "en")).toBe(several);
  });
});
