/** A formula: completed as one types, checked, and worked out on what stands in the live form. */

import { useQuery } from "@tanstack/react-query";
import { Suspense, lazy, useEffect, useState } from "react";

import { type Place, ServiceError, call } from "../../../api/call";
import type { Field, FormDocument, FormulaFunction, Slot, TryFormulaAnswer } from "../../../api/schemas";
import { changed, isSlot, itemsOf, nameOf } from "../edits";
import { asName } from "../keys";
import { givenInLiveForm } from "../liveForm";
import type { KnownName } from "./FormulaEditor";
import type { SettingsProps } from "./props";
import { valueAt } from "../../../../../embed/src/dictionary";

const FormulaEditor = lazy(() => import("./FormulaEditor"));
const PAUSE_MS = 300;

export function FormulaSetting(
  props: SettingsProps & { item: Field | Slot; setting: "formula" | "shown_when" | "required_when"; label: string },
): React.ReactNode {
  const { design, item, setting, label, problems } = props;
  const { document, edit } = design;
  const text = (item as Field)[setting] ?? "";
  const functions = useFunctions();
  const kept = design.keeper.kept.body.document;
  const keptText = itemsOf(kept).find((one) => one.key === item.key) as Field | undefined;
  // What the service says is of what it keeps: while another text stands here, the trying says.
  const own = keptText?.[setting] === text ? problems.filter((one) => one.key === item.key && one.setting === setting) : [];
  const tried = useTried(text, document);
  const places = own.length ? own : tried.places;
  return (
    <div className="setting">
      <span className="setting-label">{label}</span>
      <Suspense fallback={<code>{text}</code>}>
        <FormulaEditor
          label={label}
          text={text}
          names={namesOf(document, item.key)}
          functions={functions}
          places={places}
          change={(next) => edit(changed(document, item.key, { [setting]: next || (setting === "formula" ? '""' : null) }), `${item.key} ${setting}`)}
        />
      </Suspense>
      {places.map((place, at) => (
        <p key={at} className="wrong">
          {place.detail}
        </p>
      ))}
      {!places.length && tried.said && (
        <p className="hint" role="status">
          In the live form: <b>{tried.said}</b>
        </p>
      )}
    </div>
  );
}

export function useFunctions(): FormulaFunction[] {
  const answer = useQuery({
    queryKey: ["formula-functions"],
    queryFn: () => call<{ functions: FormulaFunction[] }>("formulas"),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return answer.data?.functions ?? [];
}

/** What a formula may speak of. */
function namesOf(document: FormDocument, own: string): KnownName[] {
  const without = new Set(["heading", "note", "page", "section"]);
  return itemsOf(document).flatMap((item) => {
    if (isSlot(item)) {
      const parts = item.parts.map((part) => ({ name: asName(part.key), label: `${item.label}: ${part.label || part.component}`, isAddress: false }));
      return [{ name: asName(item.key), label: item.label, isAddress: true }, ...parts];
    }
    if (item.key === own || without.has(item.type ?? "text")) return [];
    return [{ name: asName(item.key), label: nameOf(item), isAddress: false }];
  });
}

interface Tried {
  said: string;
  places: Pick<Place, "detail" | "at" | "length">[];
}

/** What a formula comes to on what stands in the live form, asked for after a pause in typing. */
function useTried(formula: string, document: FormDocument): Tried {
  const [tried, setTried] = useState<Tried>({ said: "", places: [] });
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      const given = givenInLiveForm();
      const names = Object.fromEntries(namesOf(document, "").filter((name) => !name.isAddress).map(({ name }) => [name.replaceAll("'", ""), null]));
      const slots = Object.fromEntries(document.slots.map((slot) => [slot.key, valueAt(given.slots, slot.key) ?? {}]));
      const body = { formula, values: { ...names, ...given.values }, slots };
      let next: Tried;
      try {
        const answer = await call<TryFormulaAnswer>("formulas/try", { method: "POST", body });
        next = { said: saidOf(answer), places: [] };
      } catch (error) {
        if (!(error instanceof ServiceError) || error.status !== 422) return;
        next = { said: "", places: error.places.filter((place) => place.pointer === "/formula") };
      }
      if (!gone) setTried((before) => (JSON.stringify(before) === JSON.stringify(next) ? before : next));
    };
    const timer = setTimeout(() => void look(), PAUSE_MS);
    const again = setInterval(() => void look(), 2000);
    return () => {
      gone = true;
      clearTimeout(timer);
      clearInterval(again);
    };
  }, [formula, document]);
  return tried;
}

function saidOf({ type, value, problems }: TryFormulaAnswer): string {
  if (type === "problem") return problems.join(" ") || "nothing yet";
  if (type === "empty" || value === "") return "nothing yet";
  if (typeof value === "boolean") return value ? "yes" : "no";
  return String(value);
}
