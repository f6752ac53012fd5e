/**
 * What working formulas out may cost: steps, counted as core/formula/budget.py counts them. Every value that is read or
 * worked out on the way is a step, and one more for each ten characters of it.
 */
import { lengthOf } from "./values";

export const MOST_STEPS = 100_000;
const CHARACTERS_A_STEP = 10;

/** Thrown where no steps are left. */
export class UsedUp extends Error {}

export class Budget {
  constructor(public left = MOST_STEPS) {}

  /** Whether something was left unfinished: nothing can be worked out with it any more. */
  get isUsedUp(): boolean {
    return this.left < 0;
  }

  /** Counts a value that was read or worked out; throws `UsedUp` where it is more than is left. */
  spend(value: unknown): void {
    this.left -= 1 + (typeof value === "string" ? Math.floor(lengthOf(value) / CHARACTERS_A_STEP) : 0);
    if (this.left < 0) throw new UsedUp();
  }
}
