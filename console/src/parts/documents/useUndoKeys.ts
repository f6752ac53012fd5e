/** Ctrl+Z and Ctrl+Shift+Z (or Ctrl+Y), also with Cmd: what every editor understands. */

import { useEffect } from "react";

export function useUndoKeys(undo: () => void, redo: () => void): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      // A formula's editor has steps of its own while one types in it.
      if ((event.target as HTMLElement).closest?.(".cm-editor")) return;
      const key = event.key.toLowerCase();
      const isRedo = key === "y" || (key === "z" && event.shiftKey);
      if (key !== "z" && !isRedo) return;
      event.preventDefault();
      if (isRedo) redo();
      else undo();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [undo, redo]);
}
