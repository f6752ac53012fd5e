import { Tag } from "antd";

/** A short word on how something stands; dark enough on its ground to be read. */
export function StateTag(props: { tone: "fine" | "waits"; children: React.ReactNode }): React.ReactNode {
  return (
    <Tag variant="filled" className={props.tone === "fine" ? "tone-fine" : "tone-waits"}>
      {props.children}
    </Tag>
  );
}
