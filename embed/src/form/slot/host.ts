/** What the features of a slot are given to work with. */

import type { SlotContext, SlotOnForm } from "./context";
import type { SlotHost } from "./feature";
import type { Picked, Position, SlotState } from "./state";

interface Deeds {
  position: () => Position | null;
  locate: (position: Position | null) => void;
  pick: (picked: Picked) => Promise<void>;
  take: (from: SlotState) => Promise<void>;
  announce: (sentence: string) => void;
}

/** Another slot of the form; null where it is not shown. */
export function shownState(context: SlotContext, view: SlotOnForm, key: string): SlotState | null {
  const slot = context.slots.get(key);
  return slot && slot !== view && slot.shown ? slot.state : null;
}

export function hostOf(view: SlotOnForm, context: SlotContext, deeds: Deeds): SlotHost {
  const { connection, words, form, tiles } = context;
  return {
    slot: view.slot,
    connection,
    words,
    form,
    tiles,
    get state() { return view.state; },
    get position() { return deeds.position(); },
    other: (key) => shownState(context, view, key),
    any: (key) => context.slots.get(key)?.state ?? null,
    labelOf: (key) => context.slots.get(key)?.slot.label ?? key,
    textOf: (key) => context.fields.get(key)?.text ?? "",
    pick: deeds.pick,
    take: deeds.take,
    locate: (position) => {
      deeds.locate(position);
      context.changed();
    },
    announce: deeds.announce,
    say: (name, given) => words.say(name, given),
  };
}
