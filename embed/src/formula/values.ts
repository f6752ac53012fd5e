/** The values of formulas and how one kind is taken for another; as core/formula/values.py has it. */
import { serialOf, isDay, isoDate } from "./calendar";
import { fifteen, plain, toDouble } from "./decimal";

export class Day {
  constructor(readonly serial: number) {}
}
export class Problem {
  constructor(readonly code: string) {}
}
export type Value = number | string | boolean | Day | Problem | null;

export const MOST_CHARACTERS = 10_000;
const NUMBER = /^[+-]?(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]{1,3})?%?$/;
const ISO_DATE = /^([0-9]{4})-([0-9]{2})-([0-9]{2})$/;

export type Kind = "number" | "text" | "yes_no" | "date" | "empty" | "problem";

export function typeOf(value: Value): Kind {
  if (value === null) return "empty";
  if (typeof value === "boolean") return "yes_no";
  if (typeof value === "string") return "text";
  if (value instanceof Day) return "date";
  return value instanceof Problem ? "problem" : "number";
}

export function finite(number: number): number | Problem {
  return Number.isFinite(number) ? number + 0 : new Problem("too-large");
}

/** A value that formulas may work with, or the problem that it is too long, large or no number. */
export function withinLimits(value: Value): Value {
  if (typeof value === "string") return lengthOf(value) <= MOST_CHARACTERS ? value : new Problem("too-long");
  if (typeof value === "number" && !Number.isFinite(value)) return new Problem(Number.isNaN(value) ? "not-a-number" : "too-large");
  return value;
}

/** A text without blanks around it; no expression: one that looks for blanks at the end looks at each row of them. */
export function withoutBlanks(text: string): string {
  let [start, end] = [0, text.length];
  while (start < end && text[start] === " ") start++;
  while (end > start && text[end - 1] === " ") end--;
  return text.slice(start, end);
}

export const characters = (text: string): string[] => Array.from(text);

/** How many characters a text has: halves of one count once, as everywhere else. */
export function lengthOf(text: string): number {
  let length = text.length;
  for (let at = 0; at + 1 < text.length; at++) {
    if (isHigh(text.charCodeAt(at)) && isLow(text.charCodeAt(at + 1))) {
      length--;
      at++;
    }
  }
  return length;
}

const isHigh = (unit: number): boolean => unit >= 0xd800 && unit < 0xdc00;
const isLow = (unit: number): boolean => unit >= 0xdc00 && unit < 0xe000;

export function toNumber(value: Value): number | Problem {
  if (value === null) return 0;
  if (value instanceof Day) return value.serial;
  if (typeof value === "string") return writtenNumber(withoutBlanks(value));
  return value instanceof Problem ? value : Number(value);
}

function writtenNumber(text: string): number | Problem {
  if (NUMBER.test(text)) {
    return text.endsWith("%") ? finite(Number(text.slice(0, -1)) / 100) : finite(Number(text));
  }
  const date = writtenDate(text);
  return date ? date.serial : new Problem("not-a-number");
}

export function toText(value: Value): string | Problem {
  if (value === null) return "";
  if (typeof value === "boolean") return value ? "TRUE" : "FALSE";
  if (typeof value === "string" || value instanceof Problem) return value;
  return value instanceof Day ? isoDate(value.serial) : plain(value);
}

export function toYesNo(value: Value): boolean | Problem {
  if (value === null || typeof value === "boolean") return Boolean(value);
  if (typeof value === "string") {
    const said = withoutBlanks(value).toUpperCase();
    return said === "TRUE" ? true : said === "FALSE" ? false : new Problem("not-yes-or-no");
  }
  if (value instanceof Problem) return value;
  return Boolean(value instanceof Day ? value.serial : value);
}

export function toDate(value: Value): Day | Problem {
  if (value instanceof Day || value instanceof Problem) return value;
  if (typeof value === "string") {
    const text = withoutBlanks(value);
    const date = writtenDate(text);
    if (date) return date;
    if (!NUMBER.test(text)) return new Problem("not-a-date");
  }
  const number = toNumber(value);
  return number instanceof Problem ? number : dateOf(Math.floor(number));
}

export function dateOf(serial: number): Day | Problem {
  return isDay(serial) ? new Day(serial + 0) : new Problem("no-such-date");
}

function writtenDate(text: string): Day | null {
  const match = ISO_DATE.exec(text);
  if (!match) return null;
  const serial = serialOf(Number(match[1]), Number(match[2]), Number(match[3]));
  return isDay(serial) && isoDate(serial) === text ? new Day(serial) : null;
}

/** A text that is written like a date as one; anything else as it is. */
export function asDate(value: Value): Value {
  return typeof value === "string" ? (writtenDate(withoutBlanks(value)) ?? value) : value;
}

/** A text as texts are compared: in one case, a sigma the same wherever it stands. */
export const folded = (text: string): string => text.toUpperCase().toLowerCase().replaceAll("ς", "σ");

const ORDER: Partial<Record<Kind, number>> = { number: 0, date: 0, text: 1, yes_no: 2 };
const EMPTY: Partial<Record<Kind, Value>> = { number: 0, date: 0, text: "", yes_no: false };

/** -1, 0 or 1: how two values stand to each other. */
export function compared(one: Value, other: Value): number | Problem {
  if (one instanceof Problem) return one;
  if (other instanceof Problem) return other;
  if (one === null && other === null) return 0;
  if (one === null) return compared(EMPTY[typeOf(other)] ?? null, other);
  if (other === null) return compared(one, EMPTY[typeOf(one)] ?? null);
  if (other instanceof Day) one = asDate(one);
  if (one instanceof Day) other = asDate(other);
  const [left, right] = [ORDER[typeOf(one)] ?? 0, ORDER[typeOf(other)] ?? 0];
  if (left !== right) return left < right ? -1 : 1;
  if (typeof one === "string" && typeof other === "string") return inOrder(folded(one), folded(other));
  return Math.sign(asCompared(one) - asCompared(other));
}

function asCompared(value: Value): number {
  const number = toNumber(value);
  return number instanceof Problem ? 0 : toDouble(fifteen(number));
}

/** Texts by their characters, where JavaScript would compare halves of them. */
function inOrder(one: string, other: string): number {
  const [left, right] = [characters(one), characters(other)];
  for (let place = 0; place < Math.min(left.length, right.length); place++) {
    const difference = (left[place]?.codePointAt(0) ?? 0) - (right[place]?.codePointAt(0) ?? 0);
    if (difference) return Math.sign(difference);
  }
  return Math.sign(left.length - right.length);
}

