/** Edits that are not saved yet: leaving the page asks first, whichever page it is. */

import { Modal } from "antd";
import { createContext, useCallback, useContext, useEffect, useId, useMemo, useRef } from "react";
import { useBlocker } from "react-router";

interface Unsaved {
  mark: (id: string, changed: boolean) => void;
  /** Does something that loses edits; asks first where there are some. */
  leaving: (go: () => void) => void;
}

const Context = createContext<Unsaved>({ mark: () => undefined, leaving: (go) => go() });

/** Says that a page holds edits that are not saved; `leaving` guards what would lose them. */
export function useUnsaved(changed: boolean): void {
  const { mark } = useContext(Context);
  const id = useId();
  useEffect(() => {
    mark(id, changed);
    return () => mark(id, false);
  }, [mark, id, changed]);
}

/** Guards what loses edits without leaving the page: signing out. */
export function useLeaving(): (go: () => void) => void {
  return useContext(Context).leaving;
}

export function UnsavedGuard({ children }: { children: React.ReactNode }): React.ReactNode {
  const edited = useRef(new Set<string>());
  const [modal, dialogs] = Modal.useModal();
  const blocker = useBlocker(
    useCallback(
      ({ currentLocation, nextLocation }: { currentLocation: { pathname: string }; nextLocation: { pathname: string } }) =>
        edited.current.size > 0 && currentLocation.pathname !== nextLocation.pathname,
      [],
    ),
  );
  const ask = useCallback(
    (leave: () => void, stay: () => void = () => undefined): void =>
      void modal.confirm({
        title: "Leave without saving?",
        content: "What you changed on this page is not saved yet, and would be lost.",
        icon: null,
        okText: "Leave, lose the changes",
        okButtonProps: { danger: true },
        cancelText: "Stay here",
        autoFocusButton: "cancel",
        onOk: leave,
        onCancel: stay,
      }),
    [modal],
  );
  useEffect(() => {
    if (blocker.state !== "blocked") return;
    ask(() => {
      edited.current.clear();
      blocker.proceed();
    }, blocker.reset);
  }, [blocker, ask]);
  useEffect(() => {
    const unload = (event: BeforeUnloadEvent): void => {
      if (edited.current.size) event.preventDefault();
    };
    window.addEventListener("beforeunload", unload);
    return () => window.removeEventListener("beforeunload", unload);
  }, []);
  const value = useMemo<Unsaved>(
    () => ({
      mark: (id, changed) => void (changed ? edited.current.add(id) : edited.current.delete(id)),
      leaving: (go) => (edited.current.size ? ask(go) : go()),
    }),
    [ask],
  );
  return (
    <Context value={value}>
      {children}
      {dialogs}
    </Context>
  );
}
