/**
 * What happens in a slot: an address is picked, taken as far as it goes, typed by hand, taken back.
 *
 * It knows no elements: it writes into parts and through what its view offers.
 */

import { type FillAnswer, ServiceError } from "../../service";
import type { Texts } from "../../words";
import type { Slot } from "../model";
import type { SlotAddress } from "./address";
import type { CountryChoice } from "./country-choice";
import type { Filling, Source } from "./filling";
import type { KeptValues } from "./kept-values";
import type { Parts } from "./parts";
import type { Replaced } from "./typed-by-hand";
import type { Picked, SlotState, Snapshot } from "./state";
import { valueAt } from "../../dictionary";

/** What a slot is made of. */
export interface SlotPieces {
  slot: Slot;
  parts: Parts;
  country: CountryChoice;
  filling: Filling;
  kept: KeptValues;
  address: SlotAddress;
}

/** What the view of a slot does when something happens in it. */
export interface SlotSurface {
  say: (name: keyof Texts, given?: Record<string, string | number>) => string;
  announce: (sentences: string[]) => void;
  /** Whether the last fill can be taken back. */
  offerUndo: (offered: boolean) => void;
  /** What was typed in the finder. */
  readonly finderTyped: string;
  restoreFinder: (text: string, typed: string) => void;
  /** Whether fields that were changed by hand shall keep what the fill has replaced. */
  askAbout: (replaced: readonly Replaced[]) => void;
  /** All parts are to be in sight. */
  unfold: () => void;
  /** An address was filled in: one address, or what is known of several; with its lines. */
  filled: (isWhole: boolean, lines: readonly string[]) => void;
  /** After a pick: the focus goes to what is needed. */
  goOn: (begun: boolean) => void;
  /** Labels, order and choices are to be the country's. */
  followCountry: () => Promise<void>;
  changed: () => void;
}

export class SlotCapture {
  picked: Picked | null = null;
  private before: Snapshot | null = null;

  constructor(
    private readonly pieces: SlotPieces,
    private readonly surface: SlotSurface,
  ) {}

  /** Fills the slot from a suggestion; the answer, or nothing where it came to none. */
  async pick(picked: Picked, focuses = true): Promise<FillAnswer | null> {
    const { country, filling } = this.pieces;
    const { id, label, typed, row } = picked;
    const isGroup = row.count > 1;
    const before = this.snapshot();
    const source: Source = isGroup ? { group_id: id, typed } : { address_id: id };
    country.code = row.country_code;
    let answer: FillAnswer | null;
    try {
      answer = await filling.ask(source);
    } catch (error) {
      const reason = reasonOf(error, (name) => this.say(name));
      country.code = before.country;
      this.surface.announce([this.say("typeBelow", { reason, address: label })]);
      this.surface.unfold();
      return null;
    }
    if (!answer) return null;
    this.picked = picked;
    await this.show(answer, before, isGroup ? this.say("takenSoFar") : "", !isGroup);
    if (focuses) this.surface.goOn(isGroup);
    return answer;
  }

  /** Fills the slot as another one is filled. */
  async take(from: SlotState): Promise<void> {
    const { country, filling, parts } = this.pieces;
    const before = this.snapshot();
    country.code = from.country;
    const components = Object.fromEntries(Object.entries(from.components).filter(([name]) => name !== "country"));
    const isPicked = from.picked !== null && from.picked.row.count === 1 && from.address.given === "picked";
    try {
      const answer = await filling.ask(
        isPicked && from.picked ? { address_id: from.picked.id } : { components: { ...components, country_code: from.country } },
      );
      if (!answer) return;
      this.picked = isPicked ? from.picked : null;
      // What was changed there by hand is changed here as well; the lines are then not those of the pick.
      const changed = parts.views.filter((part) => {
        const name = part.field.component ?? "";
        const filled = valueAt(answer.values, part.key);
        return Object.hasOwn(from.components, name) && filled !== undefined && filled !== valueAt(from.components, name);
      });
      await this.show(changed.length ? { ...answer, address: answer.address && { ...answer.address, lines: [] } } : answer, before, "", true);
      for (const part of changed) part.value = valueAt(from.components, part.field.component ?? "") ?? null;
      this.surface.restoreFinder(from.picked?.label ?? "", from.picked?.typed ?? "");
      this.surface.changed();
    } catch {
      country.code = before.country;
      this.surface.announce([this.say("noAnswer")]);
    }
  }

  /**
   * Lays what was typed in the finder into the fields.
   *
   * Returns: false where somebody has begun to type there.
   */
  async carry(typed: string): Promise<boolean> {
    const { country, filling, parts } = this.pieces;
    const before = this.snapshot();
    try {
      const answer = await filling.ask({ typed: typed.slice(0, 500), country_code: country.code });
      // Who began to type in the fields meanwhile knows better.
      if (!answer || !parts.areEmpty) return false;
      await this.show(answer, before, this.say("typedStands"), false);
    } catch {
      // Nobody is there to take it apart: all of it is at hand in the street's field.
      const street = parts.of("street") ?? parts.firstShown();
      if (!street || !parts.areEmpty) return false;
      street.value = typed;
      this.surface.changed();
    }
    return true;
  }

  /** Learns anew what is known of the address that was picked; the fields stay as they are. */
  async recall(): Promise<void> {
    const { picked } = this;
    if (picked?.row.count !== 1) return;
    try {
      const answer = await this.pieces.filling.ask({ address_id: picked.id });
      if (answer && this.picked === picked) this.pieces.address.pick(answer.address);
    } catch {
      // What is kept is worked out by the service.
    }
  }

  /** Another country was chosen: a fill under way, and what was picked, are of another one now. */
  leaveCountry(): void {
    this.pieces.filling.drop();
    this.picked = null;
    this.pieces.address.pick(null);
    this.surface.offerUndo(false);
    this.surface.askAbout([]);
  }

  /** Puts back what stood in the fields and in the finder before the last fill. */
  async takeBack(): Promise<void> {
    const { before } = this;
    const { country, filling, kept, address } = this.pieces;
    if (!before) return;
    filling.restore(before.fields);
    this.picked = before.picked;
    address.pick(before.address);
    this.before = null;
    this.surface.offerUndo(false);
    this.surface.askAbout([]);
    country.code = before.country;
    this.surface.restoreFinder(before.text, before.typed);
    this.surface.announce([this.say("asBefore")]);
    this.surface.unfold();
    await this.surface.followCountry();
    kept.restore(before.kept, country.nameOf(before.country));
    this.surface.changed();
  }

  /** Writes an answer into the fields, and says what it did. */
  private async show(answer: FillAnswer, before: Snapshot, lead: string, isWhole: boolean): Promise<void> {
    const { address, filling, kept } = this.pieces;
    const replaced = filling.write(answer);
    address.pick(answer.address);
    this.before = before;
    kept.clear();
    const count = filling.count - answer.cleared.length;
    this.surface.announce([
      lead,
      this.say("fieldsFilled", { count }),
      replaced.length ? this.say("replaced", { parts: replaced.map(({ field, text }) => `${field.label} “${text}”`).join(", ") }) : "",
      ...answer.warnings,
    ]);
    this.surface.offerUndo(true);
    // What was typed before any fill was on the way to it; what was changed after one is meant.
    this.surface.askAbout(before.fields.filled.size ? replaced : []);
    await this.surface.followCountry();
    this.surface.filled(isWhole, answer.address?.lines ?? []);
    this.surface.changed();
  }

  private snapshot(): Snapshot {
    const { filling, address, kept, country } = this.pieces;
    return {
      fields: filling.state(),
      picked: this.picked,
      address: address.picked,
      kept: kept.all,
      country: country.code,
      text: this.picked?.label ?? this.surface.finderTyped,
      typed: this.picked?.typed ?? this.surface.finderTyped,
    };
  }

  private say(name: keyof Texts, given: Record<string, string | number> = {}): string {
    return this.surface.say(name, given);
  }
}

/** Why an address could not be fetched, for people. */
function reasonOf(error: unknown, say: (name: "noAnswer" | "noMoreLookups") => string): string {
  if (!(error instanceof ServiceError)) return say("noAnswer");
  return error.status === 429 ? say("noMoreLookups") : error.message;
}
