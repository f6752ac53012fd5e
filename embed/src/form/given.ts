/** What stands in a form, as the service takes it when a formula is tried. */

import type { AddressValue } from "../formula/address-value";
import { Day, Problem, toText } from "../formula/values";
import type { Worked } from "./logic";

export interface GivenInForm {
  values: Record<string, unknown>;
  slots: Record<string, unknown>;
}

export function asGiven(worked: Worked | null, addresses: Readonly<Record<string, AddressValue>>): GivenInForm {
  const values = Object.entries(worked?.values ?? {}).map(([key, value]) => {
    if (value instanceof Problem || value === undefined) return [key, null];
    return [key, value instanceof Day ? toText(value) : value];
  });
  const slots = Object.entries(addresses).map(([key, { components, latitude, longitude, given }]) => [
    key,
    { components, facts: { latitude, longitude }, picked: given === "picked" },
  ]);
  return { values: Object.fromEntries(values), slots: Object.fromEntries(slots) };
}
