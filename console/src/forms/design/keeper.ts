/**
 * Keeping a draft on the service while one works: quietly, after a pause, over and over.
 *
 * It knows no framework and no browser: asking, waiting and stashing are handed in. Of everything
 * that has not been kept yet a copy lies in the browser, so that a closed tab loses nothing.
 */

import { type Answer, type Place, ServiceError } from "../../api/call";
import type { Draft, FormDocument } from "../../api/schemas";
import { type Conflict, merge } from "./merge";

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
export interface Stashed {
  document: FormDocument;
  base: FormDocument;
  etag: string | null;
}

export interface KeeperEffects {
  put: (document: FormDocument, etag: string | null) => Promise<Answer<Draft>>;
  get: () => Promise<Answer<Draft>>;
  stash: (stashed: Stashed | null) => void;
  /** Something has changed: the state, or what is kept. */
  changed: () => void;
  /** Another's changes came into the document. */
  cameIn: (document: FormDocument) => void;
  later: (work: () => void, ms: number) => () => void;
}

export class DraftKeeper {
  state: Keeping = { status: "kept" };
  /** What the service keeps, with what it said of it. */
  kept: Answer<Draft>;
  private document: FormDocument;
  private stop: () => void = () => undefined;
  private theirs: Answer<Draft> | null = null;
  private running = false;

  constructor(
    kept: Answer<Draft>,
    private readonly effects: KeeperEffects,
  ) {
    this.kept = kept;
    this.document = kept.body.document;
  }

  /** Another document is to be kept. */
  take(document: FormDocument): void {
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
    this.running = true;
    this.enter({ status: "keeping" });
    const sent = this.document;
    try {
      this.took(await this.effects.put(sent, this.kept.etag), sent);
    } catch (error) {
      await this.failed(error);
    } finally {
      this.running = false;
    }
    if (this.state.status === "kept" && this.document !== this.kept.body.document) this.plan(0, "waiting");
  }

  /** Whatever kept it from being kept may be gone: the line, the session. */
  retry(): void {
    if (["offline", "signed-out", "refused"].includes(this.state.status)) this.plan(0, "waiting");
  }

  /** Takes in what somebody else has kept meanwhile. */
  async catchUp(): Promise<void> {
    if (this.running || this.state.status === "conflict") return;
    try {
      this.join(await this.effects.get());
    } catch {
      // The next time.
    }
  }

  /** Ends a conflict: in the settings named, theirs counts. */
  resolve(choices: ReadonlySet<string>): void {
    const { theirs } = this;
    if (!theirs) return;
    const { document } = merge(this.kept.body.document, this.document, theirs.body.document, choices);
    this.kept = theirs;
    this.theirs = null;
    this.document = document;
    this.effects.cameIn(document);
    this.plan(0, "waiting");
  }

  /** What is published has changed; the draft is as it was. */
  published({ body: summary, etag }: Answer<Draft["summary"]>): void {
    this.kept = { body: { ...this.kept.body, summary }, etag };
    this.effects.changed();
  }

  /** Ends all waiting. */
  close(): void {
    this.stop();
  }

  private took(answer: Answer<Draft>, sent: FormDocument): void {
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
        this.join(await this.effects.get());
      } catch {
        this.plan(AGAIN_MS, "offline");
      }
    } else if (error instanceof ServiceError && status >= 400 && status < 500 && status !== 429) {
      this.enter({ status: "refused", message: error.message, places: error.places });
    } else this.plan(AGAIN_MS, "offline");
  }

  /** Puts another's draft and what is here together; both were made from what was kept before. */
  private join(theirs: Answer<Draft>): void {
    if (theirs.etag === this.kept.etag) return;
    const base = this.kept.body.document;
    const isMine = this.document !== base;
    const { document, conflicts, tookTheirs } = merge(base, this.document, theirs.body.document);
    if (conflicts.length) {
      this.theirs = theirs;
      this.enter({ status: "conflict", conflicts });
      return;
    }
    this.kept = theirs;
    this.document = isMine ? document : theirs.body.document;
    if (tookTheirs || !isMine) this.effects.cameIn(this.document);
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
