/** Spelling a postcode as its country does while it is fresh. */

import { call, path } from "../../service";
import type { LayoutSource } from "./country-choice";
import type { FieldView } from "../field";
import type { CheckAnswer } from "../model";
import { valueAt } from "../../dictionary";

/** Spells a part that holds a postcode as the country does, and says what is wrong with it. */
export async function checkPostcode(
  part: FieldView,
  country: string,
  source: LayoutSource,
): Promise<void> {
  const { component } = part.field;
  const typed = part.value;
  if (component !== "postcode" || typeof typed !== "string") return;
  let answer: CheckAnswer;
  try {
    answer = await call<CheckAnswer>(source.connection, path`layouts/${country}/check`, {
      body: { components: { [component]: typed }, form: source.form },
    });
  } catch {
    return; // sending the form checks it again
  }
  if (part.value !== typed) return;
  const problem = answer.problems.find((one) => one.component === component);
  part.setProblem(problem?.detail ?? null);
  part.value = valueAt(answer.components, component) ?? typed;
}
