/** The map as it is drawn (Leaflet): tiles or the addresses around, and a pin that can be moved. */

import { type CircleMarker, DomEvent, Marker, Map as LeafletMap, TileLayer, circleMarker, divIcon, layerGroup } from "leaflet";
import leafletStyle from "leaflet/dist/leaflet.css?inline";

export interface Point {
  latitude: number;
  longitude: number;
}

export interface DrawnMap {
  /** Goes to a place; the pin stands there. */
  show: (point: Point, isExact: boolean) => void;
  /** Draws where there are addresses around it. */
  around: (places: readonly Point[]) => void;
  leave: () => void;
}

interface Wanted {
  tiles: { address: string; attribution: string } | null;
  /** Of the pin, for who cannot see it. */
  label: string;
  moved: (point: Point) => void;
}

const CLOSE = 17;
const WIDE = 13;
// One press of an arrow key moves the pin so far: about 2 metres.
const STEP_DEGREES = 0.00002;
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowUp: [1, 0], ArrowDown: [-1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1],
};

export function drawMap(frame: HTMLElement, wanted: Wanted): DrawnMap {
  adopt(frame);
  const map = new LeafletMap(frame, { attributionControl: Boolean(wanted.tiles?.attribution), zoomAnimation: false, fadeAnimation: false, scrollWheelZoom: false });
  map.attributionControl?.setPrefix("");
  if (wanted.tiles) {
    // What stands there is a text of the administrator's, not markup.
    const attribution = escaped(wanted.tiles.attribution);
    new TileLayer(wanted.tiles.address, { attribution, maxZoom: 19 }).addTo(map);
  }
  const points = layerGroup().addTo(map);
  const pin = new Marker([0, 0], {
    draggable: true, keyboard: true, autoPan: true, title: wanted.label, alt: wanted.label,
    icon: divIcon({ className: "map-pin", iconSize: [24, 32], iconAnchor: [12, 32] }),
  });
  const place = (): Point => ({ latitude: pin.getLatLng().lat, longitude: pin.getLatLng().lng });
  pin.on("dragend", () => wanted.moved(place()));
  pin.on("add", () => {
    const element = pin.getElement();
    if (!element) return;
    element.setAttribute("aria-label", wanted.label);
    DomEvent.on(element, "keydown", (event) => {
      const step = ARROWS[(event as KeyboardEvent).key];
      if (!step) return;
      DomEvent.stop(event);
      const { lat, lng } = pin.getLatLng();
      pin.setLatLng([lat + step[0] * STEP_DEGREES, lng + (step[1] * STEP_DEGREES) / Math.cos((lat * Math.PI) / 180)]);
      wanted.moved(place());
    });
  });
  // It is drawn while it may still be out of sight: it has no size then.
  const sizes = new ResizeObserver(() => map.invalidateSize());
  sizes.observe(frame);
  return {
    show: ({ latitude, longitude }, isExact) => {
      map.setView([latitude, longitude], isExact ? CLOSE : WIDE, { animate: false });
      pin.setLatLng([latitude, longitude]).addTo(map);
    },
    around: (places) => {
      points.clearLayers();
      for (const one of places) points.addLayer(dot(one));
    },
    leave: () => {
      sizes.disconnect();
      map.remove();
    },
  };
}

function dot({ latitude, longitude }: Point): CircleMarker {
  return circleMarker([latitude, longitude], { radius: 5, weight: 1, className: "map-dot" });
}

function escaped(text: string): string {
  const holder = document.createElement("span");
  holder.textContent = text;
  return holder.innerHTML;
}

/** The map's style, in the shadow tree that it stands in. */
function adopt(frame: HTMLElement): void {
  const root = frame.getRootNode();
  if (!(root instanceof ShadowRoot)) return;
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(`${leafletStyle.replaceAll(/url\([^)]*\)/g, "none")}
.map-pin::before { content: ""; position: absolute; left: 1px; top: 0; width: 22px; height: 22px; background: var(--accent); border: 2px solid #fff; border-radius: 50% 50% 50% 0; transform: rotate(-45deg); box-shadow: 0 1px 4px rgb(0 0 0 / .4); }
.leaflet-container { background: #eef2ef; font: inherit; }
.map-dot { fill: var(--accent); fill-opacity: .35; stroke: var(--accent); }`);
  root.adoptedStyleSheets = [...root.adoptedStyleSheets, sheet];
}
