import { Button, Card, Input, Select } from "antd";
import { useState } from "react";
import { useMutation } from "@tanstack/react-query";

import { call } from "../../api/call";
import type { Draft } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { bare } from "../design/bare";
import { Setting } from "../design/settings/Setting";
import { useForms } from "../useForms";
import { useBegin } from "./useBegin";

export function FromCopy(): React.ReactNode {
  const forms = useForms().data?.forms ?? [];
  const begin = useBegin();
  const [key, setKey] = useState<string | null>(null);
  const [title, setTitle] = useState("");
  const copy = useMutation({
    mutationFn: async () => {
      const draft = await call<Draft>(`forms/${key ?? ""}/draft`);
      await begin.mutateAsync({ ...bare(draft.document), title: title.trim() });
    },
  });
  const choose = (chosen: string): void => {
    setKey(chosen);
    setTitle(`${forms.find((form) => form.key === chosen)?.title ?? ""} (copy)`.slice(0, 200));
  };
  return (
    <Card size="small" className="narrow">
      <Setting label="Copy of">
        {(id) => (
          <Select
            id={id}
            className="whole-width"
            placeholder="Choose a form"
            value={key}
            options={forms.map((form) => ({ value: form.key, label: form.title }))}
            onChange={choose}
          />
        )}
      </Setting>
      <Setting label="Title of the copy">
        {(id) => <Input id={id} value={title} maxLength={200} onChange={(event) => setTitle(event.target.value)} />}
      </Setting>
      {copy.isError && <ErrorAlert error={copy.error} />}
      <Button type="primary" disabled={!key || !title.trim()} loading={copy.isPending} onClick={() => copy.mutate()}>
        Copy it
      </Button>
    </Card>
  );
}
