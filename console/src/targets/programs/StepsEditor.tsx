/** Steps of one's own, in place of those that the fields make: written as they stand in a file. */

import { Alert, Button, Input } from "antd";
import { useState } from "react";
import { parse, stringify } from "yaml";

import type { ProgramField, Step, Writing } from "./usePrograms";

export function StepsEditor(props: { writing: Writing; fields: ProgramField[]; change: (writing: Writing) => void }): React.ReactNode {
  const { writing, fields, change } = props;
  const [text, setText] = useState(() => written(writing.steps));
  const [problem, setProblem] = useState("");
  const read = (given: string): void => {
    setText(given);
    const steps = stepsIn(given);
    setProblem(steps ? "" : "This is no list of steps yet: each begins with “- do:”.");
    if (steps) change({ ...writing, steps });
  };
  return (
    <>
      <p>
        These steps are carried out in place of the fields in their order. Each line says what is done: write, type, paste, press, clear, next, previous, line_break, wait_until, expect_front, expect_field, read_back. Fields: {fields.map((one) => one.key).join(", ")}.
      </p>
      <Input.TextArea aria-label="Steps" rows={Math.min(24, text.split("\n").length + 2)} className="steps-text" spellCheck={false} value={text} onChange={(event) => read(event.target.value)} />
      {problem && <Alert className="notice" type="warning" showIcon title={problem} />}
      <p>
        <Button onClick={() => change({ ...writing, steps: [] })}>Back to the fields in their order</Button>
      </p>
    </>
  );
}

/** Steps as they stand in a file, one a line. */
export function written(steps: Step[]): string {
  return steps.map((step) => `- ${stringify(step, { collectionStyle: "flow", lineWidth: 0 }).trim()}`).join("\n");
}

/** The steps in a text; null where it is no list of them. */
export function stepsIn(text: string): Step[] | null {
  try {
    const found: unknown = parse(text);
    const isList = Array.isArray(found) && found.every((one) => typeof one === "object" && one !== null && typeof (one as { do?: unknown }).do === "string");
    return isList ? (found as Step[]) : null;
  } catch {
    return null;
  }
}
