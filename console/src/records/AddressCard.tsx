import { Card, Descriptions, Tag } from "antd";

import type { CapturedAddress } from "../api/shapes";

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
  if (address.address_id === null) return <Tag color="gold">typed in by hand</Tag>;
  if (address.changed.length) return <Tag color="gold">picked, then changed</Tag>;
  return <Tag color="green">picked from {address.edition}</Tag>;
}
