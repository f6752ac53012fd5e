/** A text split over several inputs, as the core does it (`core/targets/pieces.py`, `tests/vectors/pieces.json`). */

const BETWEEN = /[\s\-–./()]+/u;

/**
 * A text as so many pieces. Where it has as many groups as there are pieces, each group is one; else its characters,
 * without what stood between them, are dealt out by the pieces' lengths. What is too much stays in the last.
 */
export function split(text: string, lengths: readonly (number | null)[]): string[] {
  const groups = text.trim().split(BETWEEN).filter(Boolean);
  if (!groups.length) return lengths.map(() => "");
  const fits = groups.every((group, at) => at >= lengths.length || lengths[at] === null || group.length <= lengths[at]!);
  if (groups.length === lengths.length && fits) return groups;
  let together = groups.join("");
  const pieces = lengths.slice(0, -1).map((length, at) => {
    const taken = together.slice(0, length ?? groups[Math.min(at, groups.length - 1)]!.length);
    together = together.slice(taken.length);
    return taken;
  });
  return [...pieces, together];
}

export const joined = (pieces: readonly string[]): string => pieces.filter(Boolean).join(" ");
