/** Sending a filled form: the same content is kept once, however often it is sent. */

import { type Connection, ServiceError, call, idempotencyKey, insistently, path } from "../service";
import type { Value } from "./model";
import type { FormViews } from "./views";

export interface FilledForm {
  values: Record<string, Value>;
  slots: Record<string, unknown>;
  /** The version that was filled; it may have been replaced since. */
  version?: number;
  /** In which it was read. */
  language?: string;
}

/** A filled form, and what tells that a person filled it. */
export interface ToSend {
  body: FilledForm;
  guard: { trap?: string; seconds?: number };
}

/** What the service answers: the record that was made. */
export interface Sent {
  id?: string;
}

/** What is sent of a form: values and addresses that are shown, or hidden and kept all the same. */
export function filledForm(views: FormViews, keepsHidden: boolean, version: number | null, language: string): FilledForm {
  const slots = views.slots.filter((slot) => slot.shown || (keepsHidden && !slot.isEmpty));
  const left = new Set(views.slots.filter((slot) => !slots.includes(slot)).flatMap((slot) => slot.fields));
  const given = [...views.fields.values()].filter((field) => field.value !== null && !left.has(field));
  return {
    values: Object.fromEntries(given.map((field) => [field.key, field.value])),
    slots: Object.fromEntries(slots.map((slot) => [slot.slot.key, slot.input])),
    ...(version ? { version } : {}),
    language,
  };
}

export class Sending {
  private onceKey = idempotencyKey();
  private sent = "";
  private guard: ToSend["guard"] = {};

  /**
   * Sends it; over and over while the service does not answer.
   *
   * The same content sent again makes no second record; other content is another request.
   */
  async send(form: string, connection: Connection, { body, guard }: ToSend, dryRun: boolean, waiting: () => void): Promise<Sent> {
    const content = JSON.stringify(body);
    if (content !== this.sent) this.onceKey = idempotencyKey();
    // The same each time that the same is sent: what goes under one key is one request.
    if (content !== this.sent) this.guard = guard;
    this.sent = content;
    const sending = (): Promise<Sent> =>
      call<Sent>(connection, path`forms/${form}/` + (dryRun ? "dry-run" : "records"), {
        body: { ...body, ...this.guard },
        headers: dryRun ? {} : { "Idempotency-Key": this.onceKey },
      });
    // The same key comes along each time, so what was kept the first time is not kept twice.
    try {
      const answer = await insistently(sending, waiting);
      this.sent = "";
      return answer;
    } catch (error) {
      // Refused, it was not kept: what is sent next is another request, also with the same content.
      if (error instanceof ServiceError && error.status >= 400 && error.status < 500) this.sent = "";
      throw error;
    }
  }
}
