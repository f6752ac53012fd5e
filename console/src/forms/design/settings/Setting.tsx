/** One setting with its label, and what is said of it. */

import { useId } from "react";

export function Setting(props: {
  label: string;
  hint?: React.ReactNode;
  children: (id: string) => React.ReactNode;
}): React.ReactNode {
  const id = useId();
  return (
    <div className="setting">
      <label htmlFor={id}>{props.label}</label>
      {props.children(id)}
      {props.hint && <span className="hint">{props.hint}</span>}
    </div>
  );
}
