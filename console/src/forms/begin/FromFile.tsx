/** A form from a YAML file, such as `anchorline forms show KEY --yaml` writes. */

import { Button, Card } from "antd";
import { useState } from "react";
import { parse } from "yaml";

import type { FormDocument } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { Setting } from "../design/settings/Setting";
import { useBegin } from "./useBegin";

const MOST_BYTES = 2_000_000;

export function FromFile(): React.ReactNode {
  const begin = useBegin();
  const [read, setRead] = useState<{ document: FormDocument | null; error: Error | null }>({ document: null, error: null });
  const choose = async (file: File | undefined): Promise<void> => {
    begin.reset();
    if (!file) return setRead({ document: null, error: null });
    try {
      setRead({ document: documentOf(file.size > MOST_BYTES ? "" : await file.text(), file.name), error: null });
    } catch (error) {
      setRead({ document: null, error: error instanceof Error ? error : new Error(String(error)) });
    }
  };
  return (
    <Card size="small" className="narrow">
      <Setting label="A form as a YAML file" hint="As “anchorline forms show KEY --yaml” writes it.">
        {(id) => <input id={id} className="file" type="file" accept=".yaml,.yml,.json" onChange={(event) => void choose(event.target.files?.[0])} />}
      </Setting>
      {read.error && <ErrorAlert error={read.error} />}
      {begin.isError && <ErrorAlert error={begin.error} />}
      <Button type="primary" disabled={!read.document} loading={begin.isPending} onClick={() => read.document && begin.mutate(read.document)}>
        {read.document ? `Begin with “${read.document.title}”` : "Begin"}
      </Button>
    </Card>
  );
}

/** The form of a text; an error that says what is wrong with it. */
export function documentOf(text: string, name: string): FormDocument {
  let content: unknown;
  try {
    content = parse(text);
  } catch (error) {
    throw new Error(`${name} is not YAML: ${error instanceof Error ? error.message.split("\n")[0] : ""}`);
  }
  if (typeof content !== "object" || content === null || typeof (content as FormDocument).title !== "string") {
    throw new Error(`${name} holds no form: it needs a title, and fields.`);
  }
  const document = content as FormDocument;
  return { ...document, kind: document.kind ?? "record", fields: document.fields ?? [], slots: document.slots ?? [] };
}
