/** A new program target: from the program itself, or from looks that were sent and a ready-made target. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button, Card, Empty, Form, Input, Radio, Select } from "antd";
import { useNavigate } from "react-router";

import { callWithEtag } from "../../api/call";
import { keyFrom } from "../../forms/design/keys";
import { ErrorAlert } from "../../parts/ErrorAlert";
import { PageHead } from "../../parts/PageHead";
import { useHeld } from "../../parts/useHeld";
import { Panel } from "../../parts/Panel";
import { useTargets } from "../useTargets";
import { LookTitle } from "./LookList";
import { type Look, factsOf, proposeProgram, useLooks, useReadyMade } from "./usePrograms";
import "../targets.css";
import "./programs.css";

export default function NewProgramPage(): React.ReactNode {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const targets = useTargets();
  const looks = useLooks();
  const ready = useReadyMade();
  const [title, setTitle] = useHeld("new program: title", "");
  const [like, setLike] = useHeld("new program: like", "workshop-ledger");
  const [same, setSame] = useHeld<string[]>("new program: looks", []);
  const [others, setOthers] = useHeld<string[]>("new program: other looks", []);
  const taken = new Set((targets.data?.targets ?? []).map((one) => one.key.replaceAll("-", "_")));
  const key = keyFrom(title, taken, "program").replaceAll("_", "-");
  const found = looks.data?.looks ?? [];
  const chosen = (ids: string[]): Look[] => found.filter((one) => ids.includes(one.id)).reverse();
  const keeping = useMutation({
    mutationFn: async () => {
      const proposal = await proposeProgram({ key, title: title.trim(), looks: chosen(same).map(factsOf), others: chosen(others).map(factsOf), like });
      return callWithEtag(`targets/${key}/draft`, { method: "PUT", body: proposal.document });
    },
    onSuccess: async () => {
      await navigate(`/targets/${key}`);
      await queries.invalidateQueries({ queryKey: ["targets"] });
    },
  });
  const toggle = (list: string[], put: (ids: string[]) => void, id: string): void => put(list.includes(id) ? list.filter((one) => one !== id) : [...list, id]);
  return (
    <>
      <PageHead title="New program target" about="The quickest way is from the program itself: run anchorline desk run, put the cursor into the first field of the address, press Ctrl+Alt+A and then F3. Here it is made from looks and a ready-made target." />
      <Card size="small" className="new-target">
        <Form layout="vertical" requiredMark={false}>
          <Form.Item label="What the screen is called here" htmlFor="program-title" extra={title.trim() ? `Its key: ${key}` : null}>
            <Input id="program-title" value={title} maxLength={60} placeholder="Contacts of the old ledger" onChange={(event) => setTitle(event.target.value)} />
          </Form.Item>
          <Form.Item label="It begins as" htmlFor="program-like" extra={ready.data?.targets.find((one) => one.name === like)?.says}>
            <Select id="program-like" value={like} options={(ready.data?.targets ?? []).map((one) => ({ value: one.name, label: one.title }))} onChange={setLike} />
          </Form.Item>
        </Form>
      </Card>
      <Panel title="Looks at the screen" apart>
        {found.length === 0 && <Empty description="Nobody has sent a look yet: press Ctrl+Alt+A in the program, then F4, or run anchorline desk look --after 3 --send." />}
        <ul className="plain look-choice">
          {found.map((look) => (
            <li key={look.id}>
              <LookTitle look={look} />
              <Radio.Group
                aria-label={`What ${look.facts.find((fact) => fact.kind === "title")?.text ?? "this look"} is`}
                value={same.includes(look.id) ? "same" : others.includes(look.id) ? "other" : "none"}
                options={[
                  { value: "same", label: "this screen" },
                  { value: "other", label: "must not match" },
                  { value: "none", label: "left aside" },
                ]}
                onChange={(event) => {
                  const choice = String(event.target.value);
                  if (same.includes(look.id) !== (choice === "same")) toggle(same, setSame, look.id);
                  if (others.includes(look.id) !== (choice === "other")) toggle(others, setOthers, look.id);
                }}
              />
            </li>
          ))}
        </ul>
        {keeping.isError && <ErrorAlert error={keeping.error} />}
        <p>
          <Button type="primary" disabled={!title.trim() || same.length === 0} loading={keeping.isPending} onClick={() => keeping.mutate()}>
            Keep it as a draft
          </Button>{" "}
          <span className="hint">{!title.trim() ? "Say first what it is called." : same.length === 0 ? "Say of at least one look that it is this screen." : ""}</span>
        </p>
      </Panel>
    </>
  );
}
