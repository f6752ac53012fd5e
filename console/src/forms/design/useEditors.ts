/** Who else has the draft open, and whether somebody has changed it. */

import { useEffect, useState } from "react";

import { call, sessionHeaders } from "../../api/call";
import type { Editors } from "../../api/schemas";
import type { DraftKeeper } from "./keeper";

const EVERY_MS = 10_000;

export function useEditors(form: string, keeper: DraftKeeper): Editors["editors"] {
  const [page] = useState(() => Math.random().toString(36).slice(2, 14).padEnd(8, "0"));
  const [editors, setEditors] = useState<Editors["editors"]>([]);
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      try {
        const seen = await call<Editors>(`forms/${form}/editors`, { method: "POST", body: { page } });
        if (gone) return;
        setEditors(seen.editors);
        if (`"${seen.revision}"` !== keeper.kept.etag && keeper.state.status === "kept") await keeper.catchUp();
      } catch {
        // Who is there can wait; what is kept has its own ways.
      }
    };
    void look();
    const timer = setInterval(() => void look(), EVERY_MS);
    const leave = (): void => {
      const body = JSON.stringify({ page, leaves: true });
      const headers = { ...sessionHeaders(), "Content-Type": "application/json" };
      void fetch(`/api/v1/forms/${encodeURIComponent(form)}/editors`, { method: "POST", body, headers, keepalive: true }).catch(() => undefined);
    };
    window.addEventListener("pagehide", leave);
    return () => {
      gone = true;
      clearInterval(timer);
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [form, keeper, page]);
  return editors;
}
