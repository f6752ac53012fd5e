/** How an address looks: what one meets first, and what is seen of it once it is filled. */

import { Select } from "antd";

import type { Slot } from "../../../../api/schemas";
import { Setting } from "../Setting";
import { SwitchSetting } from "../SwitchSetting";

type Set = (settings: Partial<Slot>) => void;

const APPEARANCES = [
  { value: "box_and_parts", label: "A box, then the fields below it", says: "The fields appear once an address is picked or typed." },
  { value: "one_box", label: "One box", says: "The fields stay behind it until they are asked for, or one of them is missing." },
  { value: "parts_only", label: "The fields alone", says: "Nothing is searched: everything is typed." },
];
const SHOWN = [
  { value: "parts", label: "its fields" },
  { value: "lines", label: "its lines, with a way to change them" },
];

export function LookSettings({ slot, set }: { slot: Slot; set: Set }): React.ReactNode {
  const appearance = slot.appearance ?? "box_and_parts";
  const shown = slot.shown_as ?? (appearance === "one_box" ? "lines" : "parts");
  return (
    <>
      <Setting label="What one meets" hint={APPEARANCES.find((one) => one.value === appearance)?.says}>
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            value={appearance}
            options={APPEARANCES.map(({ value, label }) => ({ value, label }))}
            onChange={(value) =>
              set({
                appearance: value === "box_and_parts" ? null : value,
                ...(value === "parts_only" ? { location: false, keeps_position: false } : {}),
              })
            }
          />
        )}
      </Setting>
      {appearance !== "parts_only" && (
        <Setting label="Shown of a filled address">
          {(id) => (
            <Select id={id} className="whole-width" value={shown} options={SHOWN} onChange={(value) => set({ shown_as: value as "parts" | "lines" })} />
          )}
        </Setting>
      )}
      <SwitchSetting label="Keep empty fields in sight" value={Boolean(slot.shows_empty)} change={(shows_empty) => set({ shows_empty })} hint="Otherwise optional fields that a pick left empty fold behind one line." />
      <SwitchSetting label="The order of this form" value={Boolean(slot.keeps_order)} change={(keeps_order) => set({ keeps_order })} hint="Otherwise fields stand as each country has them." />
      <SwitchSetting label="Lock the fields after a pick" value={Boolean(slot.locked)} change={(locked) => set({ locked })} hint="Until “Change it by hand” is chosen; what was changed is kept." />
    </>
  );
}
