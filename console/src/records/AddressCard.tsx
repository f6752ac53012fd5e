import { Card, Descriptions } from "antd";

import type { CapturedAddress } from "../api/shapes";
import { StateTag } from "../parts/StateTag";

/** A captured address: its lines, its components, where it came from. */
export function AddressCard({ address }: { address: CapturedAddress }): React.ReactNode {
  const { facts } = address;
  const position =
    facts.latitude !== null && facts.longitude !== null
      ? `${facts.latitude.toFixed(5)}, ${facts.longitude.toFixed(5)}`
      : null;
  return (
    <Card
      size="small"
      title={<h2 style={{ margin: 0, fontSize: "1rem" }}>Address: {address.slot}</h2>}
      extra={<Origin address={address} />}
    >
      <address className="lines" dir="auto">
        {address.lines.join("\n")}
      </address>
      <Descriptions
        column={1}
        size="small"
        style={{ marginTop: 12 }}
        items={[
          ...Object.entries(address.components).map(([name, value]) => ({
            key: name,
            label: <span className="key">{name}</span>,
            children: <span dir="auto">{value}</span>,
          })),
          ...(position ? [{ key: "position", label: "latitude, longitude", children: position }] : []),
          ...(address.layout ? [{ key: "layout", label: "own layout", children: address.layout }] : []),
          ...(address.typed
            ? [{ key: "typed", label: "typed in the finder", children: <span dir="auto">{address.typed}</span> }]
            : []),
          ...(address.changed.length
            ? [{ key: "changed", label: "changed by hand", children: address.changed.join(", ") }]
            : []),
        ]}
      />
    </Card>
  );
}

function Origin({ address }: { address: CapturedAddress }): React.ReactNode {
  if (address.address_id === null) return <StateTag tone="waits">typed in by hand</StateTag>;
  if (address.changed.length) return <StateTag tone="waits">picked, then changed</StateTag>;
  return <StateTag tone="fine">picked from {address.edition}</StateTag>;
}
