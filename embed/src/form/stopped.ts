/** A form whose formulas had no steps left: it stays as it was, and that is said. */

import type { Words } from "../words";
import type { FormFrame } from "./frame";
import type { Worked } from "./logic";

/** What a form comes to now; where it was not worked out to the end, what it came to before. */
export function unlessStopped(now: Worked, before: Worked | null, frame: FormFrame | null, words: Words): Worked {
  const wasStopped = (before?.stoppedAt ?? null) !== null;
  if (now.stoppedAt === null) {
    if (wasStopped) frame?.calm();
    return now;
  }
  // Once: what is read out at each letter is heard by nobody.
  if (!wasStopped) frame?.warn(words.say("tooManySteps"));
  return before ? { ...before, stoppedAt: now.stoppedAt } : now;
}
