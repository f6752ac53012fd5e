/** A record that is filled again: what it keeps goes into the form, and the form back into it. */

import { type Connection, call, callWithEtag, path } from "../service";
import type { Value } from "./model";
import type { FilledForm, Sent } from "./sending";
import type { CapturedSlot } from "./slot/state";
import type { FormViews } from "./views";
import { valueAt } from "../dictionary";

interface KeptRecord {
  id: string;
  values: Record<string, Value>;
  slots: Record<string, CapturedSlot>;
}

export class EditedRecord {
  private constructor(
    private readonly record: KeptRecord,
    private readonly etag: string | null,
  ) {}

  static async open(connection: Connection, id: string): Promise<EditedRecord> {
    const { body, etag } = await callWithEtag<KeptRecord>(connection, path`records/${id}`);
    return new EditedRecord(body, etag);
  }

  /** Puts what is kept into the form. */
  fill(views: FormViews): void {
    // What was left empty stays so, also where something stands in it at first in a new record.
    for (const [key, field] of views.fields) field.value = valueAt(this.record.values, key) ?? null;
    for (const slot of views.slots) {
      const captured = valueAt(this.record.slots, slot.slot.key);
      if (captured) slot.load(captured);
    }
  }

  /** Keeps the form as the record's new state. */
  save(connection: Connection, body: FilledForm): Promise<Sent> {
    return call<Sent>(connection, path`records/${this.record.id}`, {
      method: "PUT",
      body,
      headers: this.etag ? { "If-Match": this.etag } : {},
    });
  }
}
