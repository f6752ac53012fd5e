/** The one box to search in: text that stands in the page's address as well, so that Back keeps it. */

import { Input } from "antd";
import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";

const PAUSE_MS = 250;

/**
 * A text of the page's address, typed here or set from elsewhere (Back, a link).
 *
 * The text itself is kept here: the address follows after a pause, and would lose letters typed
 * meanwhile.
 */
export function useAddressText(name: string): [string, (text: string) => void] {
  const [place, setPlace] = useSearchParams();
  const inAddress = place.get(name) ?? "";
  const [text, setText] = useState(inAddress);
  const seen = useRef(inAddress);
  // What was written into the address and has not been seen there yet.
  const written = useRef<string[]>([]);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    if (inAddress === seen.current) return;
    seen.current = inAddress;
    const own = written.current.indexOf(inAddress);
    if (own >= 0) {
      written.current.splice(0, own + 1);
      return;
    }
    clearTimeout(waiting.current);
    written.current = [];
    setText(inAddress);
  }, [inAddress]);
  useEffect(() => () => clearTimeout(waiting.current), []);
  const type = (next: string): void => {
    setText(next);
    clearTimeout(waiting.current);
    waiting.current = setTimeout(() => {
      if (next === seen.current) return;
      written.current.push(next);
      setPlace((old) => withText(old, name, next), { replace: true });
    }, PAUSE_MS);
  };
  return [text, type];
}

/** An address's parameters with one of them set, or without it where it is empty. */
export function withText(old: URLSearchParams, name: string, text: string): URLSearchParams {
  const next = new URLSearchParams(old);
  if (text) next.set(name, text);
  else next.delete(name);
  return next;
}

export function SearchBox(props: {
  /** What is searched for, for whoever does not see the box. */
  label: string;
  placeholder: string;
  text: string;
  change: (text: string) => void;
  width: string;
  autoFocus?: boolean;
}): React.ReactNode {
  return (
    <Input
      type="search"
      aria-label={props.label}
      placeholder={props.placeholder}
      value={props.text}
      onChange={(event) => props.change(event.target.value)}
      allowClear
      autoFocus={props.autoFocus ?? false}
      maxLength={200}
      style={{ flex: props.width }}
    />
  );
}
