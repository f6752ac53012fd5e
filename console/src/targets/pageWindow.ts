/** A page that is not ours, opened from here: what it says of its inputs, and trying to fill them. */

import { useCallback, useEffect, useRef, useState } from "react";

import { type FromConsole, type FromPage, INSPECT, type TriedInput } from "../../../embed/src/attach/inspection";
import type { PageInput, SeenInput } from "./useTargets";

/** How long a page may take to load before something is said. */
const PATIENCE_MS = 8000;

export interface Tried {
  inputs: TriedInput[];
  /** What the page's script has said of mistakes. */
  said: string[];
}

export interface PageWindow {
  state: "closed" | "opening" | "silent" | "open";
  /** The address of the page as it says it; empty before. */
  url: string;
  inputs: SeenInput[];
  tried: Tried | null;
  open: (url: string) => void;
  write: (inputs: PageInput[], values: Record<string, string>) => void;
}

/** Only the window that was opened, on the origin that was asked for, is listened to. */
export function usePageWindow(): PageWindow {
  const opened = useRef<Window | null>(null);
  const origin = useRef("");
  const [state, setState] = useState<PageWindow["state"]>("closed");
  const [page, setPage] = useState<{ url: string; inputs: SeenInput[] }>({ url: "", inputs: [] });
  const [tried, setTried] = useState<Tried | null>(null);
  useEffect(() => {
    const listen = ({ source, origin: from, data }: MessageEvent<FromPage>): void => {
      if (!opened.current || source !== opened.current || from !== origin.current) return;
      if (data.kind === "anchorline-page") {
        setState("open");
        setPage({ url: data.url, inputs: data.inputs });
      } else if (data.kind === "anchorline-tried") {
        setTried({ inputs: data.inputs, said: data.said });
      }
    };
    addEventListener("message", listen);
    return () => removeEventListener("message", listen);
  }, []);
  useEffect(() => {
    if (state !== "opening") return undefined;
    const timer = setTimeout(() => setState("silent"), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [state]);
  const open = useCallback((url: string) => {
    const place = new URL(url);
    place.hash = INSPECT;
    origin.current = place.origin;
    setTried(null);
    setState("opening");
    opened.current = window.open(place.href, "_blank");
    if (!opened.current) setState("silent");
  }, []);
  const write = useCallback((inputs: PageInput[], values: Record<string, string>) => {
    const wanted: FromConsole = { kind: "anchorline-try", inputs, values };
    setTried(null);
    opened.current?.postMessage(wanted, origin.current);
  }, []);
  return { state, ...page, tried, open, write };
}

/** A web address with a page that can be opened; null where it is none. */
export function pageAddress(text: string): URL | null {
  try {
    const url = new URL(text.trim());
    return url.protocol === "https:" || url.protocol === "http:" ? url : null;
  } catch {
    return null;
  }
}
