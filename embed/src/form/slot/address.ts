/** The address of a slot as formulas have it: what was picked, with what was changed by hand. */

import { type AddressValue, NO_ADDRESS } from "../../formula/address-value";
import { Latest } from "../../latest";
import { type FillAnswer, call, path } from "../../service";
import type { FieldView } from "../field";
import type { SlotContext } from "./context";
import { dictionary, valueAt } from "../../dictionary";

const PAUSE_MS = 250;

interface Written {
  lines: string[];
  one_line: string;
}

export class SlotAddress {
  private filled: FillAnswer["address"] = null;
  private written: { of: string; line: string; lines: string[] } = { of: "", line: "", lines: [] };
  private readonly writing = new Latest();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    /** Of its form; `isWritten`: a formula speaks of its lines, else nobody is asked for them. */
    private readonly context: Pick<SlotContext, "form" | "connection" | "changed" | "isWritten">,
    private readonly parts: readonly FieldView[],
  ) {}

  /** The address that was picked; null where none is any more. */
  pick(address: FillAnswer["address"]): void {
    this.filled = address ?? null;
  }

  get picked(): FillAnswer["address"] {
    return this.filled;
  }

  /** What formulas know of it now. */
  value(country: string): AddressValue {
    const components = this.components();
    if (!Object.keys(components).some((name) => name !== "country" && name !== "country_code")) return NO_ADDRESS;
    const { filled } = this;
    const whole = { ...components, country_code: country };
    const isAsPicked = filled !== null && filled !== undefined && same(whole, filled.components);
    const text = isAsPicked ? filled : this.linesOf(country, whole);
    return {
      components: { ...filled?.components, ...whole },
      latitude: filled?.latitude ?? null,
      longitude: filled?.longitude ?? null,
      line: text.line,
      lines: text.lines,
      given: filled ? "picked" : "typed",
      facts: filled?.facts ?? {},
    };
  }

  private components(): Record<string, string> {
    const found = dictionary(Object.entries(this.filled?.components ?? {}));
    for (const part of this.parts) {
      const name = part.field.component;
      if (!name) continue;
      const text = String(part.value ?? "").trim();
      if (text) found[name] = text;
      else delete found[name];
    }
    return found;
  }

  /** The lines of what was typed, as they were written last; others are asked for. */
  private linesOf(country: string, components: Record<string, string>): { line: string; lines: string[] } {
    const of = JSON.stringify(components);
    if (this.context.isWritten() && of !== this.written.of) {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => void this.write(country, components, of), PAUSE_MS);
    }
    return this.written;
  }

  private async write(country: string, components: Record<string, string>, of: string): Promise<void> {
    try {
      const answer = await this.writing.run((signal) =>
        call<Written>(this.context.connection, path`layouts/${country}/lines`, {
          body: { components, form: this.context.form },
          signal,
        }),
      );
      if (!answer) return;
      this.written = { of, line: answer.one_line, lines: answer.lines };
      this.context.changed();
    } catch {
      // Nothing is shown of it; what is kept is worked out by the service.
      this.written = { of, line: "", lines: [] };
    }
  }
}

function same(one: Readonly<Record<string, string>>, other: Readonly<Record<string, string>>): boolean {
  const names = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...names].every((name) => name === "country" || valueAt(one, name) === valueAt(other, name));
}
