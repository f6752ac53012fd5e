/** Two people's changes to one draft, put together part by part. */

import type { FormDocument } from "../../api/schemas";
import { type Item, isSlot, itemsOf, nameOf } from "./edits";

/** A setting that both have changed, each otherwise. */
export interface Conflict {
  /** Of the field or slot; empty for the form itself. */
  key: string;
  /** A setting, or `*` where one has removed what the other has changed. */
  setting: string;
  label: string;
  mine: unknown;
  theirs: unknown;
}

export interface Merged {
  /** With everything of both; where they conflict, with mine. */
  document: FormDocument;
  conflicts: Conflict[];
  /** Whether anything of theirs was not in mine. */
  tookTheirs: boolean;
}

const OF_FORM = ["kind", "title", "intro", "thanks", "style", "keeps_hidden", "language", "translations"] as const;
const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

/**
 * Mine and theirs, both made from base.
 *
 * Args:
 *   choices: of conflicts, by `key/setting`, where theirs is to count.
 */
export function merge(base: FormDocument, mine: FormDocument, theirs: FormDocument, choices: ReadonlySet<string> = new Set()): Merged {
  const conflicts: Conflict[] = [];
  const chosen = (key: string, setting: string, label: string, b: unknown, m: unknown, t: unknown): unknown => {
    if (isSame(m, t) || isSame(b, t)) return m;
    if (isSame(b, m)) return t;
    conflicts.push({ key, setting, label, mine: m, theirs: t });
    return choices.has(`${key}/${setting}`) ? t : m;
  };
  const whole: Record<string, unknown> = { ...mine };
  for (const name of OF_FORM) put(whole, name, chosen("", name, "The form", base[name], mine[name], theirs[name]));

  const [b, m, t] = [byKey(base), byKey(mine), byKey(theirs)];
  const items = new Map<string, Item>();
  for (const key of new Set([...m.keys(), ...t.keys()])) {
    const [old, own, other] = [b.get(key), m.get(key), t.get(key)];
    if (own && other) items.set(key, mergedItem(old ?? ({} as Item), own, other, chosen));
    else if (!old) items.set(key, (own ?? other) as Item);
    else {
      // One has removed it: it stays away, unless the other has changed it meanwhile.
      const left = (own ?? other) as Item;
      if (isSame(left, old)) continue;
      conflicts.push({ key, setting: "*", label: nameOf(left), mine: own ?? null, theirs: other ?? null });
      const stays = choices.has(`${key}/*`) ? other : own;
      if (stays) items.set(key, stays);
    }
  }
  const order = mergedOrder([...b.keys()], [...m.keys()], [...t.keys()]).filter((key) => items.has(key));
  const entries = order.flatMap((key) => items.get(key) ?? []);
  const document = {
    ...whole,
    fields: entries.map((item) => (isSlot(item) ? { slot: item.key } : item)),
    slots: entries.filter(isSlot),
  } as FormDocument;
  return { document, conflicts, tookTheirs: !isSame(document, mine) };
}

type Choose = (key: string, setting: string, label: string, base: unknown, mine: unknown, theirs: unknown) => unknown;

function mergedItem(base: Item, mine: Item, theirs: Item, chosen: Choose): Item {
  if (isSame(mine, theirs)) return mine;
  const next: Record<string, unknown> = { key: mine.key };
  const [b, m, t] = [base, mine, theirs] as unknown as Record<string, unknown>[];
  for (const name of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    put(next, name, chosen(mine.key, name, nameOf(mine), b?.[name], m?.[name], t?.[name]));
  }
  return next as unknown as Item;
}

function put(into: Record<string, unknown>, name: string, value: unknown): void {
  if (value === undefined) delete into[name];
  else into[name] = value;
}

function byKey(document: FormDocument): Map<string, Item> {
  return new Map(itemsOf(document).map((item) => [item.key, item]));
}

/** Mine, where I have moved something; else theirs; what the other added follows what it stood below. */
function mergedOrder(base: string[], mine: string[], theirs: string[]): string[] {
  const kept = (order: string[]): string[] => order.filter((key) => base.includes(key));
  const iMoved = !isSame(kept(mine), base.filter((key) => mine.includes(key)));
  const [first, second] = iMoved ? [mine, theirs] : [theirs, mine];
  const order = [...first];
  second.forEach((key, at) => {
    if (order.includes(key)) return;
    const above = second.slice(0, at).findLast((one) => order.includes(one));
    order.splice(above === undefined ? 0 : order.indexOf(above) + 1, 0, key);
  });
  return order;
}

