import { Tag } from "antd";

const TONES = {
  fine: { color: "#1c5522", background: "#e4f2e4" },
  waits: { color: "#634000", background: "#fbeecd" },
};

/** A short word on how something stands; dark enough on its ground to be read. */
export function StateTag(props: { tone: keyof typeof TONES; children: React.ReactNode }): React.ReactNode {
  return (
    <Tag variant="filled" style={{ ...TONES[props.tone], fontSize: 13 }}>
      {props.children}
    </Tag>
  );
}
