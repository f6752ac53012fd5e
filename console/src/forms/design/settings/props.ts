/** What every part of the settings is given. */

import type { FoundProblem } from "../places";
import type { Design } from "../../kind";

export interface SettingsProps {
  form: string;
  design: Design;
  problems: readonly FoundProblem[];
}
