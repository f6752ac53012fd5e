/** A record of another form, made without leaving the one that links to it. */

import { Modal } from "antd";
import { useState } from "react";

import { type MakeRecord, useFormElement } from "./useFormElement";

interface Asked {
  form: string;
  answer: (made: { id: string; label: string } | null) => void;
}

/** The dialog, and what opens it. */
export function useLinkedRecord(): { dialog: React.ReactNode; makeRecord: MakeRecord } {
  const [asked, setAsked] = useState<Asked | null>(null);
  const makeRecord: MakeRecord = (form) => new Promise((answer) => setAsked({ form, answer }));
  const end = (made: { id: string; label: string } | null): void => {
    asked?.answer(made);
    setAsked(null);
  };
  const dialog = asked && (
    <Modal open title="A new record" width={760} footer={null} onCancel={() => end(null)} destroyOnHidden>
      <LinkedForm form={asked.form} made={end} />
    </Modal>
  );
  return { dialog, makeRecord };
}

function LinkedForm(props: { form: string; made: (record: { id: string; label: string }) => void }): React.ReactNode {
  const place = useFormElement({
    form: props.form,
    level: 3,
    makeRecord: null,
    changed: () => undefined,
    submitted: (record) => props.made({ id: record.id, label: record.label }),
  });
  return <div ref={place} />;
}
