/** How all programs are written into, set at once. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button, Checkbox, Form, Modal, Select } from "antd";
import { useState } from "react";

import { call, callWithEtag } from "../../api/call";
import { ErrorAlert } from "../../parts/ErrorAlert";
import type * as api from "../../../../embed/src/api";
import type { TargetSummary } from "../useTargets";
import type { PartOfWording, ProgramDocument } from "./usePrograms";
import { CountryWording } from "./WordingFields";

const CAPITALS = [
  { value: true, label: "in capitals" },
  { value: false, label: "as the mapping makes it" },
];

export function WordPrograms({ targets }: { targets: TargetSummary[] }): React.ReactNode {
  const programs = targets.filter((one) => one.kind === "program");
  const [isOpen, setOpen] = useState(false);
  if (programs.length === 0) return null;
  return (
    <>
      <Button onClick={() => setOpen(true)}>Wording of programs</Button>
      {isOpen && <WordingDialog programs={programs} close={() => setOpen(false)} />}
    </>
  );
}

function WordingDialog({ programs, close }: { programs: TargetSummary[]; close: () => void }): React.ReactNode {
  const queries = useQueryClient();
  const { message } = App.useApp();
  const [keys, setKeys] = useState(programs.map((one) => one.key));
  const [wording, setWording] = useState<PartOfWording>({ capitals: null, country_as: null, home_country: null });
  const [publishes, setPublishes] = useState(false);
  const setting = useMutation({
    mutationFn: async () => {
      for (const key of keys) {
        await word(key, wording, publishes);
        // Where one is refused, it and those after it stay chosen.
        setKeys((left) => left.filter((one) => one !== key));
      }
      return keys.length;
    },
    onSuccess: (count) => {
      void message.success(`${count === 1 ? "One program is" : `${count} programs are`} ${publishes ? "published" : "kept as drafts"} with this wording.`);
      close();
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["targets"] }),
  });
  const says = Object.values(wording).some((value) => value !== null);
  const change = (changed: Partial<PartOfWording>): void => setWording({ ...wording, ...changed });
  return (
    <Modal
      open
      title="How programs are written into"
      okText={publishes ? "Set and publish" : "Set in the drafts"}
      okButtonProps={{ disabled: !says || keys.length === 0, loading: setting.isPending }}
      onOk={() => setting.mutate()}
      onCancel={close}
    >
      <Form layout="vertical" requiredMark={false}>
        <Form.Item label="Programs" htmlFor="worded">
          <Select id="worded" mode="multiple" value={keys} options={programs.map((one) => ({ value: one.key, label: one.title }))} showSearch={{ optionFilterProp: "label" }} onChange={setKeys} />
        </Form.Item>
        <Form.Item label="Everything" htmlFor="capitals">
          <Select id="capitals" allowClear placeholder="left as it is" value={wording.capitals} options={CAPITALS} onChange={(value: boolean | null | undefined) => change({ capitals: value ?? null })} />
        </Form.Item>
        <CountryWording wording={wording} change={change} unsaid="left as it is" />
        <Checkbox checked={publishes} onChange={(event) => setPublishes(event.target.checked)}>
          Publish them as well, with all that is in their drafts
        </Checkbox>
        {setting.isError && <ErrorAlert error={setting.error} />}
      </Form>
    </Modal>
  );
}

async function word(key: string, wording: PartOfWording, publishes: boolean): Promise<void> {
  const { body, etag } = await callWithEtag<api.TargetDraft>(`targets/${key}/draft`);
  const document = body.document as ProgramDocument;
  const said = Object.fromEntries(Object.entries(wording).filter(([, value]) => value !== null));
  const kept = await callWithEtag(`targets/${key}/draft`, { method: "PUT", body: { ...document, wording: { ...document.wording, ...said } }, etag });
  if (publishes) await call(`targets/${key}/publish`, { method: "POST", etag: kept.etag });
}
