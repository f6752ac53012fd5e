/** Functions of texts; as core/formula/functions/texts.py has them. */
import { placeOfWhole } from "./occurrence";
import { characters, folded, lengthOf, MOST_CHARACTERS, Problem, type Value, withoutBlanks } from "./values";

const { floor } = Math;
const WORD = /\p{L}+/gu;

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
  return text.replace(WORD, (word) => {
    const [first = "", ...rest] = characters(word);
    return first.toUpperCase() + rest.join("").toLowerCase();
  });
}

export function trim(text: string): Value {
  return text.split(" ").filter(Boolean).join(" ");
}

export function substitute(text: string, old: string, replacement: string, which: number | null): Value {
  if (which !== null && which < 1) return new Problem("out-of-range");
  if (!old) return text;
  const pieces = text.split(old);
  if (which === null) {
    // Before it is made: ten thousand places times ten thousand characters are too many.
    const longer = (pieces.length - 1) * (lengthOf(replacement) - lengthOf(old));
    return lengthOf(text) + longer > MOST_CHARACTERS ? new Problem("too-long") : pieces.join(replacement);
  }
  const place = floor(which);
  if (place >= pieces.length) return text;
  return pieces.slice(0, place).join(old) + replacement + pieces.slice(place).join(old);
}

export function find(part: string, text: string, start: number): Value {
  return placeIn(characters(part), characters(text), start);
}

export function search(part: string, text: string, start: number): Value {
  return placeIn(characters(folded(part)), characters(text).map(folded), start);
}

function placeIn(part: string[], text: string[], start: number): Value {
  const first = floor(start) - 1;
  if (first < 0 || first > text.length) return new Problem("out-of-range");
  const place = placeOfWhole(part, text, first);
  return place < 0 ? new Problem("not-found") : place + 1;
}

export function repeated(text: string, times: number): Value {
  if (times < 0) return new Problem("out-of-range");
  if (!text) return text;
  if (lengthOf(text) * floor(times) > MOST_CHARACTERS) return new Problem("too-long");
  return text.repeat(floor(times));
}

export function chosen(choices: string, option: string): Value {
  const bare = (text: string): string => folded(withoutBlanks(text));
  return choices.split(",").map(bare).includes(bare(option));
}
