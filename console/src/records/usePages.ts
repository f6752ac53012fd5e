import { useState } from "react";

/** Cursors of the pages gone through, for as long as the list stays the same one. */
export function usePages(list: string) {
  const [kept, setKept] = useState<{ list: string; cursors: string[] }>({ list, cursors: [] });
  const cursors = kept.list === list ? kept.cursors : [];
  return {
    cursor: cursors.at(-1) ?? null,
    number: cursors.length,
    next: (after: string): void => setKept({ list, cursors: [...cursors, after] }),
    back: (): void => setKept({ list, cursors: cursors.slice(0, -1) }),
  };
}
