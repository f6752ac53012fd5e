/**
 * A map that follows an address, or a field for text; what it shows is said in words as well.
 *
 * What draws it is loaded when the first map is shown. It waits for what is typed, asks where that
 * is, and stays where it was when nothing is found.
 */

import { make } from "../../dom";
import { Latest } from "../../latest";
import { ServiceError, call } from "../../service";
import type { MakeFeature, SlotFeature, SlotHost } from "./feature";
import type { SlotState } from "./state";
import { captureName } from "./capture-name";
import type { DrawnMap, Point } from "./map/drawn";

interface Located extends Point {
  label: string;
  count: number;
}

const PAUSE_MS = 350;
const MOST_AROUND = 60;
const AROUND_M = 400;

class SlotMap implements SlotFeature {
  readonly stands = "after";
  readonly element: HTMLElement;
  private readonly frame = make("div", { class: "map-frame" });
  private readonly said = make("p", { role: "status", class: "help" });
  private readonly back: HTMLButtonElement;
  private readonly asking = new Latest();
  private drawn: Promise<DrawnMap> | null = null;
  private readonly capture = captureName();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private followed = "";
  private at: Located | null = null;
  private isGone = false;

  constructor(private readonly host: SlotHost) {
    this.back = make("button", { type: "button", class: "link", hidden: true }, host.say("pinBack"));
    this.back.addEventListener("click", () => this.putBack());
    const label = host.say("mapOf", { slot: host.slot.label });
    this.element = make("section", { class: "slot-map", "aria-label": label, hidden: true }, this.frame, this.said, this.back);
  }

  update(): void {
    const wanted = this.wanted;
    if (wanted === this.followed) return;
    this.followed = wanted;
    clearTimeout(this.timer);
    if (wanted) this.timer = setTimeout(() => void this.follow(), PAUSE_MS);
  }

  leave(): void {
    this.isGone = true;
    clearTimeout(this.timer);
    this.asking.drop();
    // Once: told again, there is no map any more.
    void this.drawn?.then((map) => map.leave());
    this.drawn = null;
  }

  /** The address that is followed; null where it is a field's text. */
  private get source(): SlotState | null {
    const { slot, state } = this.host;
    const follows = slot.map?.follows;
    return follows ? this.host.any(follows) : state;
  }

  /** What is to be shown, as a text that changes whenever it does. */
  private get wanted(): string {
    const { source } = this;
    if (!source) return this.host.textOf(this.host.slot.map?.follows ?? "").trim();
    if (!source.address.given) return "";
    return JSON.stringify([source.country, source.picked?.id ?? "", source.components]);
  }

  private async follow(): Promise<void> {
    try {
      const found = await this.asking.run((signal) => this.find(signal));
      if (found) await this.show(found);
    } catch (problem) {
      const isMissing = problem instanceof ServiceError && problem.status === 404;
      this.tell(this.host.say(isMissing ? "notOnMap" : "lookupSilent"));
    }
  }

  private async find(signal: AbortSignal): Promise<Located> {
    const { source } = this;
    if (!source) return this.search(this.followed, this.host.slot.countries.join(","), signal);
    const { latitude, longitude, line } = source.address;
    // An address that was picked has its place with it.
    if (latitude !== null && longitude !== null) return { latitude, longitude, label: line, count: 1 };
    const text = Object.entries(source.components).filter(([name]) => name !== "region_code").map(([, part]) => part).join(" ");
    return this.search(text, source.country, signal);
  }

  private search(text: string, country: string, signal: AbortSignal): Promise<Located> {
    const query = new URLSearchParams({ q: text.slice(0, 200), country: country.length > 1000 ? "" : country, capture: this.capture });
    return call<Located>(this.host.connection, `position?${query}`, { signal });
  }

  private async show(found: Located): Promise<void> {
    if (this.isGone) return;
    const before = this.at;
    this.at = found;
    this.element.hidden = false;
    // A pin that was moved stays where it was put.
    const { position } = this.host;
    const pin = position?.source === "pin" ? position : null;
    this.back.hidden = pin === null;
    this.say(found, pin ?? found);
    const map = await this.draw();
    if (this.isGone || this.at !== found) return;
    map.show(pin ?? found, found.count === 1 || pin !== null);
    const isFar = !before || metres(before, found) > AROUND_M / 2;
    if (!this.host.tiles && isFar) void this.drawAround(map, found);
  }

  /** Without tiles: the addresses around it, from the reference data. */
  private async drawAround(map: DrawnMap, at: Located): Promise<void> {
    const query = new URLSearchParams({
      latitude: String(at.latitude), longitude: String(at.longitude), limit: String(MOST_AROUND), radius_m: String(AROUND_M),
    });
    const answer = await call<{ places: Point[] }>(this.host.connection, `surroundings?${query}`).catch(() => null);
    // Where nobody answers the place itself is shown; what is around it is an extra.
    if (answer && !this.isGone) map.around(answer.places);
  }

  private draw(): Promise<DrawnMap> {
    this.drawn ??= import("./map/drawn").then(({ drawMap }) =>
      drawMap(this.frame, {
        tiles: this.host.tiles,
        label: this.host.say("pinLabel"),
        moved: (point) => this.moved(point),
      }),
    );
    return this.drawn;
  }

  private moved(point: Point): void {
    const { at } = this;
    if (!at) return;
    this.back.hidden = false;
    this.say(at, point);
    this.host.locate({ ...point, source: "pin" });
  }

  private putBack(): void {
    const { at } = this;
    this.back.hidden = true;
    this.host.locate(null);
    if (!at) return;
    this.say(at, at);
    void this.drawn?.then((map) => map.show(at, at.count === 1));
  }

  private say(at: Located, pin: Point): void {
    const place = { latitude: pin.latitude.toFixed(5), longitude: pin.longitude.toFixed(5) };
    const distance = metres(at, pin);
    const sentence =
      at.count > 1
        ? this.host.say("mapMiddle", { ...place, label: at.label, count: at.count })
        : this.host.say("mapAt", place);
    this.tell(distance > 0 ? `${sentence} ${this.host.say("pinMoved", { metres: distance })}` : sentence);
  }

  private tell(text: string): void {
    if (this.said.textContent !== text) this.said.textContent = text;
    this.element.hidden = false;
  }
}

/** Whole metres between two points, by the haversine formula on a sphere of the mean radius (IUGG R1). */
export function metres(one: Point, other: Point): number {
  const radians = Math.PI / 180;
  const north = Math.sin(((other.latitude - one.latitude) * radians) / 2);
  const east = Math.sin(((other.longitude - one.longitude) * radians) / 2);
  const cosines = Math.cos(one.latitude * radians) * Math.cos(other.latitude * radians);
  return Math.round(2 * 6_371_008.8 * Math.asin(Math.sqrt(Math.min(1, north * north + cosines * east * east))));
}

export const map: MakeFeature = (host) => new SlotMap(host);
