/** The addresses where the person is: asked for on a tap alone, and kept only where the form says so. */

import { make } from "../../dom";
import { Latest } from "../../latest";
import { call } from "../../service";
import type { Texts } from "../../words";
import type { MakeFeature, SlotFeature, SlotHost } from "./feature";
import type { Position } from "./state";

interface NearAddress {
  id: string;
  label: string;
  distance_m: number;
  country_code: string;
}

const LONGEST_WAIT_MS = 10_000;
/** Worse than so many metres, the address may be that of a neighbour: it is said. */
const EXACT_M = 100;
const LEAST_RADIUS_M = 500;
const MOST_OFFERED = 8;
// W3C Geolocation: the codes of its errors.
const REFUSALS: Record<number, keyof Texts> = { 1: "locationRefused", 2: "locationUnknown", 3: "locationLate" };

class Location implements SlotFeature {
  readonly stands = "before";
  readonly element: HTMLElement;
  private readonly button: HTMLButtonElement;
  private readonly said = make("p", { role: "status", class: "help" });
  private readonly list = make("ul", { class: "near-list", hidden: true });
  private readonly asking = new Latest();
  private isGone = false;

  constructor(private readonly host: SlotHost) {
    this.button = make("button", { type: "button", class: "secondary" }, host.say("useLocation"));
    this.button.addEventListener("click", () => void this.use());
    this.element = make("div", { class: "location" }, this.button, this.said, this.list);
  }

  update(): void {
    // What was offered was offered for a slot that was not filled yet.
    if (this.host.state.picked && !this.list.hidden) this.offer([]);
  }

  leave(): void {
    this.isGone = true;
    this.asking.drop();
  }

  private async use(): Promise<void> {
    this.offer([]);
    if (!window.isSecureContext || !("geolocation" in navigator)) return this.tell("locationInsecure");
    this.tell("locationAsked");
    this.button.disabled = true;
    try {
      const found = await whereabouts();
      if (!this.isGone) await this.find(found.coords);
    } catch (problem) {
      if (!this.isGone) this.tell(REFUSALS[(problem as GeolocationPositionError).code] ?? "lookupSilent");
    } finally {
      this.button.disabled = false;
    }
  }

  private async find(here: GeolocationCoordinates): Promise<void> {
    const { latitude, longitude, accuracy } = here;
    const query = new URLSearchParams({
      latitude: String(latitude),
      longitude: String(longitude),
      limit: "40",
      radius_m: String(Math.min(50_000, Math.max(LEAST_RADIUS_M, Math.ceil(2 * accuracy)))),
    });
    const answer = await this.asking.run((signal) =>
      call<{ addresses: NearAddress[] }>(this.host.connection, `nearest?${query}`, { signal }),
    );
    if (!answer) return;
    const near = answer.addresses.filter((one) => this.host.slot.countries.includes(one.country_code)).slice(0, MOST_OFFERED);
    if (!near.length) return this.tell("noAddressNear");
    if (accuracy > EXACT_M) this.tell("locationInexact", { metres: Math.round(accuracy) });
    else this.tell("locationFound", { count: near.length });
    this.offer(near, { latitude, longitude, source: "device", accuracy_m: accuracy });
    this.list.querySelector("button")?.focus();
  }

  private offer(near: readonly NearAddress[], here: Position | null = null): void {
    this.list.hidden = near.length === 0;
    this.list.replaceChildren(
      ...near.map((one) => {
        const metres = make("span", { class: "count" }, this.host.say("metres", { metres: Math.round(one.distance_m) }));
        const button = make("button", { type: "button" }, make("span", { dir: "auto" }, one.label), metres);
        button.addEventListener("click", () => {
          this.offer([]);
          this.said.textContent = "";
          void this.choose(one, here);
        });
        return make("li", {}, button);
      }),
    );
  }

  private async choose({ id, label, country_code }: NearAddress, here: Position | null): Promise<void> {
    await this.host.pick({ id, label, typed: "", row: { count: 1, country_code } });
    if (this.host.slot.keeps_position && this.host.state.picked?.id === id) this.host.locate(here);
  }

  private tell(name: keyof Texts, given: Record<string, string | number> = {}): void {
    this.said.textContent = this.host.say(name, given);
  }
}

function whereabouts(): Promise<GeolocationPosition> {
  return new Promise((found, failed) =>
    navigator.geolocation.getCurrentPosition(found, failed, {
      enableHighAccuracy: true,
      timeout: LONGEST_WAIT_MS,
      maximumAge: 0,
    }),
  );
}

export const location: MakeFeature = (host) => new Location(host);
