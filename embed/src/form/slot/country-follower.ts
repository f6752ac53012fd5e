/** The fields of a slot as its country has them: labels, order, necessity, choices; and what has no place. */

import type { FinderElement } from "../../finder/element";
import type { Texts } from "../../words";
import type { Layout, Slot } from "../model";
import type { CountryChoice } from "./country-choice";
import type { KeptValues } from "./kept-values";
import type { Parts } from "./parts";
import type { ShownAs } from "./shown-as";

interface Pieces {
  slot: Slot;
  country: CountryChoice;
  parts: Parts;
  kept: KeptValues;
  finder: FinderElement;
  shownAs: ShownAs;
  say: (name: keyof Texts, given?: Record<string, string | number>) => string;
  announce: (sentences: string[]) => void;
  /** Whether something is said already. */
  isSaid: () => boolean;
}

export class CountryFollower {
  constructor(private readonly pieces: Pieces) {}

  /** Another country was chosen: what it has no place for is kept aside, and may come back. */
  async switch(): Promise<boolean> {
    const { parts, kept, shownAs, say, announce } = this.pieces;
    const layout = await this.layout();
    if (!layout) return false;
    // Before the fields change: what is kept is called as it was when it was typed.
    parts.dropHiddenRegions();
    const { left, returned } = kept.move(parts.views, layout);
    parts.follow(layout);
    shownAs.reset();
    announce([
      say("fieldsOfCountry", { country: layout.name }),
      left.length ? say("keptAside", { parts: left.join(", ") }) : "",
      returned.length ? say("putBack", { parts: returned.join(", ") }) : "",
      layout.has_addresses ? "" : say("nothingToSearch", { country: layout.name }),
    ]);
    return true;
  }

  /** Labels, order, necessity and choices as the chosen country has them. */
  async follow(): Promise<void> {
    const { slot, parts, shownAs, say, announce, isSaid } = this.pieces;
    const layout = await this.layout();
    if (!layout) return;
    parts.follow(layout);
    shownAs.update();
    const isSearched = slot.appearance !== "parts_only";
    if (isSearched && !layout.has_addresses && !isSaid()) announce([say("nothingToSearch", { country: layout.name })]);
  }

  /** The chosen country's layout; null where there is none, or another was chosen meanwhile. */
  private async layout(): Promise<Layout | null> {
    const { slot, country, parts, finder, shownAs } = this.pieces;
    finder.setAttribute("country", country.code);
    finder.setAttribute("elsewhere", country.others.join(","));
    try {
      const layout = await country.layout();
      // Without reference data there is nothing to find: straight to the fields.
      if (layout) finder.hidden = !layout.has_addresses || slot.appearance === "parts_only";
      if (layout && !layout.has_addresses) shownAs.open();
      return layout;
    } catch {
      parts.followNothing();
      shownAs.open();
      return null;
    }
  }
}
