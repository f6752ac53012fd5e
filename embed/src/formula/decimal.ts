/** Numbers as their first fifteen decimal digits: what formulas show, compare and round. */

const DIGITS = 15;

/** ±0.d₁d₂d₃… × 10^point; no digits: zero. */
export interface Decimal {
  readonly negative: boolean;
  readonly digits: string;
  readonly point: number;
}

export type Rounding = "half-up" | "up" | "down";

/** A number to fifteen digits, halves away from zero. */
export function fifteen(number: number): Decimal {
  if (!number) return { negative: false, digits: "", point: 0 };
  const [digits = "", exponent = "0"] = Math.abs(number).toExponential(DIGITS - 1).split("e");
  return { negative: number < 0, digits: digits.replace(".", "").replace(/0+$/, ""), point: Number(exponent) + 1 };
}

/** A decimal with so many places after the point. */
export function rounded(decimal: Decimal, places: number, rounding: Rounding): Decimal {
  const kept = decimal.point + places;
  if (kept >= decimal.digits.length) return decimal;
  const behind = kept < 0 ? "0" : (decimal.digits[kept] ?? "0");
  const up = rounding === "up" ? decimal.digits !== "" : rounding === "half-up" && behind >= "5";
  const digits = kept > 0 ? decimal.digits.slice(0, kept) : "";
  if (!up) return trimmed(decimal.negative, digits, decimal.point);
  const raised = String(BigInt(digits || "0") + 1n).padStart(digits.length, "0");
  const carried = raised.length - Math.max(digits.length, 0);
  if (kept < 0) return { negative: decimal.negative, digits: "1", point: 1 - places };
  return trimmed(decimal.negative, raised, decimal.point + carried);
}

function trimmed(negative: boolean, digits: string, point: number): Decimal {
  const kept = digits.replace(/0+$/, "");
  return kept ? { negative, digits: kept, point } : { negative: false, digits: "", point: 0 };
}

/** The double that is nearest to a decimal. */
export function toDouble(decimal: Decimal): number {
  if (!decimal.digits) return 0;
  return Number(`${decimal.negative ? "-" : ""}0.${decimal.digits}e${decimal.point}`);
}

/** All digits before and behind the point. */
export function spread(decimal: Decimal): { ones: string; rest: string } {
  const { digits, point } = decimal;
  if (point <= 0) return { ones: "", rest: digits && "0".repeat(-point) + digits };
  return { ones: digits.slice(0, point).padEnd(digits ? point : 0, "0"), rest: digits.slice(point) };
}

/** A number in at most fifteen digits: without exponent from 1E-9 up to 1E15. */
export function plain(number: number): string {
  const decimal = fifteen(number);
  if (!decimal.digits) return "0";
  const sign = decimal.negative ? "-" : "";
  const exponent = decimal.point - 1;
  if (exponent >= -9 && exponent < DIGITS) {
    const { ones, rest } = spread(decimal);
    return `${sign}${ones || "0"}${rest && `.${rest}`}`;
  }
  const [first, more] = [decimal.digits[0], decimal.digits.slice(1)];
  return `${sign}${first}${more && `.${more}`}E${exponent < 0 ? "" : "+"}${exponent}`;
}
