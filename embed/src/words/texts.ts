/** What every language has to say. */

import type { en } from "./en";

/** A text with `{names}` for what is filled in; or one for each kind of number that a language knows. */
export type Text = string | Partial<Record<Intl.LDMLPluralRule, string>> & { other: string };
export type Texts = Record<keyof typeof en, Text>;
