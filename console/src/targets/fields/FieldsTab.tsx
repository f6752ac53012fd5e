/** A target's fields as a picture of its screen, each with what a sample address puts there; and where each part goes. */

import { PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useState } from "react";

import { MappingWorkbench } from "../../forms/mapping/MappingWorkbench";
import { SampleBar } from "../../forms/mapping/SampleBar";
import { type Sample, useSamples, useTried } from "../../forms/mapping/useMapping";
import { ErrorAlert } from "../../parts/ErrorAlert";
import type { Edited } from "../../parts/documents/useKeeping";
import { asForm, mappedTarget, onTarget } from "../mapped";
import type { PageWindow } from "../pageWindow";
import type { AnyTarget, TargetDraft } from "../useTargets";
import { FieldPanel } from "./FieldPanel";
import { ScreenPicture } from "./ScreenPicture";
import { addressesOf, fieldsOf, newField, withFields } from "./addresses";

export function FieldsTab({ of, page }: { of: Edited<AnyTarget, TargetDraft>; page: PageWindow | null }): React.ReactNode {
  const { document, edit } = of;
  const addresses = addressesOf(document);
  const [mapping, setMapping] = useState<string | null>(null);
  const [address, setAddress] = useState(addresses[0]?.key ?? "");
  const [field, setField] = useState<string | null>(null);
  const shown = addresses.find((one) => one.key === address) ?? addresses[0];
  const place = onTarget(document);
  const kept = asForm(of.keeper.kept.body.document);
  const samples = useSamples(place, shown?.key ?? "", kept.slots.some((one) => one.key === shown?.key));
  const [chosen, setChosen] = useState<Sample | null>(null);
  const sample = chosen ?? samples?.[0] ?? null;
  const tried = useTried(place, shown?.key ?? "", asForm(document), shown ? sample?.id : undefined);
  if (mapping) return <MappingWorkbench key={mapping} place={place} design={mappedTarget(of)} slotKey={mapping} close={() => setMapping(null)} />;
  const opened = fieldsOf(document).find((one) => one.key === field) ?? null;
  return (
    <>
      <div className="picture-bar" role="group" aria-label="Addresses of this target">
        {addresses.map((one) => (
          <span key={one.key} className="picture-address">
            {addresses.length > 1 && (
              <Button aria-pressed={one.key === shown?.key} type={one.key === shown?.key ? "primary" : "default"} onClick={() => setAddress(one.key)}>
                {one.label}
              </Button>
            )}
            <Button onClick={() => setMapping(one.key)}>Where each part of “{one.label}” goes</Button>
          </span>
        ))}
      </div>
      {samples && <SampleBar samples={samples} sample={sample} choose={setChosen} />}
      {tried.isError && <ErrorAlert error={tried.error} />}
      <div className="program-columns">
        <div>
          <ScreenPicture target={document} address={shown} values={(tried.data?.values ?? {}) as Record<string, string>} tried={page?.tried ?? null} chosen={field} choose={setField} edit={edit} />
          <Button
            icon={<PlusOutlined aria-hidden />}
            onClick={() => {
              const made = newField(document);
              edit(withFields(document, [...fieldsOf(document), made]));
              setField(made.key);
            }}
          >
            Add a field
          </Button>
        </div>
        {opened && <FieldPanel key={opened.key} target={document} field={opened} edit={edit} page={page} close={() => setField(null)} />}
      </div>
    </>
  );
}
