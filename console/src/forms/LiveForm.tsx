/** The form itself: the same custom element that people meet, on the draft, keeping nothing. */

import { useEffect, useRef } from "react";

import { sessionHeaders } from "../api/call";
import type { FillAnswer, RecordAnswer } from "../api/schemas";

export interface Filled {
  slot: string;
  label: string;
  answer: FillAnswer;
}

interface FormElement extends HTMLElement {
  connection: { base: string; headers: Record<string, string> };
}

export function LiveForm(props: {
  formKey: string;
  onFilled: (filled: Filled) => void;
  onDryRun: (dryRun: RecordAnswer) => void;
}): React.ReactNode {
  const place = useRef<HTMLDivElement>(null);
  const handlers = useRef(props);
  handlers.current = props;
  const { formKey } = props;
  useEffect(() => {
    const host = place.current;
    if (!host) return;
    let gone = false;
    void customElements.whenDefined("anchorline-form").then(() => {
      if (gone) return;
      const element = document.createElement("anchorline-form") as FormElement;
      element.setAttribute("form", formKey);
      element.setAttribute("draft", "");
      element.setAttribute("dry-run", "");
      element.setAttribute("level", "3");
      element.connection = { base: "", headers: sessionHeaders() };
      host.replaceChildren(element);
    });
    const filled = (event: Event): void => handlers.current.onFilled((event as CustomEvent<Filled>).detail);
    const tried = (event: Event): void => handlers.current.onDryRun((event as CustomEvent<RecordAnswer>).detail);
    host.addEventListener("anchorline-filled", filled);
    host.addEventListener("anchorline-dry-run", tried);
    return () => {
      gone = true;
      host.removeEventListener("anchorline-filled", filled);
      host.removeEventListener("anchorline-dry-run", tried);
    };
  }, [formKey]);
  return <section className="preview" ref={place} aria-label="The live form" tabIndex={0} />;
}
