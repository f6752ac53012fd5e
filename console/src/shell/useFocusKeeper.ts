/** The focus never falls to the page's body: what held it was removed, or can do nothing now. */

import { useEffect } from "react";

const FOCUSABLE = "button:not([disabled]):not(.ant-btn-dangerous), a[href], input:not([disabled]), select:not([disabled])";
/** So far up something near is looked for; beyond that it is the page itself. */
const NEAR = 4;

export function useFocusKeeper(): void {
  useEffect(() => {
    let last: HTMLElement | null = null;
    let around: HTMLElement[] = [];
    const remember = (event: FocusEvent): void => {
      last = event.target as HTMLElement;
      around = [];
      for (let up = last.parentElement; up && around.length < NEAR; up = up.parentElement) around.push(up);
    };
    const keep = (): void => {
      const lost = document.activeElement === document.body || document.activeElement === null;
      if (!lost || !last || (last.isConnected && !last.matches(":disabled") && last.offsetParent)) return;
      const near = around.find((one) => one.isConnected)?.querySelector<HTMLElement>(FOCUSABLE);
      last = null;
      (near ?? document.getElementById("main"))?.focus();
    };
    const watcher = new MutationObserver(() => queueMicrotask(keep));
    document.addEventListener("focusin", remember);
    watcher.observe(document.body, { childList: true, subtree: true, attributeFilter: ["disabled", "hidden"] });
    return () => {
      watcher.disconnect();
      document.removeEventListener("focusin", remember);
    };
  }, []);
}
