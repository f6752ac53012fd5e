/** Patterns of paths, as the core has them: `*` stands for any characters, also none. */

export function matchesPath(pattern: string, path: string): boolean {
  const pieces = pattern.split("*");
  const first = pieces[0] ?? "";
  if (pieces.length === 1) return path === pattern;
  if (!path.startsWith(first)) return false;
  let at = first.length;
  for (const piece of pieces.slice(1, -1)) {
    const found = path.indexOf(piece, at);
    if (found < 0) return false;
    at = found + piece.length;
  }
  const last = pieces.at(-1) ?? "";
  return path.length - last.length >= at && path.endsWith(last);
}
