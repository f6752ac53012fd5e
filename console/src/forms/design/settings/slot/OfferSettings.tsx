/** What is offered in an address's finder: kinds, datasets, in which language, near to what. */

import { InputNumber, Select } from "antd";

import { useDatasets } from "../../../../data/useData";
import type { FormDocument, Slot } from "../../../../api/schemas";
import { Setting } from "../Setting";
import { TextSetting } from "../TextSetting";

type Set = (settings: Partial<Slot>) => void;
type Near = NonNullable<Slot["near"]>;

const KINDS = ["address", "street", "place", "postcode", "town", "district", "region", "organisation", "building"];

export function OfferSettings({ slot, document, set }: { slot: Slot; document: FormDocument; set: Set }): React.ReactNode {
  const known = useDatasets().data?.map((one) => one.name) ?? [];
  return (
    <>
      <Setting label="Offered as people type" hint={slot.kinds?.length ? undefined : "Everything that can be found."}>
        {(id) => (
          <Select id={id} mode="multiple" className="whole-width" placeholder="everything" value={slot.kinds ?? []} options={KINDS.map((value) => ({ value, label: value }))} onChange={(kinds) => set({ kinds })} />
        )}
      </Setting>
      <Setting label="Searched datasets" hint={slot.datasets?.length ? undefined : "All that are active."}>
        {(id) => (
          <Select id={id} mode="multiple" className="whole-width" placeholder="all" value={slot.datasets ?? []} options={known.map((value) => ({ value, label: value }))} onChange={(names) => set({ datasets: names })} />
        )}
      </Setting>
      <TextSetting label="Language of what is found" hint="Such as ja-Latn; empty: as it was typed." most={35} value={slot.language} change={(language) => set({ language: language || null })} />
      <TextSetting label="Word for practice addresses" hint="Typed first, it finds made-up addresses that count for nothing; empty: none." most={30} value={slot.practice_word} change={(word) => set({ practice_word: word || null })} />
      <NearSetting slot={slot} document={document} set={set} />
    </>
  );
}

function NearSetting({ slot, document, set }: { slot: Slot; document: FormDocument; set: Set }): React.ReactNode {
  const near: Near | null = slot.near ?? null;
  const others = document.slots.filter((one) => one.key !== slot.key);
  const chosen = !near ? "" : near.person ? "person" : near.slot ? `slot ${near.slot}` : "point";
  const choose = (value: string): void => {
    if (value === "") set({ near: null });
    else if (value === "person") set({ near: { person: true } });
    else if (value === "point") set({ near: { latitude: 0, longitude: 0, person: false } });
    else set({ near: { slot: value.slice("slot ".length), person: false } });
  };
  return (
    <>
      <Setting label="Preferred near to">
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            value={chosen}
            options={[
              { value: "", label: "nothing" },
              { value: "person", label: "the person, where the browser knows it" },
              { value: "point", label: "a point" },
              ...others.map((one) => ({ value: `slot ${one.key}`, label: `“${one.label}”` })),
            ]}
            onChange={choose}
          />
        )}
      </Setting>
      {near && chosen === "point" && (
        <div className="setting-pair">
          {(["latitude", "longitude"] as const).map((name) => (
            <Setting key={name} label={name === "latitude" ? "Latitude" : "Longitude"}>
              {(id) => (
                <InputNumber id={id} className="whole-width" min={name === "latitude" ? -90 : -180} max={name === "latitude" ? 90 : 180} value={near[name] ?? 0} onChange={(value) => set({ near: { ...near, [name]: value ?? 0 } })} />
              )}
            </Setting>
          ))}
        </div>
      )}
    </>
  );
}
