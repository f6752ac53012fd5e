/** Filling a slot's fields: of several fills the latest counts, and each can be taken back. */

import { Latest } from "../../latest";
import { type Connection, type FillAnswer, call } from "../../service";
import type { Slot, Value } from "../model";
import { ruleFills } from "../rule-fills";
import type { FieldPort } from "./port";
import type { Replaced } from "./typed-by-hand";
import { valueAt } from "../../dictionary";
import { captureName } from "./capture-name";

/** What a fill is made from, as the service takes it. */
export type Source =
  | { address_id: string }
  | { group_id: string; typed: string }
  | { typed: string; country_code: string }
  | { components: Record<string, string> };

export interface FillPlace {
  /** Where the service is asked what an address of some key puts into the fields. */
  fillPath: (slot: string) => string;
  connection: Connection;
  /** All fields by key: a mapping may write into any of them. */
  fields: ReadonlyMap<string, FieldPort>;
}

/** What stands in the fields, and what of it the last fill wrote. */
export interface FieldState {
  values: Map<string, Value>;
  filled: Map<string, Value>;
}

export class Filling {
  private readonly fills = new Latest();
  /** Names this capture: within it an address that is fetched again counts once. */
  private readonly capture = captureName();
  /** What the last fill wrote, by field: what differs from it was typed by hand. */
  private filled = new Map<string, Value>();
  private ended: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly slot: Pick<Slot, "key" | "mapping">,
    private readonly place: FillPlace,
  ) {}

  /**
   * What the service says is to be filled; null where a later fill was asked for, or none is wanted
   * any more.
   */
  ask(source: Source): Promise<FillAnswer | null> {
    const { fillPath, connection } = this.place;
    const values = Object.fromEntries(this.state().values);
    const asking = this.fills.run((signal) =>
      call<FillAnswer>(connection, fillPath(this.slot.key), { body: { ...source, values, capture: this.capture }, signal }),
    );
    this.ended = asking.catch(() => null);
    return asking;
  }

  /** Drops the fill that is under way. */
  drop(): void {
    this.fills.drop();
  }

  /** Waits for the fill that is under way. */
  async settled(): Promise<void> {
    await this.ended;
  }

  /** Writes an answer into the fields; returns what it replaced there that was typed by hand. */
  write(answer: FillAnswer): Replaced[] {
    const replaced: Replaced[] = [];
    for (const field of this.owned()) {
      const old = field.value;
      const value = valueAt(answer.values, field.key) || null;
      const byHand = old !== null && old !== (this.filled.get(field.key) ?? null);
      if (byHand && old !== value) replaced.push({ field, value: old, text: field.text });
      field.value = value;
      field.setProblem(null);
      this.filled.set(field.key, field.value);
    }
    return replaced;
  }

  /** How many fields the mapping owns. */
  get count(): number {
    return this.owned().length;
  }

  state(): FieldState {
    const values = new Map(this.owned().map((field) => [field.key, field.value]));
    return { values, filled: new Map(this.filled) };
  }

  restore(state: FieldState): void {
    this.drop();
    for (const field of this.owned()) field.value = state.values.get(field.key) ?? null;
    this.filled = new Map(state.filled);
  }

  private owned(): FieldPort[] {
    const keys = new Set(this.slot.mapping.flatMap(ruleFills));
    return [...keys].flatMap((key) => this.place.fields.get(key) ?? []);
  }
}
