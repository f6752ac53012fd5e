/** What a fill writes through: a field of a form of ours, an input of a page that is not. */

import type { Value } from "../model";

export interface FieldPort {
  readonly key: string;
  /** What people know it by. */
  readonly label: string;
  /** What stands in it; null for nothing. */
  value: Value;
  /** The same, as it reads. */
  readonly text: string;
  setProblem(detail: string | null): void;
  focus(): void;
}
