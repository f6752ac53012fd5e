/** A field that is split over several inputs: a postcode in two, a telephone number in three. */

import { plain } from "../options";
import { joined, split } from "../pieces";
import type { Control, Lock } from "./control";

export class SplitControl implements Control {
  readonly type = "text";

  constructor(
    private readonly pieces: readonly Control[],
    private readonly lengths: readonly (number | null)[],
  ) {}

  get element(): HTMLElement {
    return this.pieces[0]!.element;
  }

  get elements(): readonly HTMLElement[] {
    return this.pieces.flatMap((one) => one.elements);
  }

  get lock(): Lock {
    return this.pieces.map((one) => one.lock).find(Boolean) ?? "";
  }

  read(): string {
    return joined(this.pieces.map((one) => one.read()));
  }

  holds(text: string): boolean {
    return plain(this.read()) === plain(text);
  }

  async write(text: string, isOver: AbortSignal): Promise<boolean> {
    const texts = split(text, this.lengths);
    for (const [at, piece] of this.pieces.entries()) {
      if (!isOver.aborted) await piece.write(texts[at] ?? "", isOver);
    }
    return true;
  }
}
