/** Pages whose script is loaded when they are first gone to.
 *
 * Not with `lazy` and `Suspense`: React keeps a fallback that it has shown for 300 ms, also where
 * the script is there at once, which was a third of the time that a page took to open.
 */

import { Spin } from "antd";
import { type ComponentType, useEffect, useState } from "react";

export interface LoadedPage {
  Page: ComponentType;
  /** Begins to load the script; more than once does no harm. */
  begin: () => void;
}

export function pageLoaded(load: () => Promise<{ default: ComponentType }>): LoadedPage {
  let loaded: ComponentType | null = null;
  let loading: Promise<ComponentType> | null = null;
  const begin = (): Promise<ComponentType> =>
    (loading ??= load().then(
      (module) => (loaded = module.default),
      (problem: unknown) => {
        // Gone to once more, it is asked for once more.
        loading = null;
        throw problem;
      },
    ));
  function Page(): React.ReactNode {
    const [Loaded, setLoaded] = useState<ComponentType | null>(() => loaded);
    const [problem, setProblem] = useState<unknown>(null);
    useEffect(() => {
      // It may have come between what was rendered and here.
      if (!Loaded) begin().then((component) => setLoaded(() => component), setProblem);
    }, [Loaded]);
    // What is around all pages says it, and asks once more.
    if (problem) throw problem instanceof Error ? problem : new Error(String(problem));
    return Loaded ? <Loaded /> : <Spin description="Loading …" />;
  }
  return { Page, begin: () => void begin().catch(() => undefined) };
}
