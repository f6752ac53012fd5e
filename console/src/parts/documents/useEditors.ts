/** Who else has the draft open, and whether somebody has changed it. */

import { useEffect, useState } from "react";

import { callWithEtag, sessionHeaders } from "../../api/call";
import type { Editors } from "../../api/schemas";
import type { DraftKeeper } from "./keeper";
import type { DraftOf } from "./kind";

const EVERY_MS = 10_000;

/** @param path of the document below the API's root, such as `forms/venue` */
export function useEditors<Document, Body extends DraftOf<Document>>(path: string, keeper: DraftKeeper<Document, Body>): Editors["editors"] {
  const [page] = useState(() => Math.random().toString(36).slice(2, 14).padEnd(8, "0"));
  const [editors, setEditors] = useState<Editors["editors"]>([]);
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      try {
        const seen = await callWithEtag<Editors>(`${path}/editors`, { method: "POST", body: { page } });
        if (gone) return;
        setEditors(seen.body.editors);
        if (seen.etag !== keeper.kept.etag && keeper.state.status === "kept") await keeper.catchUp();
      } catch {
        // Who is there can wait; what is kept has its own ways.
      }
    };
    void look();
    const timer = setInterval(() => void look(), EVERY_MS);
    const leave = (): void => {
      const body = JSON.stringify({ page, leaves: true });
      const headers = { ...sessionHeaders(), "Content-Type": "application/json" };
      void fetch(`/api/v1/${path}/editors`, { method: "POST", body, headers, keepalive: true }).catch(() => undefined);
    };
    window.addEventListener("pagehide", leave);
    return () => {
      gone = true;
      clearInterval(timer);
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [path, keeper, page]);
  return editors;
}
