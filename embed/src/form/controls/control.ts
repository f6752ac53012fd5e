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
}

/** What controls need to know beside their field. */
export interface ControlPlace {
  words: Words;
  /** The form's key; empty where there is none. */
  form: string;
  draft: boolean;
  connection: Connection;
}

export type MakeControl = (field: Field, place: ControlPlace) => Control;
