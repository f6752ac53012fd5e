/** What the editor of each kind of source is given. */

import type { Rule } from "../../../api/schemas";
import type { FieldChoice } from "../fields";

export interface TakesProps {
  rule: Rule;
  /** Of the rule, for whoever hears the page. */
  name: string;
  fields: FieldChoice[];
  labels: Record<string, string>;
  change: (rule: Rule) => void;
}
