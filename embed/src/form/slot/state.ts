/** What a slot remembers: what was picked, and what stood there before. */

import type { FillAnswer } from "../../service";
import type { AddressValue } from "../../formula/address-value";
import type { FieldState } from "./filling";
import type { Kept } from "./kept-values";

export interface Picked {
  id: string;
  label: string;
  typed: string;
  row: { count: number; country_code: string };
}

/** A place that goes with an address: a pin that was moved, or where the person is. */
export interface Position {
  latitude: number;
  longitude: number;
  source: "pin" | "device";
  accuracy_m?: number;
}

/** What another slot is filled from. */
export interface SlotState {
  country: string;
  picked: Picked | null;
  address: AddressValue;
  components: Readonly<Record<string, string>>;
}

/** Everything that a fill changes, to be put back. */
export interface Snapshot {
  fields: FieldState;
  picked: Picked | null;
  address: FillAnswer["address"];
  kept: readonly Kept[];
  country: string;
  text: string;
  typed: string;
}

/** What is submitted of a slot beside the values of its fields. */
export interface SlotInput {
  country_code: string;
  address_id: string | null;
  typed: string;
  position?: Position;
}

/** What has to be known of a slot to go on with it. */
export interface SlotMemo {
  position: Position | null;
  country: string;
  picked: Picked | null;
  text: string;
  typed: string;
}

/** What a record keeps of a slot, to be filled again. */
export interface CapturedSlot {
  position?: { latitude: number; longitude: number; source: string; accuracy_m: number | null } | null;
  country_code: string;
  address_id: string | null;
  typed: string;
  lines: readonly string[];
  components: Readonly<Record<string, string>>;
  facts: { latitude: number | null; longitude: number | null; use?: string | null; languages?: readonly string[] };
}

/** What formulas know of a captured address beside its components. */
export function knownOf({ address_id, facts }: CapturedSlot): { latitude: number | null; longitude: number | null; facts: Record<string, string> } {
  const { latitude, longitude, use, languages } = facts;
  const texts = { id: address_id ?? "", use: use ?? "", languages: (languages ?? []).join(", ") };
  return { latitude, longitude, facts: Object.fromEntries(Object.entries(texts).filter(([, text]) => text)) };
}

/** The place that was kept with a captured address, as it is sent. */
export function placeOf({ position }: CapturedSlot): Position | null {
  if (!position) return null;
  const { latitude, longitude, accuracy_m } = position;
  const source = position.source === "pin" ? "pin" : "device";
  return { latitude, longitude, source, ...(accuracy_m === null ? {} : { accuracy_m }) };
}
