/** Operators and functions of numbers; as core/formula/functions/{operators,numbers}.py have them. */
import { fifteen, type Rounding, rounded, toDouble } from "./decimal";
import { asDate, compared, dateOf, Day, finite, Problem, toNumber, typeOf, type Value } from "./values";

const MOST_PLACES = 15;
export const toFifteen = (number: number): number => toDouble(fifteen(number));

export function shifted(left: Value, right: Value, sign: 1 | -1): Value {
  return shiftedBy(right instanceof Day ? asDate(left) : left, left instanceof Day ? asDate(right) : right, sign);
}

function shiftedBy(one: Value, other: Value, sign: 1 | -1): Value {
  if (one instanceof Day && other instanceof Day) {
    return sign < 0 ? one.serial - other.serial : new Problem("not-a-number");
  }
  const [left, right] = [toNumber(one), toNumber(other)];
  if (left instanceof Problem) return left;
  if (right instanceof Problem) return right;
  const total = finite(left + sign * right);
  if (total instanceof Problem) return total;
  const isDate = one instanceof Day || (sign > 0 && other instanceof Day);
  return isDate ? dateOf(Math.floor(total)) : total;
}

export function power(base: number, exponent: number): Value {
  if (base === 0 && exponent === 0) return 1;
  if (base === 0 && exponent < 0) return new Problem("division-by-zero");
  if (base < 0 && !Number.isInteger(exponent)) return new Problem("out-of-range");
  if (exponent === 0.5) return Math.sqrt(base);
  if (Number.isInteger(exponent) && Math.abs(exponent) <= 1024) return wholePower(base, exponent);
  return finite(Number((base ** exponent).toExponential(11)));
}

function wholePower(base: number, exponent: number): Value {
  let [result, square, left] = [1, base, Math.abs(exponent)];
  while (left) {
    if (left & 1) result *= square;
    square *= square;
    left >>= 1;
  }
  if (exponent >= 0) return finite(result);
  return result ? finite(1 / result) : new Problem("too-large");
}

export function divided(one: number, other: number): Value {
  return other ? finite(one / other) : new Problem("division-by-zero");
}

export function comparing(holds: (order: number) => boolean): (one: Value, other: Value) => Value {
  return (one, other) => {
    const order = compared(one, other);
    return order instanceof Problem ? order : holds(order);
  };
}

export function toPlaces(number: number, places: number, rounding: Rounding): Value {
  if (Math.abs(places) > MOST_PLACES) return new Problem("out-of-range");
  return finite(toDouble(rounded(fifteen(number), Math.trunc(places), rounding)));
}

export function modulo(number: number, divisor: number): Value {
  if (!divisor) return new Problem("division-by-zero");
  const times = finite(number / divisor);
  if (times instanceof Problem) return times;
  const rest = number - divisor * Math.floor(toFifteen(times));
  return Math.abs(rest) <= Math.abs(number) * 1e-15 ? 0 : finite(toFifteen(rest));
}

export function multiple(number: number, step: number | null, up: boolean): Value {
  const by = step ?? (number < 0 ? -1 : 1);
  if (!number || !by) return 0;
  if (number < 0 !== by < 0) return new Problem("out-of-range");
  const times = finite(number / by);
  if (times instanceof Problem) return times;
  const whole = up === by > 0 ? Math.ceil(toFifteen(times)) : Math.floor(toFifteen(times));
  return finite(toFifteen(by * whole));
}

function numbersOf(values: readonly Value[]): number[] | Problem {
  const found: number[] = [];
  for (const value of values) {
    const number = toNumber(value);
    if (number instanceof Problem) return number;
    if (value !== null) found.push(number);
  }
  return found;
}

export function extreme(values: readonly Value[], least: boolean): Value {
  const numbers = numbersOf(values);
  if (numbers instanceof Problem) return numbers;
  if (!numbers.length) return 0;
  const found = numbers.reduce((one, other) => (least === other < one ? other : one));
  const areDates = values.every((value) => value === null || value instanceof Day);
  return areDates ? dateOf(found) : found;
}

export function sum(values: readonly Value[]): Value {
  const numbers = numbersOf(values);
  return numbers instanceof Problem ? numbers : finite(numbers.reduce((total, number) => total + number, 0));
}

export function average(values: readonly Value[]): Value {
  const numbers = numbersOf(values);
  if (numbers instanceof Problem) return numbers;
  if (!numbers.length) return new Problem("division-by-zero");
  return finite(numbers.reduce((total, number) => total + number, 0) / numbers.length);
}

export function isNumeric(value: Value): boolean {
  return typeOf(value) === "number" || value instanceof Day;
}
