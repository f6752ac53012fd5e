/** What is specific to a program: how a field is reached on its screen, and how it is emptied. */

import { Form, Input, InputNumber, Select } from "antd";

import type { ProgramField } from "../programs/usePrograms";
import { EMPTIES, PLACES } from "./words";

export function ReachSettings({ field, set }: { field: ProgramField; set: (changed: Partial<ProgramField>) => void }): React.ReactNode {
  return (
    <>
      <Form.Item label="Where it is" htmlFor="field-where">
        <Select id="field-where" value={field.where ?? "screen"} options={PLACES} onChange={(where) => set({ where: where as "screen" })} />
      </Form.Item>
      {(field.where ?? "screen") === "screen" && (
        <>
          <Form.Item label="What the program calls it" htmlFor="field-name" extra="Checked before a key is sent, where the program tells it.">
            <Input id="field-name" value={field.name ?? ""} maxLength={200} onChange={(event) => set({ name: event.target.value })} />
          </Form.Item>
          <Form.Item label="Fields further than the one before it" htmlFor="field-further">
            <InputNumber id="field-further" min={1} max={50} value={field.further ?? 1} onChange={(value) => set({ further: value ?? 1 })} />
          </Form.Item>
          <Form.Item label="How it is emptied" htmlFor="field-empty">
            <Select id="field-empty" value={field.empty ?? (field.several_lines ? "box" : "line")} options={EMPTIES} onChange={(empty) => set({ empty: empty as "line" })} />
          </Form.Item>
        </>
      )}
    </>
  );
}
