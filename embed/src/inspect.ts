/**
 * A page that the console has opened tells it what fields it has, and tries what would be written.
 *
 * It is loaded only there: `attach.js` asks for it where the page's address ends in the mark.
 */

import type * as api from "./api";
import { findField } from "./attach/controls/of-field";
import type { FromConsole, FromPage } from "./attach/inspection";
import { PageField } from "./attach/page-field";
import { seenFields } from "./attach/seen";
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
    const fields = seenFields(document);
    said.textContent = `Anchorline sees ${fields.length} fields on this page. Go back to the console to say what they are.`;
    tell({ kind: "anchorline-page", url: location.href.split("#")[0] ?? "", fields });
  };
  let later: ReturnType<typeof setTimeout> | undefined;
  let seen = "";
  const watch = new TreeWatch(() => {
    clearTimeout(later);
    later = setTimeout(() => {
      watch.renew();
      const now = JSON.stringify(seenFields(document));
      if (now !== seen) look();
      seen = now;
    }, REDRAWN_MS);
  });
  watch.renew();
  addEventListener("message", ({ source, origin, data }: MessageEvent<FromConsole>) => {
    if (source !== opener || origin !== service) return;
    if (data.kind === "anchorline-look") look();
    else if (data.kind === "anchorline-try") void write(data.fields, data.values).then(tell);
    else if (data.kind === "anchorline-show") tell(show(data.field));
  });
  look();
}

/** Writes as a fill does, and reads what the page has made of it. */
async function write(given: api.PageFieldSchema[], values: Record<string, string>): Promise<FromPage> {
  const said: string[] = [];
  const fields = given.map((field) => new PageField(field, (_kind, _subject, text) => said.push(text)));
  for (const field of fields) {
    const value = valueAt(values, field.key);
    if (value !== undefined) field.value = value || null;
  }
  await Promise.all(fields.map((field) => field.settled()));
  await new Promise((resolve) => setTimeout(resolve, SETTLES_MS));
  const tried = fields.map((field) => {
    const { control } = field;
    const value = valueAt(values, field.key);
    return { key: field.key, found: control !== null, kept: control ? field.kept : null, holds: control !== null && value !== undefined && control.holds(value) };
  });
  for (const field of fields) field.forget();
  return { kind: "anchorline-tried", fields: tried, said: [...new Set(said)] };
}

let shown: { element: HTMLElement; outline: string } | null = null;

/** Shows which element a field is found as. */
function show(field: api.PageFieldSchema): FromPage {
  shown?.element.style.setProperty("outline", shown.outline);
  shown = null;
  const { control, count } = findField(field);
  for (const element of control ? [control.element] : []) {
    shown = { element, outline: element.style.outline };
    element.style.setProperty("outline", "3px solid #e76f51");
    element.scrollIntoView({ block: "center" });
  }
  return { kind: "anchorline-found", key: field.key, count: control ? Math.max(1, count) : 0 };
}
