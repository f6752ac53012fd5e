/** What an address of a record was before: what, who, when, from which edition. */

import type { CapturedAddress, RecordHistory } from "../api/schemas";
import { readable } from "../parts/times";
import { valueAt } from "../../../embed/src/dictionary";

interface Turn {
  number: number;
  address: CapturedAddress | undefined;
  made_at: string;
  made_by: string;
}

/** The states in which the address became another one, the newest first. */
export function turnsOf(history: RecordHistory, slot: string): Turn[] {
  const states = [...history.states].reverse();
  const turns: Turn[] = [];
  let before = "";
  for (const state of states) {
    const address = valueAt(state.slots, slot);
    const now = JSON.stringify([address?.components, address?.address_id, address?.position]);
    if (now !== before) turns.push({ number: state.number, address, made_at: state.made_at, made_by: state.made_by });
    before = now;
  }
  return turns.reverse();
}

export function SlotHistory({ history, slot }: { history: RecordHistory; slot: string }): React.ReactNode {
  const turns = turnsOf(history, slot);
  if (turns.length < 2) return null;
  return (
    <details className="slot-history">
      <summary>What it was before ({turns.length - 1})</summary>
      <ol>
        {turns.slice(1).map((turn, at) => (
          <li key={turn.number}>
            <span dir="auto">{turn.address ? turn.address.lines.join(", ") : "no address"}</span>
            <div className="hint">
              {readable(turn.made_at)} by {turn.made_by}
              {turn.address?.edition ? ` · from ${turn.address.edition}` : turn.address ? " · typed in by hand" : ""}
              {`; changed ${readable(turns[at]?.made_at ?? "")} by ${turns[at]?.made_by ?? ""}`}
            </div>
          </li>
        ))}
      </ol>
    </details>
  );
}
