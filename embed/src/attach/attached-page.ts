/**
 * A target on this page: its addresses are attached where their fields are, let go where those go,
 * and found again where the page draws them anew.
 */

import type * as api from "../api";
import { type Connection, ServiceError, call, path } from "../service";
import { nearest } from "../setup";
import { wordsOf } from "../words";
import { AttachedAddress } from "./attached-address";
import { PageField } from "./page-field";
import { matchesPath } from "./paths";
import { type Say, sayer, warn } from "./say";
import { TreeWatch } from "./tree-watch";
import type { Tree } from "./trees";

const PAUSE_MS = 120;
/** So long a page may take to draw its fields before one that is missing is said. */
const PATIENCE_MS = 5000;

export interface Attachment {
  /** Takes everything away that was put on the page. */
  detach(): void;
  /** The focus goes to the finder of an address, the first one by default. */
  focus(address?: string): void;
  /** Empties what an address has filled, the first one by default. */
  clear(address?: string): void;
}

export class AttachedPage implements Attachment {
  readonly say: Say;
  private document: api.PageTargetDocument | null = null;
  private addresses: AttachedAddress[] = [];
  private newAddress: ((address: api.PageAddressSchema) => AttachedAddress) | undefined;
  private keys: string[] = [];
  private fields = new Map<string, PageField>();
  private readonly watch = new TreeWatch(() => this.later());
  private timer: ReturnType<typeof setTimeout> | undefined;
  private patience: ReturnType<typeof setTimeout> | undefined;
  private isGone = false;
  private readonly waiting: api.TargetFaultReport[] = [];

  constructor(
    private readonly target: string,
    private readonly connection: Connection,
    private readonly counts: boolean,
    private readonly gone: () => void,
  ) {
    this.say = sayer(target, (fault) => this.report(fault));
    void this.begin();
  }

  detach(): void {
    this.isGone = true;
    clearTimeout(this.timer);
    clearTimeout(this.patience);
    this.watch.end();
    for (const address of this.addresses) address.leave();
    for (const field of this.fields.values()) field.forget();
    this.addresses = [];
    removeEventListener("popstate", this.later);
    this.gone();
  }

  focus(key?: string): void {
    this.addressOf(key)?.focus();
  }

  clear(key?: string): void {
    this.addressOf(key)?.clear();
  }

  private addressOf(key: string | undefined): AttachedAddress | undefined {
    if (key !== undefined && this.document && !this.keys.includes(key)) {
      const near = nearest(key, this.keys);
      this.say("address_unknown", key, `there is no address “${key}” in the target. ${near ? `Did you mean “${near}”?` : `It has ${this.keys.join(", ")}.`}`);
    }
    return this.addresses[key === undefined ? 0 : this.keys.indexOf(key)];
  }

  private async begin(): Promise<void> {
    let document: api.PageTargetDocument;
    let countryFields: NonNullable<api.AttachedTarget["country_fields"]>;
    let isBlocked = false;
    const { base } = this.connection;
    const blocked = (event: SecurityPolicyViolationEvent): void => {
      isBlocked ||= event.blockedURI.startsWith(base);
    };
    addEventListener("securitypolicyviolation", blocked);
    try {
      const answer = await call<api.AttachedTarget>(this.connection, path`targets/${this.target}`);
      ({ document } = answer);
      countryFields = answer.country_fields ?? {};
    } catch (error) {
      await new Promise((resolve) => setTimeout(resolve)); // a refusal by the policy is told a moment later
      // Without the target there is nobody to report to.
      if (!(error instanceof ServiceError) || error.status) warn(this.target, error instanceof ServiceError ? error.message : String(error));
      else if (isBlocked) warn(this.target, `this page's content policy allows no calls to ${base}: add it to connect-src.`);
      else warn(this.target, `nothing answers at ${base}. Is that the service's address, and does it run?`);
      return;
    } finally {
      removeEventListener("securitypolicyviolation", blocked);
    }
    const words = await wordsOf(globalThis.document.documentElement.lang || "en");
    if (this.isGone) return;
    this.document = document;
    this.fields = new Map((document.fields ?? []).map((field) => [field.key, new PageField(field, this.say)]));
    const { target, connection, fields, say, counts } = this;
    const place = { target, connection, fields, words, style: document.style ?? "", say, counts, countryFields };
    this.newAddress = (address) => new AttachedAddress(address, place);
    this.addresses = (document.addresses ?? []).map(this.newAddress);
    this.keys = (document.addresses ?? []).map((address) => address.key);
    addEventListener("popstate", this.later);
    this.patience = setTimeout(() => this.sayWhatIsMissing(), PATIENCE_MS);
    for (const fault of this.waiting.splice(0)) this.report(fault);
    this.look();
  }

  /** Tells the service of a mistake, once the page is attached; nobody waits for it. */
  private report(fault: api.TargetFaultReport): void {
    if (!this.document) this.waiting.push(fault);
    else void call(this.connection, path`targets/${this.target}/faults`, { body: fault }).catch(() => undefined);
  }

  private readonly later = (): void => {
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      this.look();
    }, PAUSE_MS);
  };

  /** Attaches what is there now, and lets go what is not. */
  private look(): void {
    this.watch.renew();
    for (const field of this.fields.values()) field.look();
    const isHere = this.isOnPath();
    (this.document?.addresses ?? []).forEach((entry, number) => {
      const address = this.inUse(number, entry);
      if (!address) return;
      const at = isHere ? (this.fields.get(entry.finder?.at ?? "")?.element ?? null) : null;
      if (!at) {
        if (address.at) address.leave();
      } else if (at !== address.at || !address.host.isConnected) {
        if (isTaken(at, address.host)) this.say("twice", entry.key, "another copy of the script has attached it already; this one leaves it alone.");
        else address.sit(at);
      }
    });
  }

  /** An address that can be used: one that went with the page of its frame is made anew. */
  private inUse(number: number, entry: api.PageAddressSchema): AttachedAddress | undefined {
    const address = this.addresses[number];
    if (!address?.isLost || !this.newAddress) return address;
    address.leave();
    return (this.addresses[number] = this.newAddress(entry));
  }

  private isOnPath(): boolean {
    const paths = this.document?.paths ?? [];
    return !paths.length || paths.some((pattern) => matchesPath(pattern, location.pathname));
  }

  private sayWhatIsMissing(): void {
    if (!this.isOnPath()) {
      this.say("path", location.pathname, `it is for the paths ${(this.document?.paths ?? []).join(", ")}, and this page is ${location.pathname}.`);
      return;
    }
    for (const field of this.fields.values()) if (!field.element) field.sayMissing();
  }
}

/** Whether another copy of this script has put the same finder there. */
function isTaken(at: Element, host: HTMLElement): boolean {
  const root = at.getRootNode() as Tree;
  return Array.from(root.querySelectorAll("[data-anchorline]")).some((one) => one !== host && one.getAttribute("data-anchorline") === host.dataset.anchorline);
}
