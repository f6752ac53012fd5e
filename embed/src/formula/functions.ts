/** All functions and operators by name. Their arguments are of their kinds already: see core/formula. */
import { valueAt } from "../dictionary";
import { type AddressValue } from "./address-value";
import { dayOf, serialOf, daysInMonth } from "./calendar";
import { written } from "./formats";
import * as numbers from "./numbers";
import * as texts from "./texts";
import { dateOf, Day, finite, lengthOf, Problem, toDate, toNumber, toText, toYesNo, type Value } from "./values";

// A checked tree calls each with what it takes.
// biome-ignore lint: the kinds are checked before
type Rule = (...given: any[]) => Value;
const { floor, trunc } = Math;

const OPERATORS: Record<string, Rule> = {
  "=": numbers.comparing((order) => order === 0),
  "<>": numbers.comparing((order) => order !== 0),
  "<": numbers.comparing((order) => order < 0),
  ">": numbers.comparing((order) => order > 0),
  "<=": numbers.comparing((order) => order <= 0),
  ">=": numbers.comparing((order) => order >= 0),
  "+": (one: Value, other: Value) => numbers.shifted(one, other, 1),
  "-": (one: Value, other: Value) => numbers.shifted(one, other, -1),
  "*": (one: number, other: number) => finite(one * other),
  "/": numbers.divided,
  "^": numbers.power,
  "&": (one: string, other: string) => one + other,
  NEGATE: (number: number) => finite(-number),
  PLUS: (number: number) => number,
  PERCENT: (number: number) => finite(number / 100),
};

const NUMBERS: Record<string, Rule> = {
  ROUND: (number, places) => numbers.toPlaces(number, places, "half-up"),
  ROUNDUP: (number, places) => numbers.toPlaces(number, places, "up"),
  ROUNDDOWN: (number, places) => numbers.toPlaces(number, places, "down"),
  TRUNC: (number, places) => numbers.toPlaces(number, places, "down"),
  INT: (number) => floor(numbers.toFifteen(number)),
  MOD: numbers.modulo,
  ABS: (number) => Math.abs(number),
  CEILING: (number, step) => numbers.multiple(number, step, true),
  FLOOR: (number, step) => numbers.multiple(number, step, false),
  MIN: (...values) => numbers.extreme(values, true),
  MAX: (...values) => numbers.extreme(values, false),
  SUM: (...values) => numbers.sum(values),
  AVERAGE: (...values) => numbers.average(values),
};

const LOGIC: Record<string, Rule> = {
  AND: (...conditions) => conditions.every(Boolean),
  OR: (...conditions) => conditions.some(Boolean),
  XOR: (...conditions) => conditions.filter(Boolean).length % 2 === 1,
  NOT: (condition) => !condition,
  TRUE: () => true,
  FALSE: () => false,
};

const TEXTS: Record<string, Rule> = {
  LEN: lengthOf,
  LEFT: texts.left,
  RIGHT: texts.right,
  MID: texts.mid,
  UPPER: (text) => text.toUpperCase(),
  LOWER: (text) => text.toLowerCase(),
  PROPER: texts.proper,
  TRIM: texts.trim,
  SUBSTITUTE: texts.substitute,
  FIND: texts.find,
  SEARCH: texts.search,
  REPT: texts.repeated,
  EXACT: (one, other) => one === other,
  CHOSEN: texts.chosen,
  CONCATENATE: (...all) => all.join(""),
  VALUE: toNumber,
  TEXT: written,
};

const DATES: Record<string, Rule> = {
  DATE: (...given: number[]) => {
    const [year = 0, month = 0, day = 0] = given.map(trunc);
    const isFar = [year, month, day].some((part) => Math.abs(part) > 10_000_000);
    return isFar ? new Problem("no-such-date") : dateOf(serialOf(year, month, day));
  },
  YEAR: (date: Day) => dayOf(date.serial)[0],
  MONTH: (date: Day) => dayOf(date.serial)[1],
  DAY: (date: Day) => dayOf(date.serial)[2],
  WEEKDAY: (date: Day, kind: number) => {
    const monday = (((date.serial + 5) % 7) + 7) % 7;
    const days: Record<number, number> = { 1: ((monday + 1) % 7) + 1, 2: monday + 1, 3: monday };
    return days[floor(kind)] ?? new Problem("out-of-range");
  },
  DAYS: (end: Day, start: Day) => end.serial - start.serial,
  EDATE: (date: Day, months: number) => {
    if (Math.abs(months) > 120_000) return new Problem("no-such-date");
    const [from, of, day] = dayOf(date.serial);
    const all = from * 12 + of - 1 + trunc(months);
    const [year, month] = [floor(all / 12), (((all % 12) + 12) % 12) + 1];
    if (year < 1 || year > 9999) return new Problem("no-such-date");
    return dateOf(serialOf(year, month, Math.min(day, daysInMonth(year, month))));
  },
};

const ADDRESSES: Record<string, Rule> = {
  ADDRESS: (slot: AddressValue) => slot.line || null,
  ADDRESSLINES: (slot: AddressValue) => slot.lines.join("\n") || null,
  COMPONENT: (slot: AddressValue, name: string) => valueAt(slot.components, name) || null,
  LATITUDE: (slot: AddressValue) => slot.latitude,
  LONGITUDE: (slot: AddressValue) => slot.longitude,
  ADDRESSUSE: (slot: AddressValue) => slot.facts?.use || null,
  ADDRESSLANGUAGES: (slot: AddressValue) => slot.facts?.languages || null,
  ADDRESSID: (slot: AddressValue) => slot.facts?.id || null,
  ISFILLED: (slot: AddressValue) => slot.given !== "",
  ISPICKED: (slot: AddressValue) => slot.given === "picked",
  ISTYPED: (slot: AddressValue) => slot.given === "typed",
  KILOMETRES: (one: AddressValue, other: AddressValue) =>
    between(one.latitude, one.longitude, other.latitude, other.longitude),
  KILOMETRESFROM: (one: AddressValue, latitude: number, longitude: number) =>
    Math.abs(latitude) > 90 || Math.abs(longitude) > 180
      ? new Problem("out-of-range")
      : between(one.latitude, one.longitude, latitude, longitude),
};

const RADIUS = 6371.0088;

function between(latitude: number | null, longitude: number | null, other: number | null, far: number | null): Value {
  if (latitude === null || longitude === null || other === null || far === null) return null;
  const toRadians = Math.PI / 180;
  const north = Math.sin(((other - latitude) * toRadians) / 2);
  const east = Math.sin(((far - longitude) * toRadians) / 2);
  const cosines = Math.cos(latitude * toRadians) * Math.cos(other * toRadians);
  const part = Math.min(1, north * north + cosines * east * east);
  return floor(2 * RADIUS * Math.asin(Math.sqrt(part)) * 1000 + 0.5) / 1000;
}

export const RULES: Readonly<Record<string, Rule>> = {
  ...OPERATORS,
  ...NUMBERS,
  ...LOGIC,
  ...TEXTS,
  ...DATES,
  ...ADDRESSES,
};

/** Rules that are asked also where an argument is a problem. */
export const HOLDING_PROBLEMS: Readonly<Record<string, Rule>> = {
  ISNUMBER: numbers.isNumeric,
  ISBLANK: (value) => value === null,
  ISTEXT: (value) => typeof value === "string",
  COUNT: (...values) => values.filter(numbers.isNumeric).length,
  COUNTA: (...values) => values.filter((value) => value !== null).length,
};

export const CONVERSIONS: Readonly<Record<string, (value: Value) => Value>> = {
  number: toNumber,
  text: toText,
  yes_no: toYesNo,
  date: toDate,
};
