/**
 * Keeping a draft on the service while one works: quietly, after a pause, over and over.
 *
 * It knows no framework and no browser: asking, waiting and stashing are handed in. Of everything
 * that has not been kept yet a copy lies in the browser, so that a closed tab loses nothing.
 */

import { type Answer, type Place, ServiceError } from "../../api/call";
import type { DraftOf, Drafted } from "./kind";
import { type Conflict, type Shape, merge } from "./merge";

export const PAUSE_MS = 600;
export const AGAIN_MS = 4000;

export type Keeping =
  /** Everything is on the service. */
  | { status: "kept" }
  | { status: "waiting" }
  | { status: "keeping" }
  /** Nothing answers; it is tried again by itself. */
  | { status: "offline" }
  /** Somebody has to sign in again. */
  | { status: "signed-out" }
  /** The service does not take it as it is. */
  | { status: "refused"; message: string; places: Place[] }
  /** Somebody else has changed the same. */
  | { status: "conflict"; conflicts: Conflict[] };

/** What was not kept yet, and what it was made from. */
export interface Stashed<Document> {
  document: Document;
  base: Document;
  etag: string | null;
}

export interface KeeperEffects<Document, Body> {
  put: (document: Document, etag: string | null) => Promise<Answer<Body>>;
  get: () => Promise<Answer<Body>>;
  stash: (stashed: Stashed<Document> | null) => void;
  /** Something has changed: the state, or what is kept. */
  changed: () => void;
  /** Changes from elsewhere came into the document: another person's, or what this page had done. */
  cameIn: (document: Document, whose: "another" | "own") => void;
  later: (work: () => void, ms: number) => () => void;
}

export class DraftKeeper<Document, Body extends DraftOf<Document>> {
  state: Keeping = { status: "kept" };
  /** What the service keeps, with what it said of it. */
  kept: Answer<Body>;
  private document: Document;
  private stop: () => void = () => undefined;
  private theirs: Answer<Body> | null = null;
  private running: Promise<void> | null = null;

  constructor(
    kept: Answer<Body>,
    private readonly shape: Shape<Document>,
    private readonly effects: KeeperEffects<Document, Body>,
  ) {
    this.kept = kept;
    this.document = kept.body.document;
  }

  /** Another document is to be kept. */
  take(document: Document): void {
    if (document === this.document) return;
    this.document = document;
    this.effects.stash({ document, base: this.kept.body.document, etag: this.kept.etag });
    if (this.state.status === "conflict" || this.state.status === "signed-out") return;
    this.plan(PAUSE_MS, "waiting");
  }

  /** Keeps at once what is waiting. */
  async now(): Promise<void> {
    this.stop();
    if (this.running || this.document === this.kept.body.document) return;
    this.running = this.keep();
    await this.running;
    this.running = null;
    if (this.state.status === "kept" && this.document !== this.kept.body.document) this.plan(0, "waiting");
  }

  /** Keeps everything that there is; false where that cannot be done now. */
  async settle(): Promise<boolean> {
    while (this.document !== this.kept.body.document) {
      await (this.running ?? this.now());
      if (!["kept", "waiting", "keeping"].includes(this.state.status)) return false;
    }
    return true;
  }

  /** Whatever kept it from being kept may be gone: the line, the session. */
  retry(): void {
    if (["offline", "signed-out", "refused"].includes(this.state.status)) this.plan(0, "waiting");
  }

  /** Takes in what has been kept meanwhile by somebody else, or by what was done on this page. */
  async catchUp(whose: "another" | "own" = "another"): Promise<void> {
    if (this.running || this.state.status === "conflict") return;
    try {
      this.join(await this.effects.get(), whose);
    } catch {
      // The next time.
    }
  }

  /** Ends a conflict: in the settings named, theirs counts. */
  resolve(choices: ReadonlySet<string>): void {
    const { theirs } = this;
    if (!theirs) return;
    const { document } = merge(this.shape, this.kept.body.document, this.document, theirs.body.document, choices);
    this.kept = theirs;
    this.theirs = null;
    this.document = document;
    this.effects.cameIn(document, "another");
    this.plan(0, "waiting");
  }

  /** What is published has changed; the draft is as it was. */
  published({ body: summary, etag }: Answer<Drafted>): void {
    this.kept = { body: { ...this.kept.body, summary: { ...this.kept.body.summary, ...summary } }, etag };
    this.effects.changed();
  }

  /** Ends all waiting. */
  close(): void {
    this.stop();
  }

  private async keep(): Promise<void> {
    this.enter({ status: "keeping" });
    const sent = this.document;
    try {
      this.took(await this.effects.put(sent, this.kept.etag), sent);
    } catch (error) {
      await this.failed(error);
    }
  }

  private took(answer: Answer<Body>, sent: Document): void {
    // As it was sent: what is the same stays the same object, for whoever shows it.
    this.kept = { ...answer, body: { ...answer.body, document: sent } };
    if (this.document === sent) this.effects.stash(null);
    else this.effects.stash({ document: this.document, base: sent, etag: answer.etag });
    this.enter({ status: "kept" });
  }

  private async failed(error: unknown): Promise<void> {
    const status = error instanceof ServiceError ? error.status : 0;
    if (status === 401 || status === 403) this.enter({ status: "signed-out" });
    else if (status === 412) {
      try {
        this.join(await this.effects.get(), "another");
      } catch {
        this.plan(AGAIN_MS, "offline");
      }
    } else if (error instanceof ServiceError && status >= 400 && status < 500 && status !== 429) {
      this.enter({ status: "refused", message: error.message, places: error.places });
    } else this.plan(AGAIN_MS, "offline");
  }

  /** Puts another's draft and what is here together; both were made from what was kept before. */
  private join(theirs: Answer<Body>, whose: "another" | "own"): void {
    // What was done on this page may have changed what there is to say of the draft, and not the draft.
    if (whose === "another" && theirs.etag === this.kept.etag) return;
    const base = this.kept.body.document;
    const isMine = this.document !== base;
    const { document, conflicts, tookTheirs } = merge(this.shape, base, this.document, theirs.body.document);
    if (conflicts.length) {
      this.theirs = theirs;
      this.enter({ status: "conflict", conflicts });
      return;
    }
    // Where theirs differs in nothing, what is shown stays the same object.
    this.kept = isMine || tookTheirs ? theirs : { ...theirs, body: { ...theirs.body, document: base } };
    if (tookTheirs) {
      this.document = isMine ? document : theirs.body.document;
      this.effects.cameIn(this.document, whose);
    }
    if (isMine) this.plan(0, "waiting");
    else this.enter({ status: "kept" });
  }

  private plan(ms: number, status: "waiting" | "offline"): void {
    this.stop();
    this.enter({ status });
    this.stop = this.effects.later(() => void this.now(), ms);
  }

  private enter(state: Keeping): void {
    if (state.status === "waiting" && this.state.status === "waiting") return;
    this.state = state;
    this.effects.changed();
  }
}
