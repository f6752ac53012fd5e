import { Card, Descriptions } from "antd";

import type { CapturedAddress, RecordHistory } from "../api/schemas";
import { Named } from "../parts/Named";
import { StateTag } from "../parts/StateTag";
import { CopyLines } from "./CopyLines";
import { SlotHistory } from "./SlotHistory";
import { valueAt } from "../../../embed/src/dictionary";

/** A captured address: its lines, its components, where it came from. */
export function AddressCard(props: {
  slot: string;
  address: CapturedAddress;
  /** What the form calls its fields, by their keys. */
  fields: Record<string, string>;
  history?: RecordHistory | undefined;
}): React.ReactNode {
  const { slot, address, fields, history } = props;
  const { facts } = address;
  const position =
    facts.latitude !== null && facts.longitude !== null
      ? `${facts.latitude.toFixed(5)}, ${facts.longitude.toFixed(5)}`
      : null;
  return (
    <Card
      size="small"
      title={<h2><Named label={address.label} name={slot} /></h2>}
      extra={<Origin address={address} />}
    >
      <CopyLines lines={address.lines} label={address.label} />
      <Descriptions
        column={1}
        size="small"
        className="space-above"
        items={[
          ...Object.entries(address.components).map(([name, value]) => ({
            key: name,
            label: <Named label={valueAt(address.component_labels, name)} name={name} />,
            children: <span dir="auto">{value}</span>,
          })),
          ...(position ? [{ key: "position", label: "latitude, longitude", children: position }] : []),
          ...(address.position ? [{ key: "pin", label: PLACES[address.position.source] ?? "place", children: placeText(address.position) }] : []),
          ...(address.layout ? [{ key: "layout", label: "own layout", children: address.layout }] : []),
          ...(address.typed
            ? [{ key: "typed", label: "typed in the finder", children: <span dir="auto">{address.typed}</span> }]
            : []),
          ...(address.changed.length
            ? [{ key: "changed", label: "changed by hand", children: address.changed.map((key) => valueAt(fields, key) ?? key).join(", ") }]
            : []),
          ...address.notes.map((note, index) => ({ key: `note-${index}`, label: "note", children: note })),
        ]}
      />
      {history && <SlotHistory history={history} slot={slot} />}
    </Card>
  );
}

const PLACES: Record<string, string> = { pin: "pin on the map", device: "where the person was" };

function placeText(place: NonNullable<CapturedAddress["position"]>): string {
  const at = `${place.latitude.toFixed(5)}, ${place.longitude.toFixed(5)}`;
  const accuracy = place.accuracy_m === null ? "" : `, to within ${Math.round(place.accuracy_m)} m`;
  const distance = place.distance_m === null ? "" : `, ${place.distance_m} m from the address`;
  return `${at}${accuracy}${distance}`;
}

function Origin({ address }: { address: CapturedAddress }): React.ReactNode {
  if (address.address_id === null) return <StateTag tone="waits">typed in by hand</StateTag>;
  if (address.changed.length) return <StateTag tone="waits">picked, then changed</StateTag>;
  return <StateTag tone="fine">picked from {address.edition}</StateTag>;
}
