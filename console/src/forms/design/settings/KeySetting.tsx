/** The key under which values are kept: made from the label, and changeable until something was. */

import { Button, Input } from "antd";
import { useState } from "react";

import { itemsOf } from "../edits";
import { keysOf, renamed } from "../keys";
import type { Design } from "../../kind";

const KEY = /^[a-z][a-z0-9_-]{0,63}$/;

export function KeySetting(props: { design: Design; itemKey: string; select: (key: string) => void }): React.ReactNode {
  const { design, itemKey, select } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const isFixed = isCaptured(design, itemKey);
  const isTaken = typed !== null && typed !== itemKey && keysOf(design.document).has(typed);
  const isWrong = typed !== null && !KEY.test(typed);
  const take = (): void => {
    if (typed === null || isTaken || isWrong) return;
    if (typed !== itemKey) {
      design.edit(renamed(design.document, itemKey, typed));
      select(typed);
    }
    setTyped(null);
  };
  if (typed === null) {
    return (
      <p className="key-line">
        Key: <span className="key">{itemKey}</span>{" "}
        {isFixed ? (
          <span className="hint">fixed: records keep values under it</span>
        ) : (
          <Button type="link" size="small" onClick={() => setTyped(itemKey)}>
            Change
          </Button>
        )}
      </p>
    );
  }
  return (
    <div className="key-line">
      <Input
        autoFocus
        size="small"
        aria-label="Key"
        value={typed}
        maxLength={64}
        status={isTaken || isWrong ? "error" : ""}
        onChange={(event) => setTyped(event.target.value)}
        onPressEnter={take}
        onKeyDown={(event) => event.key === "Escape" && setTyped(null)}
      />
      <Button size="small" disabled={isTaken || isWrong} onClick={take}>
        Take it
      </Button>
      {isTaken && <span className="wrong">Something else has this key.</span>}
      {isWrong && <span className="wrong">Small letters, digits, _ and -, beginning with a letter.</span>}
    </div>
  );
}

/** Whether records may keep something under a key. */
export function isCaptured(design: Design, key: string): boolean {
  const { published, keeper } = design;
  if (!published || keeper.kept.body.summary.record_count === 0) return false;
  return itemsOf(published).some((item) => item.key === key);
}
