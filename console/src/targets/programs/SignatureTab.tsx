/** How the screens of a program are recognised: conditions, beside what was seen lately. */

import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input, Select } from "antd";

import { Panel } from "../../parts/Panel";
import { LookList } from "./LookList";
import type { Condition, ProgramProps, Screen } from "./usePrograms";
import { KINDS, TESTS } from "./words";

const NEEDS = [
  { value: "all", label: "all of these hold" },
  { value: "any", label: "any of these holds" },
];

export function SignatureTab({ document, edit }: ProgramProps): React.ReactNode {
  const put = (screens: Screen[]): void => edit({ ...document, screens });
  const set = (at: number, changed: Partial<Screen>): void => put(document.screens.map((one, place) => (place === at ? { ...one, ...changed } : one)));
  const add = (condition: Condition, at = 0): void => {
    const screen = document.screens[at];
    if (screen) set(at, { conditions: [...screen.conditions, condition] });
    else put([{ key: "screen", label: document.title, needs: "all", conditions: [condition] }]);
  };
  return (
    <div className="program-columns">
      <div>
        {document.screens.map((screen, at) => (
          <Panel
            key={screen.key}
            apart={at > 0}
            title={screen.label || screen.key}
            extra={
              <Button size="small" danger onClick={() => put(document.screens.filter((_, place) => place !== at))}>
                Take out
              </Button>
            }
          >
            <div className="page-row">
              <Input aria-label={`Name of screen ${at + 1}`} value={screen.label ?? ""} maxLength={200} onChange={(event) => set(at, { label: event.target.value })} />
              <Select aria-label={`How conditions of screen ${at + 1} count`} value={screen.needs} options={NEEDS} popupMatchSelectWidth={false} onChange={(needs) => set(at, { needs })} />
            </div>
            <ol className="condition-rows">
              {screen.conditions.map((condition, place) => (
                <li key={place}>
                  <ConditionRow
                    condition={condition}
                    name={`condition ${place + 1} of screen ${at + 1}`}
                    change={(next) => set(at, { conditions: screen.conditions.with(place, next) })}
                    remove={() => set(at, { conditions: screen.conditions.filter((_, other) => other !== place) })}
                  />
                </li>
              ))}
            </ol>
            <Button icon={<PlusOutlined aria-hidden />} onClick={() => add({ kind: "title", test: "begins", text: "" }, at)}>
              Add a condition
            </Button>
          </Panel>
        ))}
        <p>
          <Button icon={<PlusOutlined aria-hidden />} onClick={() => put([...document.screens, { key: newKey(document.screens), label: `Screen ${document.screens.length + 1}`, needs: "all", conditions: [] }])}>
            Add a screen
          </Button>{" "}
          <span className="hint">Each screen is enough by itself: adding and editing, or the same window in several programs.</span>
        </p>
      </div>
      <LookList add={add} />
    </div>
  );
}

function ConditionRow(props: { condition: Condition; name: string; change: (condition: Condition) => void; remove: () => void }): React.ReactNode {
  const { condition, name, change, remove } = props;
  return (
    <div className="condition-row">
      <Select aria-label={`What ${name} looks at`} value={condition.kind} options={KINDS} popupMatchSelectWidth={false} onChange={(kind) => change({ ...condition, kind })} />
      <Select aria-label={`How ${name} compares`} value={condition.test} options={TESTS} popupMatchSelectWidth={false} onChange={(test) => change({ ...condition, test })} />
      <Input aria-label={`Text of ${name}`} value={condition.text} maxLength={200} onChange={(event) => change({ ...condition, text: event.target.value })} />
      <Button aria-label={`Take out ${name}`} icon={<DeleteOutlined aria-hidden />} onClick={remove} />
    </div>
  );
}

function newKey(screens: Screen[]): string {
  let number = screens.length + 1;
  while (screens.some((one) => one.key === `screen-${number}`)) number += 1;
  return `screen-${number}`;
}
