/** What a slot knows of the form that it stands on. */

import { path } from "../../service";
import type { ControlPlace } from "../controls";
import type { FieldView } from "../field";
import type { LayoutSource } from "./country-choice";
import type { FillPlace } from "./filling";
import type { Slot } from "../model";
import type { SlotState } from "./state";

/** A slot as others on its form see it. */
export interface SlotOnForm {
  readonly slot: Slot;
  readonly shown: boolean;
  readonly state: SlotState;
}

export interface SlotContext extends LayoutSource, FillPlace, ControlPlace {
  form: string;
  draft: boolean;
  /** Whether captures are counted. */
  counts: boolean;
  fields: Map<string, FieldView>;
  changed: () => void;
  /** Whether a formula of the form writes an address out. */
  isWritten: () => boolean;
  emit: (name: string, detail: unknown) => void;
  /** The slots of the form by key. */
  slots: Map<string, SlotOnForm>;
  /** Where maps take their pictures from, if anywhere. */
  tiles: { address: string; attribution: string } | null;
}

/** A context for a form of which no field and no slot is there yet. */
export function contextOf(given: Omit<SlotContext, "fields" | "slots" | "countryOf" | "fillPath">): SlotContext {
  const slots: SlotContext["slots"] = new Map();
  return {
    ...given,
    slots,
    fillPath: (slot) => path`forms/${given.form}/slots/${slot}/fill` + (given.draft ? "?draft=true" : ""),
    fields: new Map(),
    countryOf: (key) => (key ? slots.get(key) : [...slots.values()][0])?.state.country ?? null,
  };
}
