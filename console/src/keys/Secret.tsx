/** A secret that has just been made: shown once, to be copied. */

import { App, Button, Modal } from "antd";

import { readable } from "../parts/times";
import type { NewSecret } from "./useKeys";

export function Secret({ made, close }: { made: NewSecret; close: () => void }): React.ReactNode {
  const { message } = App.useApp();
  const { key, secret } = made;
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(secret);
      void message.success("Copied.");
    } catch {
      void message.warning("The browser does not let this page copy: select the key and copy it.");
    }
  };
  return (
    <Modal
      open
      title={`The key “${key.name}”`}
      onCancel={close}
      footer={
        <>
          <Button onClick={() => void copy()}>Copy</Button>
          <Button type="primary" onClick={close}>
            I have kept it
          </Button>
        </>
      }
    >
      <p>This is shown once. {key.kind === "server" ? "Keep it where only its program can read it." : "It goes into the pages of its origins, where everybody can read it."}</p>
      <p className="secret" tabIndex={0} aria-label="The key">
        {secret}
      </p>
      {key.earlier_until && <p className="hint">The secret before goes on until {readable(key.earlier_until)}.</p>}
    </Modal>
  );
}
