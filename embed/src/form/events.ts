/** What the events of `<anchorline-form>` carry. */

import type { FillAnswer } from "../service";
import type { Sent } from "./sending";

/** `anchorline-submitted`: the record that was made or changed. */
export type SubmittedDetail = Sent;

/** `anchorline-filled`: the slot that was filled, and with what. */
export interface FilledDetail {
  slot: string;
  label: string;
  answer: FillAnswer;
}
