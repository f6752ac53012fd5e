/** A published version as people met it. */

import { useEffect, useRef } from "react";

import { sessionHeaders } from "../../api/call";
import type { FormAnswer } from "../../api/schemas";
import type { LiveFormElement } from "./liveForm";

export function PastForm({ form, answer }: { form: string; answer: FormAnswer }): React.ReactNode {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const made = document.createElement("anchorline-form") as LiveFormElement;
    made.setAttribute("form", form);
    made.setAttribute("draft", "");
    made.setAttribute("dry-run", "");
    made.setAttribute("level", "4");
    made.connection = { base: "", headers: sessionHeaders() };
    made.design = { document: answer.document, logic: answer.logic as never, version: null };
    place.current?.replaceChildren(made);
  }, [form, answer]);
  return <div ref={place} className="past-form" inert />;
}
