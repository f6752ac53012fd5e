/** A formula over components and facts. */

import { Suspense, lazy } from "react";

import { COMPONENTS, FACTS } from "../../../api/vocabulary";
import { useFunctions } from "../../design/settings/FormulaSetting";
import type { TakesProps } from "./props";
import { valueAt } from "../../../../../embed/src/dictionary";

const FormulaEditor = lazy(() => import("../../design/settings/FormulaEditor"));
const NO_PLACES: never[] = [];

export function TakesFormula({ rule, name, labels, change }: TakesProps): React.ReactNode {
  const functions = useFunctions();
  const names = [
    ...COMPONENTS.map((one) => ({ name: one, label: valueAt(labels, one) ?? one, isAddress: false })),
    ...Object.entries(FACTS).map(([one, label]) => ({ name: one, label, isAddress: false })),
  ];
  return (
    <Suspense fallback={<code>{rule.formula}</code>}>
      <FormulaEditor
        label={`Formula of ${name}`}
        text={rule.formula ?? ""}
        names={names}
        functions={functions}
        places={NO_PLACES}
        change={(formula) => change({ ...rule, formula: formula || '""' })}
      />
    </Suspense>
  );
}
