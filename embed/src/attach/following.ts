/**
 * The page's own country field, followed both ways: the finder looks in the country that stands there first; what is picked
 * in the finder is written there by the mapping.
 */

import type * as api from "../api";
import { valueAt } from "../dictionary";
import type { PageField } from "./page-field";

/** The field in which a page says the country, and the text that the mapping writes there for each. */
export type CountryField = NonNullable<api.AttachedTarget["country_fields"]>[string];

/** The country that stands in the page's field; empty for none, or one that the target is not for. */
export function countryIn(of: CountryField, field: PageField | undefined): string {
  const control = field?.control;
  if (!control?.read()) return "";
  return Object.keys(of.texts).find((code) => control.holds(valueAt(of.texts, code) ?? "")) ?? "";
}
