/** The fields of a screen in their places, or one under another where nothing tells; of a program in the order of visiting. */

import { MovableList, MovableRow, moved } from "../../parts/MovableList";
import { valueAt } from "../../../../embed/src/dictionary";
import type { Tried } from "../pageTalk";
import type { AnyTarget, TargetAddress, TargetField } from "../useTargets";
import { fieldsOf, filledBy, withFields } from "./addresses";
import { TYPES, fieldName } from "./words";

interface Props {
  target: AnyTarget;
  address: TargetAddress | undefined;
  /** What the sample puts into each field. */
  values: Record<string, string>;
  /** What became of the fields on the page that is open. */
  tried: Tried | null;
  chosen: string | null;
  choose: (key: string) => void;
  edit: (target: AnyTarget) => void;
}

export function ScreenPicture({ target, address, values, tried, chosen, choose, edit }: Props): React.ReactNode {
  const fields = fieldsOf(target);
  const filled = address ? filledBy(address) : new Set<string>();
  const move = (from: number, to: number): void => edit(withFields(target, moved(fields, from, to)));
  let visit = 0;
  const blocks = fields.map((one) => one.block ?? "");
  return (
    <>
      {fields.length === 0 && <p className="hint">There are no fields yet.</p>}
      <MovableList count={fields.length} className="picture" move={move}>
        {fields.map((field, at) => {
          const isFilled = filled.has(field.key);
          const isOnScreen = !("where" in field) || field.where === "screen";
          const number = isFilled && isOnScreen && target.kind === "program" ? ++visit : null;
          return (
            <MovableRow key={field.key} at={at} name={`${fieldName(field)}, ${at + 1}`} className={`picture-row ${isFilled ? "is-filled" : ""}`} move={move}>
              {blocks[at] !== "" && blocks[at] !== blocks[at - 1] && <span className="picture-block">{blocks[at]}</span>}
              <button type="button" className="picture-field" aria-pressed={field.key === chosen} onClick={() => choose(field.key)}>
                <span className="picture-label">
                  {number !== null && <span className="picture-number">{number}</span>}
                  {fieldName(field)}
                  <span className="hint"> {kindOf(field)}</span>
                </span>
                <span className={`picture-box ${field.several_lines ? "of-lines" : ""}`}>
                  {isFilled ? <bdi>{valueAt(values, field.key) || " "}</bdi> : <span className="hint">left alone</span>}
                </span>
                {tried && <OnPage field={field} tried={tried} />}
              </button>
            </MovableRow>
          );
        })}
      </MovableList>
    </>
  );
}

function OnPage({ field, tried }: { field: TargetField; tried: Tried }): React.ReactNode {
  const one = tried.fields.find((other) => other.key === field.key);
  if (!one) return null;
  if (!one.found) return <span className="not-found">not found on the page</span>;
  return <span className={one.holds ? "held" : "hint"}>on the page now: {one.kept || "nothing"}</span>;
}

function kindOf(field: TargetField): string {
  const type = TYPES.find((one) => one.value === field.type)?.label ?? "";
  const lines = field.several_lines ? "of several lines" : "";
  const pieces = (field.pieces ?? []).length ? `in ${field.pieces?.length} pieces` : "";
  const length = field.max_length ? `${field.max_length} characters` : "";
  const where = "where" in field && field.where !== "screen" ? "not on the screen" : "";
  return [field.type === "text" || !field.type ? "" : type, lines, pieces, length, where].filter(Boolean).join(", ");
}
