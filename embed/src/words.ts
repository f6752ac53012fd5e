/** What the elements themselves say, in one of their languages: one file each, English built in. */

import { en } from "./words/en";
import type { Texts } from "./words/texts";
import { valueAt } from "./dictionary";

export type { Text, Texts } from "./words/texts";

const OTHERS: Record<string, () => Promise<Texts>> = {
  ar: async () => (await import("./words/ar")).ar,
  de: async () => (await import("./words/de")).de,
  fr: async () => (await import("./words/fr")).fr,
  ga: async () => (await import("./words/ga")).ga,
  ja: async () => (await import("./words/ja")).ja,
  nl: async () => (await import("./words/nl")).nl,
  pt: async () => (await import("./words/pt")).pt,
};
/** Languages that are written from right to left, among those that forms are likely to have. */
const RIGHT_TO_LEFT = new Set(["ar", "arc", "ckb", "dv", "fa", "he", "ps", "sd", "ug", "ur", "yi"]);

/** The language of a tag without its region: `pt-BR` is `pt`. */
export function primary(tag: string): string {
  return tag.toLowerCase().split("-")[0] ?? "";
}

export function directionOf(tag: string): "rtl" | "ltr" {
  return RIGHT_TO_LEFT.has(primary(tag)) ? "rtl" : "ltr";
}

/** Kinds of the service's sentences that are said here already, under another name. */
const PROBLEMS: Record<string, keyof Texts> = {
  needed: "isNeeded",
  address_needed: "addressIsNeeded",
  too_many_steps: "tooManySteps",
};

/** Says things in one language. */
export class Words {
  constructor(
    readonly language: string,
    private readonly texts: Texts,
  ) {}

  /** A text, with what is filled in; `count` chooses among forms of number. */
  say(name: keyof Texts, given: Record<string, string | number> = {}): string {
    const found = this.texts[name];
    const text = typeof found === "string" ? found : (found[this.rule(given.count)] ?? found.other);
    return text.replace(/\{(\w+)\}/g, (whole, key: string) => {
      const value = valueAt(given, key);
      return value === undefined ? whole : this.written(value);
    });
  }

  /** What is wrong, in these words; in the service's, where it has no kind that is known here. */
  problem(place: { detail: string; kind?: string | null; given?: Readonly<Record<string, string | number>> | null }): string {
    const kind = place.kind ?? "";
    const name = valueAt(PROBLEMS, kind) ?? kind;
    // In English the service says it best: it knows more of the field.
    if (this.language === "en" || !Object.hasOwn(this.texts, name)) return place.detail;
    return this.say(name as keyof Texts, { ...place.given });
  }

  private rule(count: string | number | undefined): Intl.LDMLPluralRule {
    return new Intl.PluralRules(this.language).select(Number(count ?? 0));
  }

  private written(value: string | number): string {
    return typeof value === "number" ? new Intl.NumberFormat(this.language).format(value) : value;
  }
}

export const ENGLISH = new Words("en", en);
const known = new Map<string, Words>([["en", ENGLISH]]);

/** The words of a language; English where there are none of it, or they cannot be had. */
export async function wordsOf(tag: string): Promise<Words> {
  const language = primary(tag);
  const there = known.get(language);
  const load = valueAt(OTHERS, language);
  if (there || !load) return there ?? ENGLISH;
  try {
    const words = new Words(language, await load());
    known.set(language, words);
    return words;
  } catch {
    return ENGLISH;
  }
}
