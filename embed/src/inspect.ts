/**
 * A page that the console has opened tells it what inputs it has, and tries what would be written.
 *
 * It is loaded only there: `attach.js` asks for it where the page's address ends in the mark.
 */

import type * as api from "./api";
import { InputPort } from "./attach/input-port";
import type { FromConsole, FromPage } from "./attach/inspection";
import { seenInputs } from "./attach/seen";
import { TreeWatch } from "./attach/tree-watch";
import { make, shadowOf } from "./dom";
import { valueAt } from "./dictionary";

/** How long the page may take to make something of what was written. */
const SETTLES_MS = 900;
const REDRAWN_MS = 400;
const STYLE = `
:host { position: fixed; inset: auto 0 0 0; z-index: 2147483647; }
p { margin: 0; padding: .6rem 1rem; font: 15px/1.4 system-ui, sans-serif; color: #fff; background: #1d3557; text-align: center; }
`;

/**
 * Begins to tell the console.
 *
 * Args:
 *   opener: the console's window.
 *   service: the service's origin: nobody else is told or listened to.
 */
export function inspect(opener: Window, service: string): void {
  const tell = (message: FromPage): void => opener.postMessage(message, service);
  const said = make("p", { role: "status" });
  const host = make("div", { "data-anchorline": "inspect" });
  shadowOf(host, STYLE).append(said);
  document.body.append(host);
  const look = (): void => {
    const inputs = seenInputs(document);
    said.textContent = `Anchorline sees ${inputs.length} inputs on this page. Go back to the console to say what they are.`;
    tell({ kind: "anchorline-page", url: location.href.split("#")[0] ?? "", inputs });
  };
  let later: ReturnType<typeof setTimeout> | undefined;
  let seen = "";
  const watch = new TreeWatch(() => {
    clearTimeout(later);
    later = setTimeout(() => {
      watch.renew();
      const now = JSON.stringify(seenInputs(document));
      if (now !== seen) look();
      seen = now;
    }, REDRAWN_MS);
  });
  watch.renew();
  addEventListener("message", ({ source, origin, data }: MessageEvent<FromConsole>) => {
    if (source !== opener || origin !== service) return;
    if (data.kind === "anchorline-look") look();
    else if (data.kind === "anchorline-try") void write(data.inputs, data.values).then(tell);
  });
  look();
}

/** Writes as a fill does, and reads what the page has made of it. */
async function write(inputs: api.PageInputSchema[], values: Record<string, string>): Promise<FromPage> {
  const said: string[] = [];
  const ports = inputs.map((input) => new InputPort(input, (_kind, _subject, text) => said.push(text)));
  for (const port of ports) {
    const value = valueAt(values, port.key);
    if (value !== undefined) port.value = value || null;
  }
  await new Promise((resolve) => setTimeout(resolve, SETTLES_MS));
  const tried = ports.map((port) => ({ key: port.key, found: port.element !== null, kept: port.element === null ? null : port.text }));
  for (const port of ports) port.leave();
  return { kind: "anchorline-tried", inputs: tried, said: [...new Set(said)] };
}
