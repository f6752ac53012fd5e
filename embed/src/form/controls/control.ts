/** What a field is filled with: an input, a list, boxes to tick. */

import type { Connection } from "../../service";
import type { Words } from "../../words";
import type { Field, Value } from "../model";

export interface Control {
  /** What is put on the page. */
  readonly element: HTMLElement;
  /** What is labelled, described and focused. */
  readonly input: HTMLElement;
  value: Value;
  /** The value as people read it. */
  readonly text: string;
  /** Something on the form has changed that it may depend on. */
  refresh?: () => void;
  /** What is wrong with what was typed, asked when it is left; null where nothing is. */
  check?: () => Promise<string | null>;
  /** The form is taken from its page. */
  leave?: () => void;
}

/** What controls need to know beside their field. */
export interface ControlPlace {
  words: Words;
  /** The form's key; empty where there is none. */
  form: string;
  draft: boolean;
  connection: Connection;
  /** The country chosen in a slot, or in the first one; null where there is none. */
  countryOf?: (slot: string | null) => string | null;
  /** Lets the person make a record of another form; null where they leave it. */
  makeRecord?: ((form: string, label: string) => Promise<{ id: string; label: string } | null>) | null;
}

export type MakeControl = (field: Field, place: ControlPlace) => Control;
