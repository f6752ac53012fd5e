/** What a browser's autofill is told of a part: tokens of the WHATWG HTML standard. */

import { valueAt } from "../../dictionary";

const TOKENS: Record<string, string> = {
  recipient: "name",
  organisation: "organization",
  unit: "address-line2",
  building: "address-line3",
  street: "address-line1",
  district: "address-level3",
  town: "address-level2",
  region: "address-level1",
  region_code: "address-level1",
  postcode: "postal-code",
  country: "country-name",
  country_code: "country",
};

/** The `autocomplete` of a component in a slot; `off` where the standard has no token for it. */
export function autofillOf(component: string, slot: string): string {
  const token = valueAt(TOKENS, component);
  return token ? `section-${slot} ${token}` : "off";
}
