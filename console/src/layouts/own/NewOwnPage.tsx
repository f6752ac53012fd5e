/** A new own layout: its name and where it holds; then its page opens. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button, Card } from "antd";
import { useNavigate, useSearchParams } from "react-router";

import { call } from "../../api/call";
import { PageHead } from "../../parts/PageHead";
import { useHeld } from "../../parts/useHeld";
import { useUnsaved } from "../../parts/useUnsaved";
import { Scope, type ScopePart } from "./Scope";
import { useOwnLayouts } from "./useOwn";
import { ErrorAlert } from "../../parts/ErrorAlert";

export default function NewOwnPage(): React.ReactNode {
  const [place] = useSearchParams();
  const go = useNavigate();
  const queries = useQueryClient();
  const own = useOwnLayouts();
  const [scope, setScope] = useHeld<ScopePart>("new own layout", { title: "", countries: place.getAll("country"), forms: [] });
  const make = useMutation({
    mutationFn: async () => {
      const key = freeKey(scope.title, (own.data ?? []).map((layout) => layout.key));
      await call(`layouts/own/${key}/draft`, { method: "PUT", body: { key, ...scope } });
      return key;
    },
    onSuccess: async (key) => {
      await queries.invalidateQueries({ queryKey: ["own-layouts"] });
      await go(`/layouts/own/${key}`);
    },
  });
  useUnsaved(scope.title.trim() !== "" && make.isIdle);
  const missing = !scope.title.trim() ? "a name" : scope.countries.length === 0 ? "a country" : "";
  return (
    <>
      <PageHead
        title="New own layout"
        about="Begin with its name and the countries it is for. It holds nowhere before you publish it."
      />
      <ErrorAlert error={make.error} />
      <Card size="small" className="narrow">
        <Scope scope={scope} change={(part) => setScope({ ...scope, ...part })} />
        <div className="begin">
          <Button type="primary" disabled={missing !== "" || !own.data} loading={make.isPending} onClick={() => make.mutate()}>
            Begin
          </Button>
          {missing && <span className="hint">It needs {missing}.</span>}
        </div>
      </Card>
    </>
  );
}

/** A key made of a title, with a number behind it where it is taken. */
export function freeKey(title: string, taken: readonly string[]): string {
  const plain = title
    .normalize("NFD")
    .toLowerCase()
    .replace(/\p{M}/gu, "")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^[^a-z]+|-+$/g, "")
    .slice(0, 50);
  const base = plain || "layout";
  let key = base;
  for (let number = 2; taken.includes(key) || key === "new" || key === "preview"; number++) key = `${base}-${number}`;
  return key;
}
