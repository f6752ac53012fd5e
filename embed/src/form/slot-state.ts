/** What a slot remembers: what was picked, and what stood there before. */

import type { FillAnswer } from "../service";
import type { FieldState } from "./filling";
import type { Kept } from "./kept-values";

export interface Picked {
  id: string;
  label: string;
  typed: string;
  row: { count: number; country_code: string };
}

/** Everything that a fill changes, to be put back. */
export interface Snapshot {
  fields: FieldState;
  picked: Picked | null;
  address: FillAnswer["address"];
  kept: readonly Kept[];
  country: string;
  text: string;
  typed: string;
}
