/** A published version as people met it. */

import { useQuery } from "@tanstack/react-query";
import { Spin } from "antd";
import { useEffect, useRef } from "react";

import { call, sessionHeaders } from "../../api/call";
import type { FormAnswer } from "../../api/schemas";
import { ErrorAlert } from "../../parts/ErrorAlert";
import type { LiveFormElement } from "./liveForm";

export function PastForm({ form, version }: { form: string; version: number }): React.ReactNode {
  const answer = useQuery({
    queryKey: ["version", form, version],
    queryFn: () => call<FormAnswer>(`forms/${form}/versions/${version}`),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (answer.isError) return <ErrorAlert error={answer.error} />;
  return answer.data ? <Shown form={form} answer={answer.data} /> : <Spin />;
}

function Shown({ form, answer }: { form: string; answer: FormAnswer }): React.ReactNode {
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
