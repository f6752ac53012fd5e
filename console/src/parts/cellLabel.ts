import type { TdHTMLAttributes } from "react";

/** For a column's `onCell`: its name, which stands before each cell where a phone shows rows as blocks. */
export function cellLabel(name: string): () => TdHTMLAttributes<HTMLTableCellElement> {
  // Attributes of one's own are allowed on elements, and React's types do not know them.
  return () => ({ "data-label": name }) as TdHTMLAttributes<HTMLTableCellElement>;
}
