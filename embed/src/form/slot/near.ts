/** What suggestions of a slot are preferred near to, as the finder takes it. */

import type { Slot } from "../model";
import type { SlotState } from "./state";

/**
 * `LATITUDE,LONGITUDE`, or nothing while it is not known.
 *
 * The place of a person is used where the browser may tell it without asking, or told it before.
 */
export function nearOf(slot: Slot, other: (key: string) => SlotState | null, person: string): string {
  const { near } = slot;
  if (!near) return "";
  if (near.person) return person;
  if (near.slot) {
    const address = other(near.slot)?.address;
    return pair(address?.latitude, address?.longitude);
  }
  return pair(near.latitude, near.longitude);
}

function pair(latitude: number | null | undefined, longitude: number | null | undefined): string {
  return latitude == null || longitude == null ? "" : `${latitude},${longitude}`;
}

/** Where the person is, if the page may know it without a question; empty otherwise. */
export async function personsPlace(): Promise<string> {
  try {
    const permission = await navigator.permissions.query({ name: "geolocation" });
    if (permission.state !== "granted") return "";
    const { coords } = await new Promise<GeolocationPosition>((found, failed) =>
      navigator.geolocation.getCurrentPosition(found, failed, { maximumAge: 600_000, timeout: 5000 }),
    );
    return pair(coords.latitude, coords.longitude);
  } catch {
    return "";
  }
}
