/**
 * What a slot can do beside being searched, filled and typed in: one file a feature.
 *
 * A feature stands before the finder or after it, hears of everything that changes in the slot,
 * and leaves nothing behind when the form goes. `features.ts` lists them all.
 */

import type { Connection } from "../../service";
import type { Texts, Words } from "../../words";
import type { Slot } from "../model";
import type { Picked, Position, SlotState } from "./state";

/** What a feature knows of its slot, and may do with it. */
export interface SlotHost {
  readonly slot: Slot;
  readonly connection: Connection;
  readonly words: Words;
  readonly form: string;
  /** Where maps take their pictures from, if anywhere. */
  readonly tiles: { address: string; attribution: string } | null;
  readonly state: SlotState;
  /** Another slot of the form; null where it is not shown. */
  other: (key: string) => SlotState | null;
  /** Another slot of the form, shown or not. */
  any: (key: string) => SlotState | null;
  /** What people call another slot. */
  labelOf: (key: string) => string;
  /** Text of a field of the form. */
  textOf: (key: string) => string;
  /** Fills the slot as if somebody had picked it in the finder. */
  pick: (picked: Picked) => Promise<void>;
  /** Fills the slot as another one is filled. */
  take: (from: SlotState) => Promise<void>;
  /** Keeps a place with the address, or none. */
  locate: (position: Position | null) => void;
  readonly position: Position | null;
  announce: (sentence: string) => void;
  say: (name: keyof Texts, given?: Record<string, string | number>) => string;
}

export interface SlotFeature {
  readonly element: HTMLElement;
  readonly stands: "before" | "after";
  /** Something has changed: in the slot, or in another one. */
  update: () => void;
  /** The slot was changed otherwise than by this feature: picked, typed, taken back. */
  changedByHand?: () => void;
  /** The form is taken from its page. */
  leave: () => void;
}

export type MakeFeature = (host: SlotHost) => SlotFeature;
