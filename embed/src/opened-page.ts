/** The small window between the console and a page that it has opened (`attach/relay`); served at RELAY alone. */

import { Pace } from "./attach/pace";
import { type FromRelay, type ToRelay, channelOf } from "./attach/relay";

const MOST_CHARACTERS = 2_000_000;
const LOOKS_MS = 1000;

const channel = new BroadcastChannel(channelOf(location.hash.slice(1)));
const button = document.querySelector("button");
const where = document.querySelector("output");
const done = document.querySelector<HTMLElement>("[data-done]");
const pace = new Pace(performance.now());
let page: Window | null = null;
let address: URL | null = null;

const tell = (message: FromRelay): void => channel.postMessage(message);

function open(): void {
  if (!address) return;
  // Not to be known by a name, and with this window as its opener: it tells what it sees through it.
  page = window.open(address.href, "_blank");
  if (button) button.hidden = page !== null;
  tell({ kind: page ? "opened" : "blocked" });
}

function asText(data: unknown): string | null {
  try {
    const text = JSON.stringify(data);
    return typeof text === "string" && text.length <= MOST_CHARACTERS ? text : null;
  } catch {
    return null; // it goes in circles, or holds what JSON has not
  }
}

channel.onmessage = ({ data }: MessageEvent<ToRelay>): void => {
  if (data.kind === "open") {
    address = new URL(data.url);
    if (where) where.textContent = address.origin;
    open();
  } else if (data.kind === "pass") {
    if (page && address) page.postMessage(data.message, address.origin);
  } else {
    channel.close();
    if (done) done.hidden = false;
    window.close();
  }
};
button?.addEventListener("click", open);
addEventListener("message", ({ source, origin, data }: MessageEvent<unknown>) => {
  if (page && source === page && pace.takes(performance.now())) tell({ kind: "heard", origin, text: asText(data) });
});
addEventListener("pagehide", () => tell({ kind: "gone" }));
setInterval(() => {
  if (!page?.closed) return;
  page = null;
  tell({ kind: "gone" });
}, LOOKS_MS);
tell({ kind: "ready" });
