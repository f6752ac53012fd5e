/** Where somebody is typing in a shadow tree, to go on there when the tree is built anew. */

/** Puts the focus, and what is marked, where it is now; does nothing where it was nowhere. */
export function keptFocus(root: ShadowRoot | null): () => void {
  const active = root?.activeElement;
  if (!root || !active?.id) return () => undefined;
  const { id } = active;
  const marked = active instanceof HTMLInputElement || active instanceof HTMLTextAreaElement ? [active.selectionStart, active.selectionEnd] : null;
  return () => {
    const again = root.getElementById(id);
    again?.focus();
    if (!marked || marked[0] === null || !(again instanceof HTMLInputElement || again instanceof HTMLTextAreaElement)) return;
    again.setSelectionRange(marked[0] ?? null, marked[1] ?? null);
  };
}
