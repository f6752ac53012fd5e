/** A new page target: from a page that is opened from here, or from HTML that is pasted. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Card, Form, Input, Tabs } from "antd";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";

import { callWithEtag } from "../api/call";
import { ErrorAlert } from "../parts/ErrorAlert";
import { PageHead } from "../parts/PageHead";
import { useHeld } from "../parts/useHeld";
import { useUnsaved } from "../parts/useUnsaved";
import { CopiedLine, scriptLine } from "./CopiedLine";
import { PageState } from "./PageState";
import { type PageWindow, pageAddress, usePageWindow } from "./pageWindow";
import { ProposedFields } from "./fields/ProposedFields";
import { fieldsOf } from "./pasted";
import { keyFrom } from "../forms/design/keys";
import { type SeenField, type TargetDocument, propose, useTargets } from "./useTargets";
import "./targets.css";

export default function NewTargetPage(): React.ReactNode {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const page = usePageWindow();
  const [title, setTitle] = useHeld("new target: title", "");
  const [document, setDocument] = useHeld<TargetDocument | null>("new target: document", null);
  const [because, setBecause] = useHeld<Record<string, string>>("new target: because", {});
  const [unsure, setUnsure] = useHeld<string[]>("new target: unsure", []);
  const targets = useTargets();
  const taken = new Set((targets.data?.targets ?? []).map((one) => one.key.replaceAll("-", "_")));
  const key = keyFrom(title, taken, "page").replaceAll("_", "-");
  const proposing = useMutation({
    mutationFn: ({ fields, origins }: { fields: SeenField[]; origins: string[] }) => propose(key, title.trim() || "Page", fields, origins),
    onSuccess: (answer) => {
      setDocument(answer.document);
      setBecause(answer.because);
      setUnsure(answer.unsure);
    },
  });
  const { mutate } = proposing;
  // A page that is drawn by and by tells of its fields more than once.
  useEffect(() => {
    if (page.fields.length) mutate({ fields: page.fields, origins: [new URL(page.url).origin] });
  }, [page.fields, page.url, mutate]);
  const keeping = useMutation({
    mutationFn: (kept: TargetDocument) => callWithEtag(`targets/${kept.key}/draft`, { method: "PUT", body: kept }),
    onSuccess: async (_, kept) => {
      await navigate(`/targets/${kept.key}`);
      await queries.invalidateQueries({ queryKey: ["targets"] });
    },
  });
  useUnsaved(document !== null && !keeping.isPending && !keeping.isSuccess);
  const named = document ? { ...document, title: title.trim(), key } : null;
  return (
    <>
      <PageHead title="New page target" about="Anchorline looks at the fields of a page, never at what stands in them, and proposes what each is. Nothing is kept before you say so." />
      <Card size="small" className="new-target">
        <Form layout="vertical" requiredMark={false}>
          <Form.Item label="What the page is called here" htmlFor="target-title" extra={title.trim() ? `Its key: ${key}` : null}>
            <Input id="target-title" value={title} maxLength={60} placeholder="Checkout of the shop" onChange={(event) => setTitle(event.target.value)} />
          </Form.Item>
          <Tabs
            items={[
              { key: "open", label: "Open the page", children: <OpenPage page={page} /> },
              { key: "paste", label: "Paste its HTML", children: <PasteHtml look={(fields, origins) => mutate({ fields, origins })} /> },
            ]}
          />
        </Form>
      </Card>
      {proposing.isError && <ErrorAlert error={proposing.error} />}
      {named && (
        <Card size="small" className="panel apart" title={<h2>Its fields</h2>}>
          {(named.addresses ?? []).length === 0 && <Alert className="space-below" type="warning" showIcon title="None of these fields looks like a part of an address. Is it the right page?" />}
          <ProposedFields document={named} because={because} unsure={unsure} />
          {keeping.isError && <ErrorAlert error={keeping.error} />}
          <p>
            <Button type="primary" disabled={!named.title} loading={keeping.isPending} onClick={() => keeping.mutate(named)}>
              Keep it as a draft
            </Button>{" "}
            {!named.title && <span className="hint">Say first what the page is called.</span>}
          </p>
        </Card>
      )}
    </>
  );
}

function OpenPage({ page }: { page: PageWindow }): React.ReactNode {
  const [text, setText] = useState("");
  const url = pageAddress(text);
  return (
    <>
      <p>Put this line on the page, where its other scripts are. It does nothing for people yet:</p>
      <CopiedLine text={scriptLine()} />
      <p>Then open the page from here, leave it and the small window beside it open, and come back:</p>
      <div className="page-row">
        <Input aria-label="Address of the page" placeholder="https://shop.example/checkout" value={text} maxLength={500} onChange={(event) => setText(event.target.value)} onPressEnter={() => url && page.open(url.href)} />
        <Button disabled={!url} loading={page.state === "opening"} onClick={() => url && page.open(url.href)}>
          Open it
        </Button>
      </div>
      <div role="status">
        <PageState page={page} />
      </div>
    </>
  );
}

function PasteHtml({ look }: { look: (fields: SeenField[], origins: string[]) => void }): React.ReactNode {
  const [html, setHtml] = useState("");
  const [address, setAddress] = useState("");
  const [none, setNone] = useState(false);
  const show = (): void => {
    const fields = fieldsOf(html);
    setNone(fields.length === 0);
    const url = pageAddress(address);
    if (fields.length) look(fields, url ? [url.origin] : []);
  };
  return (
    <>
      <Form.Item label="Where the page is" htmlFor="pasted-address">
        <Input id="pasted-address" placeholder="https://shop.example/checkout" value={address} maxLength={500} onChange={(event) => setAddress(event.target.value)} />
      </Form.Item>
      <Form.Item label="The HTML of its form" htmlFor="pasted-html" extra="It is read in this browser; nothing in it runs.">
        <Input.TextArea id="pasted-html" rows={8} value={html} spellCheck={false} onChange={(event) => setHtml(event.target.value)} />
      </Form.Item>
      <Button disabled={!html.trim()} onClick={show}>
        Look at it
      </Button>
      {none && <ErrorAlert error="There is no field in this HTML. Copy the whole form element, as the browser shows it (Inspect, Copy outer HTML)." />}
    </>
  );
}
