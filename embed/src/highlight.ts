/** A label with the ranges that were typed marked. */

import { make } from "./dom";

/** Ranges count Unicode characters, not UTF-16 units. */
export function highlighted(label: string, ranges: [number, number][]): Node[] {
  const characters = Array.from(label);
  const nodes: Node[] = [];
  let at = 0;
  const plain = (end: number): void => {
    if (end > at) nodes.push(document.createTextNode(characters.slice(at, end).join("")));
  };
  for (const [start, end] of ranges) {
    plain(start);
    nodes.push(make("mark", {}, characters.slice(start, end).join("")));
    at = end;
  }
  plain(characters.length);
  return nodes;
}
