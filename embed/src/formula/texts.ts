/** Functions of texts; as core/formula/functions/texts.py has them. */
import { characters, folded, MOST_CHARACTERS, Problem, type Value } from "./values";

const { floor } = Math;
const WORD = /\p{L}+/gu;

export function held(text: string): Value {
  return characters(text).length <= MOST_CHARACTERS ? text : new Problem("too-long");
}

export function left(text: string, length: number): Value {
  return length < 0 ? new Problem("out-of-range") : characters(text).slice(0, floor(length)).join("");
}

export function right(text: string, length: number): Value {
  if (length < 0) return new Problem("out-of-range");
  const all = characters(text);
  return all.slice(Math.max(0, all.length - floor(length))).join("");
}

export function mid(text: string, start: number, length: number): Value {
  const first = floor(start) - 1;
  if (first < 0 || length < 0) return new Problem("out-of-range");
  return characters(text).slice(first, first + floor(length)).join("");
}

export function proper(text: string): Value {
  return held(
    text.replace(WORD, (word) => {
      const [first = "", ...rest] = characters(word);
      return first.toUpperCase() + rest.join("").toLowerCase();
    }),
  );
}

export function trim(text: string): Value {
  return text.split(" ").filter(Boolean).join(" ");
}

export function substitute(text: string, old: string, replacement: string, which: number | null): Value {
  if (which !== null && which < 1) return new Problem("out-of-range");
  if (!old) return text;
  const pieces = text.split(old);
  if (which === null) return held(pieces.join(replacement));
  const place = floor(which);
  if (place >= pieces.length) return text;
  return held(pieces.slice(0, place).join(old) + replacement + pieces.slice(place).join(old));
}

export function place(part: string, text: string, start: number, alike: boolean): Value {
  const fold = (given: string): string[] => (alike ? characters(given).map(folded) : characters(given));
  const [wanted, all, first] = [fold(part), fold(text), floor(start) - 1];
  if (first < 0 || first > all.length) return new Problem("out-of-range");
  for (let at = first; at <= all.length - wanted.length; at++) {
    if (wanted.every((character, n) => character === all[at + n])) return at + 1;
  }
  return new Problem("not-found");
}

export function repeated(text: string, times: number): Value {
  if (times < 0) return new Problem("out-of-range");
  if (characters(text).length * floor(times) > MOST_CHARACTERS) return new Problem("too-long");
  return text.repeat(floor(times));
}

export function chosen(choices: string, option: string): Value {
  const bare = (text: string): string => folded(text.replace(/^ +| +$/g, ""));
  return choices.split(",").map(bare).includes(bare(option));
}
