/**
 * Address capture on a page that is not ours: one line of HTML, or `attach` for programmers.
 *
 *     <script type="module" src="https://…/embed/attach.js" data-target="checkout" data-key="anl_browser_…"></script>
 */

import { type Asked, faultsOf } from "./attach/asked";
import type { AttachedFill } from "./attach/attached-address";
import { AttachedPage, type Attachment } from "./attach/attached-page";
import { mayCount } from "./capture-count";
import { INSPECT } from "./attach/inspection";
import { warn } from "./attach/say";
import { nearest } from "./setup";

export type { AttachedFill, Attachment };

export interface AttachOptions extends Asked {
  /** The key of the target. */
  target: string;
  /** A browser key of the service. */
  key: string;
  /** The service's address; that of this script where it is left out. */
  base?: string;
  /** `no`: captures on this page are not counted. */
  count?: string;
}

const KNOWN = ["data-target", "data-key", "data-base", "data-count"];
const OF_SCRIPTS = new Set(["type", "src", "async", "defer", "nonce", "integrity", "crossorigin", "referrerpolicy", "id", "class", "fetchpriority", "blocking"]);

/** What this script has attached to this page, by the keys of the targets, also by lines of HTML. */
export const attachments: ReadonlyMap<string, Attachment> = new Map();

/**
 * Attaches a target to this page, now and wherever its fields come and go.
 *
 * Throws a TypeError for what cannot work: no target, no browser key, a base that is no address.
 */
export function attach(options: AttachOptions): Attachment {
  const faults = faultsOf(options, { target: "target", key: "key", base: "base" });
  if (faults.length) throw new TypeError(`attach: ${faults.join(" ")}`);
  return attached(options);
}

function attached({ target, key, base, count }: AttachOptions): AttachedPage {
  const service = (base ?? new URL(import.meta.url).origin).replace(/\/$/, "");
  const all = attachments as Map<string, Attachment>;
  const page = new AttachedPage(target, { base: service, headers: { Authorization: `Bearer ${key}` } }, mayCount(count), () => {
    if (all.get(target) === page) all.delete(target);
  });
  all.set(target, page);
  return page;
}

/** Attaches what a line of HTML asks for; says what is wrong with it. */
function attachBy(script: HTMLScriptElement): void {
  const { target = "", key = "", base, count = "" } = script.dataset;
  const asked = { target, key, ...(base === undefined ? {} : { base }) };
  const faults = faultsOf(asked, { target: "data-target", key: "data-key", base: "data-base" });
  for (const fault of faults) warn(target, fault);
  const page = faults.length ? null : attached({ ...asked, count });
  for (const { name } of Array.from(script.attributes)) {
    if (KNOWN.includes(name) || OF_SCRIPTS.has(name)) continue;
    const near = nearest(name, KNOWN);
    const text = `the script has no attribute “${name}”.${near ? ` Did you mean “${near}”?` : ` It takes ${KNOWN.join(", ")}.`}`;
    if (page) page.say("attribute", name, text);
    else warn(target, text);
  }
}

/** A page that the console has opened is looked at; what does that is loaded for it alone. */
async function beInspected(opener: Window): Promise<void> {
  const service = new URL(import.meta.url).origin;
  const { inspect } = (await import(/* @vite-ignore */ `${service}/embed/inspect.js`)) as typeof import("./inspect");
  inspect(opener, service);
}

if (location.hash === INSPECT && opener) {
  void beInspected(opener as Window);
} else {
  for (const script of Array.from(document.scripts)) {
    if (script.src === import.meta.url && Object.keys(script.dataset).length) attachBy(script);
  }
}
