/** Formats of the function TEXT; as core/formula/formats.py has them. */
import { dayOf } from "./calendar";
import { type Decimal, fifteen, rounded, spread } from "./decimal";
import { Day, Problem, toDate, toNumber, toText, type Value } from "./values";

const DIGITS = /[0#][0#,]*(?:\.[0#]*)?|\.[0#]+/;
const DATE_PART = /"[^"]*"|YYYY|YY|MM|M|DD|D|[^]/giu;
const MOST_PLACES = 15;
const UNKNOWN = new Problem("unknown-format");

/** A value in a format; a text stays as it is. */
export function written(value: Value, form: string): string | Problem {
  if (value instanceof Problem) return value;
  const bare = form.replace(/"([^"]*)"/g, "");
  if (DIGITS.test(bare) && !(value instanceof Day)) {
    const number = toNumber(value);
    if (!(number instanceof Problem)) return numberIn(number, form);
    return typeof value === "string" ? value : number;
  }
  if (/[YMD]/i.test(bare)) {
    const date = toDate(value);
    if (!(date instanceof Problem)) return dateIn(date, form);
    return typeof value === "string" ? value : date;
  }
  return form === "@" ? toText(value) : UNKNOWN;
}

const isQuoted = (part: string): boolean => part.startsWith('"');

function numberIn(number: number, form: string): string | Problem {
  const parts = form.split(/("[^"]*")/);
  const places = parts.flatMap((part, place) => (!isQuoted(part) && DIGITS.test(part) ? [place] : []));
  const [place] = places;
  const part = place === undefined ? "" : (parts[place] ?? "");
  const match = DIGITS.exec(part);
  if (place === undefined || places.length !== 1 || !match) return UNKNOWN;
  const [before, behind] = [part.slice(0, match.index), part.slice(match.index + match[0].length)];
  if (DIGITS.test(behind) || match[0].endsWith(",")) return UNKNOWN;
  const point = match[0].indexOf(".");
  const whole = point < 0 ? match[0] : match[0].slice(0, point);
  const fraction = point < 0 ? "" : match[0].slice(point + 1);
  if (fraction.length > MOST_PLACES || fraction.includes(",")) return UNKNOWN;
  const exact = fifteen(number);
  const isPercent = behind.includes("%") || before.includes("%");
  const digits = digitsOf(isPercent && exact.digits ? { ...exact, point: exact.point + 2 } : exact, whole, fraction);
  parts[place] = before + digits + behind;
  const text = parts.map((p) => (p.length > 1 && isQuoted(p) ? p.slice(1, -1) : p)).join("");
  return number < 0 && /[1-9]/.test(digits) ? `-${text}` : text;
}

function digitsOf(number: Decimal, whole: string, fraction: string): string {
  const found = spread(rounded(number, fraction.length, "half-up"));
  const rest = found.rest.padEnd(fraction.lastIndexOf("0") + 1, "0");
  let ones = found.ones.replace(/^0+/, "").padStart(whole.split("0").length - 1, "0");
  if (whole.includes(",")) ones = inThousands(ones);
  return `${ones}${rest || fraction.startsWith("0") ? "." : ""}${rest}`;
}

/** Digits in groups of three from behind; an expression would look at all that follow each of them. */
function inThousands(digits: string): string {
  const parted: string[] = [];
  for (let end = digits.length; end > 0; end -= 3) parted.unshift(digits.slice(Math.max(0, end - 3), end));
  return parted.join(",");
}

function dateIn(date: Day, form: string): string {
  const [year, month, day] = dayOf(date.serial);
  const two = (part: number): string => String(part).padStart(2, "0");
  const parts: Record<string, string> = {
    YYYY: String(year).padStart(4, "0"),
    YY: two(year % 100),
    MM: two(month),
    M: String(month),
    DD: two(day),
    D: String(day),
  };
  return (form.match(DATE_PART) ?? [])
    .map((part) => parts[part.toUpperCase()] ?? (part.length > 1 && isQuoted(part) ? part.slice(1, -1) : part))
    .join("");
}
