import { describe, expect, it } from "vitest";

import { type Text, type Texts, Words, directionOf, wordsOf } from "../src/words";
import { ar } from "../src/words/ar";
import { de } from "../src/words/de";
import { en } from "../src/words/en";
import { fr } from "../src/words/fr";
import { ga } from "../src/words/ga";
import { ja } from "../src/words/ja";
import { nl } from "../src/words/nl";
import { pt } from "../src/words/pt";

const LANGUAGES: Record<string, Texts> = { ar, de, fr, ga, ja, nl, pt };
const forms = (text: Text): string[] => (typeof text === "string" ? [text] : Object.values(text));
const filled = (text: string): string[] => [...text.matchAll(/\{(\w+)\}/g)].map((one) => one[1] ?? "").sort();
const NAMES = Object.keys(en) as (keyof Texts)[];

describe.each(Object.entries(LANGUAGES))("the words in %s", (language, texts) => {
  it("are all there, and none beside them", () => {
    expect(Object.keys(texts).sort()).toEqual([...NAMES].sort());
    for (const name of NAMES) for (const text of forms(texts[name])) expect(text.trim(), name).not.toBe("");
  });

  it("are filled with what the English ones are filled with", () => {
    for (const name of NAMES) {
      const wanted = filled(forms(en[name]).at(-1) ?? "");
      const text = texts[name];
      expect(filled(typeof text === "string" ? text : text.other), name).toEqual(wanted);
    }
  });

  it("have a form for every number", () => {
    const words = new Words(language, texts);
    for (const count of [0, 1, 2, 3, 5, 11, 21, 100]) {
      expect(words.say("fieldsFilled", { count })).not.toMatch(/[{}]/);
    }
  });

  it("are loaded by their language's tag, with a region as well", async () => {
    expect((await wordsOf(`${language}-XX`)).language).toBe(language);
  });
});

it("falls back to English, and counts in it", async () => {
  const words = await wordsOf("xx");
  expect(words.say("fieldsFilled", { count: 1 })).toBe("1 field filled.");
  expect(words.say("fieldsFilled", { count: 1200 })).toBe("1,200 fields filled.");
});

it("knows what is written from right to left", () => {
  expect([directionOf("ar-EG"), directionOf("he"), directionOf("de")]).toEqual(["rtl", "rtl", "ltr"]);
});
