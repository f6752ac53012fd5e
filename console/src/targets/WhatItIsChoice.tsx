/** What a field of a target is: chosen for each address. */

import { Select } from "antd";

import { CHOICES, MORE, type Mapped, moreOf, whatItIs } from "./whatItIs";

interface WhatItIsProps {
  address: Mapped & { label: string };
  /** The field: its key, and its name for people. */
  of: { key: string; label: string | null };
  /** Whether there are others, so that the address is named as well. */
  isOneOfSeveral: boolean;
  change: (choice: string) => void;
}

export function WhatItIsChoice({ address, of, isOneOfSeveral, change }: WhatItIsProps): React.ReactNode {
  const choice = whatItIs(address, of.key);
  const more = choice === MORE ? moreOf(address, of.key) : null;
  return (
    <Select
      aria-label={`What ${of.label ?? of.key} is${isOneOfSeveral ? `, for ${address.label}` : ""}`}
      className="what-it-is"
      value={choice}
      disabled={more?.isShared ?? false}
      showSearch={{ optionFilterProp: "label" }}
      popupMatchSelectWidth={false}
      options={more ? [{ value: MORE, label: more.label }, ...CHOICES] : CHOICES}
      onChange={change}
    />
  );
}

/** The heading of its column. */
export const whatItIsTitle = (address: { label: string }, isOneOfSeveral: boolean): string => (isOneOfSeveral ? `What it is for “${address.label}”` : "What it is");
