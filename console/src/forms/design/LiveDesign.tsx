/** The live form: what people will meet, as it is now; clicking something in it opens its settings. */

import { ReloadOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";

import type { FormLogic } from "../../../../embed/src/form/logic";
import { sessionHeaders } from "../../api/call";
import type { Draft, FormDocument, RecordAnswer } from "../../api/schemas";
import { DryRunResult, FillTrace } from "../Trace";
import { useLayouts } from "../../layouts/layouts";
import { withBrought, withCountries } from "./brought";
import { type Filled, type LiveFormElement, type Shown, setLiveForm } from "./liveForm";
import { provisional } from "./provisional";

export function LiveDesign(props: {
  form: string;
  document: FormDocument;
  kept: Draft;
  selected: string;
  select: (key: string) => void;
}): React.ReactNode {
  const { form, document: design, kept, selected, select } = props;
  const [round, setRound] = useState(0);
  const [filled, setFilled] = useState<Filled | null>(null);
  const [dryRun, setDryRun] = useState<RecordAnswer | null>(null);
  const layouts = useLayouts().data;
  const whole = useMemo(() => withCountries(withBrought(design, kept.brought), layouts ?? []), [design, kept.brought, layouts]);
  const shown: Shown = { document: whole, logic: provisional(whole, kept.logic as FormLogic), version: null };
  const { place, element } = useElement(form, shown, round, { select, setFilled, setDryRun });
  useEffect(() => element.current?.revise(shown), [whole, kept.logic]);
  useEffect(() => element.current?.mark(selected), [element, selected, round]);
  return (
    <section className="live" aria-label="The live form">
      <div className="live-bar">
        <span className="hint">This is the form as people meet it: try it. Nothing is kept of what you type.</span>
        <Button
          size="small"
          icon={<ReloadOutlined aria-hidden />}
          onClick={() => {
            setRound(round + 1);
            setFilled(null);
            setDryRun(null);
          }}
        >
          Start over
        </Button>
      </div>
      <div className="live-form" ref={place} />
      {filled && <FillTrace filled={filled} document={design} />}
      {dryRun && <DryRunResult answer={dryRun} />}
    </section>
  );
}

interface Handlers {
  select: (key: string) => void;
  setFilled: (filled: Filled) => void;
  setDryRun: (dryRun: RecordAnswer) => void;
}

function useElement(form: string, shown: Shown, round: number, handlers: Handlers) {
  const place = useRef<HTMLDivElement>(null);
  const element = useRef<LiveFormElement | null>(null);
  const latest = useRef({ shown, handlers });
  latest.current = { shown, handlers };
  useEffect(() => {
    const host = place.current;
    if (!host) return;
    let gone = false;
    void customElements.whenDefined("anchorline-form").then(() => {
      if (gone) return;
      const made = document.createElement("anchorline-form") as LiveFormElement;
      made.setAttribute("form", form);
      made.setAttribute("draft", "");
      made.setAttribute("dry-run", "");
      made.setAttribute("level", "2");
      made.connection = { base: "", get headers() { return sessionHeaders(); } };
      made.design = latest.current.shown;
      host.replaceChildren(made);
      element.current = made;
      setLiveForm(made);
    });
    const clicked = (event: Event): void => {
      const key = event.composedPath().map((one) => (one instanceof HTMLElement ? one.dataset.key : undefined)).find(Boolean);
      if (key) latest.current.handlers.select(key);
    };
    const filled = (event: Event): void => latest.current.handlers.setFilled((event as CustomEvent<Filled>).detail);
    const tried = (event: Event): void => latest.current.handlers.setDryRun((event as CustomEvent<RecordAnswer>).detail);
    host.addEventListener("click", clicked);
    host.addEventListener("anchorline-filled", filled);
    host.addEventListener("anchorline-dry-run", tried);
    return () => {
      gone = true;
      element.current = null;
      setLiveForm(null);
      host.removeEventListener("click", clicked);
      host.removeEventListener("anchorline-filled", filled);
      host.removeEventListener("anchorline-dry-run", tried);
    };
  }, [form, round]);
  return { place, element };
}
