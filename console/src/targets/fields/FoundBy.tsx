/** How a field is found on its page: changed here, and tried on the page that is open. */

import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Form, Input, InputNumber, Select } from "antd";

import type { PageWindow } from "../pageWindow";
import type { PageField } from "../useTargets";
import { WAYS } from "./words";

type Way = NonNullable<PageField["find"]>[number];
type By = "css" | "name" | "id" | "autocomplete" | "label" | "class_name";
const NO_WAY: Way = { css: null, name: null, id: null, autocomplete: null, label: null, class_name: null, block: null, position: null };

const byOf = (way: Way): By => (Object.keys(WAYS) as By[]).find((name) => way[name]) ?? "name";
const withBy = (way: Way, by: By, value: string): Way => ({ ...NO_WAY, block: way.block, position: way.position, [by]: value });

export function FoundBy({ field, set, page }: { field: PageField; set: (changed: Partial<PageField>) => void; page: PageWindow | null }): React.ReactNode {
  const pieces = field.pieces ?? [];
  return (
    <>
      {pieces.length ? (
        pieces.map((piece, at) => (
          <Ways key={at} title={`Piece ${at + 1} is found by`} name={`piece ${at + 1}`} ways={piece.find ?? []} change={(find) => set({ pieces: pieces.with(at, { ...piece, find }) })} />
        ))
      ) : (
        <Ways title="It is found by" name="it" ways={field.find ?? []} change={(find) => set({ find })} />
      )}
      {page && page.state === "open" && (
        <p role="status">
          <Button onClick={() => page.show(field)}>Show it on the page</Button> {page.found?.key === field.key && <FoundThere count={page.found.count} />}
        </p>
      )}
    </>
  );
}

function FoundThere({ count }: { count: number }): React.ReactNode {
  if (count === 0) return <span className="not-found">It is not found there.</span>;
  return count === 1 ? <span className="held">It is found there, and framed.</span> : <span className="not-found">{count} are found: say which, by a block or a number.</span>;
}

function Ways(props: { title: string; name: string; ways: Way[]; change: (ways: Way[]) => void }): React.ReactNode {
  const { title, name, ways, change } = props;
  return (
    <Form.Item label={title}>
      {ways.map((way, at) => {
        const put = (next: Way): void => change(ways.with(at, next));
        return (
          <div key={at} className="way-row">
            <Select aria-label={`Way ${at + 1} to find ${name}`} value={byOf(way)} options={Object.entries(WAYS).map(([value, label]) => ({ value, label }))} popupMatchSelectWidth={false} onChange={(by) => put(withBy(way, by as By, way[byOf(way)] ?? ""))} />
            <Input aria-label={`Text of way ${at + 1} to find ${name}`} value={way[byOf(way)] ?? ""} maxLength={200} onChange={(event) => put(withBy(way, byOf(way), event.target.value))} />
            <Input aria-label={`Block of way ${at + 1} to find ${name}`} placeholder="in any block" value={way.block ?? ""} maxLength={200} onChange={(event) => put({ ...way, block: event.target.value || null })} />
            <InputNumber aria-label={`Number of way ${at + 1} to find ${name}`} placeholder="the only one" min={1} max={500} value={way.position ?? null} onChange={(position) => put({ ...way, position })} />
            <Button aria-label={`Take out way ${at + 1} to find ${name}`} icon={<DeleteOutlined aria-hidden />} onClick={() => change(ways.filter((_, other) => other !== at))} />
          </div>
        );
      })}
      <Button size="small" icon={<PlusOutlined aria-hidden />} onClick={() => change([...ways, { ...NO_WAY, name: "" }])}>
        Add a way
      </Button>
    </Form.Item>
  );
}
