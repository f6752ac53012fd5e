/** Which option of a list a text means, as the core has it (`core/targets/options.py`, `tests/vectors/options.json`). */

/** An option by what its page calls it and by what people read. */
export interface Texts {
  value: string;
  text: string;
}

/**
 * The option that is meant: by its value, by its text, by its text without what stands in brackets
 * at its end, or by a word in one of them, such as a code.
 *
 * Args:
 *   writes: `value` or `text` for one of these alone.
 *   how: `exactly` leaves words out.
 */
export function fitting<Option extends { texts: Texts }>(options: readonly Option[], text: string, writes = "any", how?: "exactly"): Option | undefined {
  const wanted = plain(text);
  if (!wanted) return options.find(({ texts }) => !plain(texts.value));
  const ways: ((texts: Texts) => boolean)[] = [];
  if (writes !== "text") ways.push(({ value }) => plain(value) === wanted);
  if (writes !== "value") ways.push((texts) => plain(texts.text) === wanted);
  if (writes !== "value") ways.push((texts) => plain(texts.text.replace(/\s*[([][^()[\]]*[)\]]\s*$/u, "")) === wanted);
  if (writes === "any" && !how) {
    ways.push(({ value, text: read }) => `${value} ${read}`.split(/[^\p{L}\p{N}]+/u).some((word) => plain(word) === wanted));
  }
  for (const way of ways) {
    const found = options.find(({ texts }) => way(texts));
    if (found) return found;
  }
  return undefined;
}

/** Texts of which one is the other as a mask or a country spells it. */
export function plain(text: string): string {
  return text.normalize("NFC").toLowerCase().replace(/[\s\p{P}]+/gu, "");
}
