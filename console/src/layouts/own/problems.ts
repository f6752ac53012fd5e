/** What stands against publishing, by the entry of the document that it is about. */

import type { Place } from "../../api/call";

export function problemsAt(problems: readonly Place[], part: "ask" | "lines", index: number | null): string[] {
  const place = `/${part}/${index}`;
  return problems
    .filter(({ pointer }) => pointer === place || pointer.startsWith(`${place}/`))
    .map(({ detail }) => detail);
}

/** Those that no row shows: about names, countries, forms, or the document as a whole. */
export function problemsElsewhere(problems: readonly Place[]): string[] {
  return problems.filter(({ pointer }) => !/^\/(ask|lines)\/\d/.test(pointer)).map(({ detail }) => detail);
}
