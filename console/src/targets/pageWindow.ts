/** A page that is not ours, opened from here: what it says of its fields, and trying to fill them. */

import { useCallback, useEffect, useReducer, useRef } from "react";

import { INSPECT } from "../../../embed/src/attach/inspection";
import { type FromRelay, RELAY, type ToRelay, channelOf } from "../../../embed/src/attach/relay";
import { CLOSED, type Talk, next } from "./pageTalk";
import type { PageField } from "./useTargets";

/** How long a page may take to load before something is said. */
const PATIENCE_MS = 8000;

export interface PageWindow extends Talk {
  open: (url: string) => void;
  write: (fields: PageField[], values: Record<string, string>) => void;
  /** Frames a field on the page, and learns how often it is found. */
  show: (field: PageField) => void;
}

/**
 * Pages are opened through a small window of ours, which has no opener: what is opened knows nothing of this one.
 * All that comes is held against the page that was asked for (`pageTalk`).
 */
export function usePageWindow(): PageWindow {
  const channel = useRef<BroadcastChannel | null>(null);
  const [talk, dispatch] = useReducer(next, CLOSED);
  const end = useCallback(() => {
    channel.current?.postMessage({ kind: "end" } satisfies ToRelay);
    channel.current?.close();
    channel.current = null;
  }, []);
  useEffect(() => end, [end]);
  useEffect(() => {
    if (talk.state !== "opening") return undefined;
    const timer = setTimeout(() => dispatch({ kind: "patience" }), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [talk.state]);
  const open = useCallback(
    (address: string) => {
      end();
      const place = new URL(address);
      place.hash = INSPECT;
      const name = crypto.getRandomValues(new Uint32Array(4)).join("-");
      const opened = new BroadcastChannel(channelOf(name));
      channel.current = opened;
      opened.onmessage = ({ data }: MessageEvent<FromRelay>): void => {
        if (channel.current !== opened) return;
        if (data.kind === "ready") opened.postMessage({ kind: "open", url: place.href } satisfies ToRelay);
        dispatch(data);
      };
      dispatch({ kind: "open", origin: place.origin });
      window.open(`${RELAY}#${name}`, "_blank", "noopener");
    },
    [end],
  );
  const write = useCallback((fields: PageField[], values: Record<string, string>) => {
    dispatch({ kind: "trying" });
    channel.current?.postMessage({ kind: "pass", message: { kind: "anchorline-try", fields, values } } satisfies ToRelay);
  }, []);
  const show = useCallback((field: PageField) => {
    channel.current?.postMessage({ kind: "pass", message: { kind: "anchorline-show", field } } satisfies ToRelay);
  }, []);
  return { ...talk, open, write, show };
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
