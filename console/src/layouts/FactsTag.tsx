import { StateTag } from "../parts/StateTag";
import type { Confidence } from "./layouts";

const MEANING: Record<Confidence, string> = {
  sure: "sure",
  likely: "likely: details not confirmed",
  open: "open: sources disagree",
};

/** How sure the facts of a layout are. */
export function FactsTag({ confidence }: { confidence: Confidence }): React.ReactNode {
  return <StateTag tone={confidence === "sure" ? "fine" : "waits"}>{MEANING[confidence]}</StateTag>;
}
