/** Making an edition the active one; where it is over the dataset's limits, after asking. */

import { App } from "antd";

import { call } from "../api/call";
import type { Dataset, Edition } from "./schemas";
import { pathOf, useEditionAction } from "./useData";

export function useActivation(dataset: Dataset): {
  activate: (number: number) => Promise<void>;
  action: ReturnType<typeof useEditionAction>;
} {
  const { modal } = App.useApp();
  const action = useEditionAction(dataset.name);
  const activate = async (number: number): Promise<void> => {
    const go = (): void => action.mutate({ number, action: "activate" });
    const edition = await call<Edition>(pathOf(dataset.name, number)).catch(() => null);
    const compared = edition?.comparison;
    const against = compared && compared.base === dataset.active_edition ? compared.against : [];
    if (!against.length) {
      go();
      return;
    }
    void modal.confirm({
      title: `Make edition ${number} active although it is over the limits?`,
      content: (
        <ul className="plain">
          {against.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      ),
      icon: null,
      okText: "Make it active",
      cancelText: "Leave it as it is",
      autoFocusButton: "cancel",
      onOk: go,
    });
  };
  return { activate, action };
}
