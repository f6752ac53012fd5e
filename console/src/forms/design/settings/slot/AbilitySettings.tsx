/** What else an address can do: be the same as another, use the person's location, show a map. */

import { Select } from "antd";

import type { FormDocument, Slot } from "../../../../api/schemas";
import { isSlot, itemsOf, nameOf, placeOf } from "../../edits";
import { Setting } from "../Setting";
import { SwitchSetting } from "../SwitchSetting";

type Set = (settings: Partial<Slot>) => void;

export function AbilitySettings({ slot, document, set }: { slot: Slot; document: FormDocument; set: Set }): React.ReactNode {
  const items = itemsOf(document);
  const before = items.slice(0, placeOf(document, slot.key)).filter(isSlot);
  const others = document.slots.filter((one) => one.key !== slot.key);
  const texts = items.filter((item) => !isSlot(item) && ["text", "long_text", "hidden"].includes(item.type ?? "text"));
  return (
    <>
      {(before.length > 0 || slot.same_as) && (
        <Setting label="Can be the same as">
          {(id) => (
            <Select
              id={id}
              allowClear
              className="whole-width"
              placeholder="no other address"
              value={slot.same_as ?? null}
              options={before.map((one) => ({ value: one.key, label: one.label }))}
              onChange={(key: string | undefined) => set({ same_as: key ?? null })}
            />
          )}
        </Setting>
      )}
      {slot.appearance !== "parts_only" && (
        <SwitchSetting label="“Use my location”" value={Boolean(slot.location)} change={(location) => set({ location, ...(location ? {} : { keeps_position: false }) })} hint="A button; the place is asked for on a tap alone." />
      )}
      {slot.location && (
        <SwitchSetting label="Keep that place with the record" value={Boolean(slot.keeps_position)} change={(keeps_position) => set({ keeps_position })} />
      )}
      <Setting label="Map">
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            value={slot.map ? (slot.map.place ?? "below") : ""}
            options={[
              { value: "", label: "none" },
              { value: "below", label: "below the address" },
              { value: "beside", label: "beside the address" },
            ]}
            onChange={(place) => set({ map: place ? { ...slot.map, place: place as "below" | "beside" } : null })}
          />
        )}
      </Setting>
      {slot.map && (
        <Setting label="The map follows">
          {(id) => (
            <Select
              id={id}
              className="whole-width"
              value={slot.map?.follows ?? ""}
              options={[{ value: "", label: "this address" }, ...others.map((one) => ({ value: one.key, label: `the address “${one.label}”` })), ...texts.map((item) => ({ value: item.key, label: `what is typed into “${nameOf(item)}”` }))]}
              onChange={(follows) => set({ map: { place: slot.map?.place ?? "below", ...(follows ? { follows } : {}) } })}
            />
          )}
        </Setting>
      )}
    </>
  );
}
