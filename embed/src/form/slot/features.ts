/** Every feature of a slot, with the setting that switches it on. */

import type { Slot } from "../model";
import type { MakeFeature, SlotFeature, SlotHost } from "./feature";
import { location } from "./location";
import { map } from "./map";
import { sameAs } from "./same-as";

interface Listed {
  isOn: (slot: Slot) => boolean;
  make: MakeFeature;
}

export const FEATURES: Readonly<Record<string, Listed>> = {
  same_as: { isOn: (slot) => Boolean(slot.same_as), make: sameAs },
  location: { isOn: (slot) => Boolean(slot.location), make: location },
  map: { isOn: (slot) => Boolean(slot.map), make: map },
};

/** The features that a slot has. */
export function featuresOf(host: SlotHost): SlotFeature[] {
  return Object.values(FEATURES).flatMap(({ isOn, make }) => (isOn(host.slot) ? [make(host)] : []));
}
