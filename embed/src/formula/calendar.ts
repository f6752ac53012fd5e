/** Days as the serial numbers of spreadsheets: day 0 is 30 December 1899. */

const MS = 86_400_000;
/** Days from 30 December 1899 to 1 January 1970. */
const EPOCH = 25_569;
const FIRST = -693_593;
const LAST = 2_958_465;

export function isDay(serial: number): boolean {
  return serial >= FIRST && serial <= LAST;
}

/** The serial number of a day; months and days beyond their end run on. */
export function serialOf(year: number, month: number, day: number): number {
  return new Date(0).setUTCFullYear(year, month - 1, day) / MS + EPOCH;
}

/** Year, month and day of a serial number. */
export function dayOf(serial: number): [year: number, month: number, day: number] {
  const date = new Date((serial - EPOCH) * MS);
  return [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()];
}

export function daysInMonth(year: number, month: number): number {
  return dayOf(serialOf(year, month + 1, 0))[2];
}

const two = (part: number): string => String(part).padStart(2, "0");

/** A day as ISO 8601 writes it. */
export function isoDate(serial: number): string {
  const [year, month, day] = dayOf(serial);
  return `${String(year).padStart(4, "0")}-${two(month)}-${two(day)}`;
}
