/** State of a page that is still there when the page has failed and is drawn anew. */

import { useCallback, useEffect, useState } from "react";

import { heldAs, hold, isHeld, release } from "./held";

/**
 * @param name of the state, the same whenever the page is drawn; another page has another one
 */
export function useHeld<Value>(name: string, first: Value): [Value, (value: Value) => void] {
  const [value, set] = useState<Value>(() => (isHeld(name) ? (heldAs(name) as Value) : first));
  useEffect(() => () => release(name), [name]);
  const change = useCallback(
    (next: Value): void => {
      hold(name, next);
      set(() => next);
    },
    [name],
  );
  return [value, change];
}
