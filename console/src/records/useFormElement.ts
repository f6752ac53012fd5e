/** The embedded form on a page of the console, as the person who is signed in. */

import { useEffect, useRef } from "react";

import { sessionHeaders } from "../api/call";
import type { RecordAnswer } from "../api/schemas";

export type MakeRecord = (form: string, label: string) => Promise<{ id: string; label: string } | null>;

interface FormElement extends HTMLElement {
  connection: { base: string; headers: Record<string, string> };
  makeRecord: MakeRecord | null;
}

interface Wanted {
  form: string;
  /** The record that is filled again; a new one without. */
  record?: string | undefined;
  level: number;
  makeRecord: MakeRecord | null;
  changed: () => void;
  submitted: (record: RecordAnswer) => void;
}

/** Where the form is to stand. */
export function useFormElement(wanted: Wanted): React.RefObject<HTMLDivElement | null> {
  const place = useRef<HTMLDivElement>(null);
  const latest = useRef(wanted);
  latest.current = wanted;
  const { form, record, level } = wanted;
  useEffect(() => {
    const host = place.current;
    if (!host) return;
    let isGone = false;
    void customElements.whenDefined("anchorline-form").then(() => {
      if (isGone) return;
      const made = document.createElement("anchorline-form") as FormElement;
      made.setAttribute("form", form);
      made.setAttribute("level", String(level));
      if (record) made.setAttribute("record", record);
      made.connection = { base: "", get headers() { return sessionHeaders(); } };
      made.makeRecord = (key, label) => latest.current.makeRecord?.(key, label) ?? Promise.resolve(null);
      host.replaceChildren(made);
    });
    const changed = (): void => latest.current.changed();
    const submitted = (event: Event): void => latest.current.submitted((event as CustomEvent<RecordAnswer>).detail);
    host.addEventListener("input", changed);
    host.addEventListener("anchorline-filled", changed);
    host.addEventListener("anchorline-submitted", submitted);
    return () => {
      isGone = true;
      host.removeEventListener("input", changed);
      host.removeEventListener("anchorline-filled", changed);
      host.removeEventListener("anchorline-submitted", submitted);
      host.replaceChildren();
    };
  }, [form, record, level]);
  return place;
}
