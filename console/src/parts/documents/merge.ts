/** Two people's changes to one draft, put together part by part. */

/** A document taken apart: what is its own, and things in it that have names of their own. */
export interface Parts {
  settings: Record<string, unknown>;
  lists: Record<string, readonly object[]>;
}

/** Of what the documents of a kind are made. */
export interface Shape<Document> {
  /** What the document itself is called, where one of its own settings is meant. */
  whole: string;
  apart: (document: Document) => Parts;
  together: (parts: Parts) => Document;
  /** By which a thing in a list is known as the same one. */
  keyOf: (list: string, item: object) => string;
  labelOf: (list: string, item: object) => string;
}

/** A setting that both have changed, each otherwise. */
export interface Conflict {
  /** Of what it is a setting; empty for the document itself. */
  key: string;
  /** A setting, or `*` where one has removed what the other has changed. */
  setting: string;
  label: string;
  mine: unknown;
  theirs: unknown;
}

export interface Merged<Document> {
  /** With everything of both; where they conflict, with mine. */
  document: Document;
  conflicts: Conflict[];
  /** Whether anything of theirs was not in mine. */
  tookTheirs: boolean;
}

/** The shape of documents whose lists stand beside their settings, each thing in them with a name. */
export function shapeOf<Document extends object>(
  whole: string,
  named: Record<string, { keyOf: (item: object) => string; labelOf: (item: object) => string }>,
): Shape<Document> {
  return {
    whole,
    apart: (document) => {
      const entries = Object.entries(document);
      const isList = ([name, value]: [string, unknown]): boolean => Object.hasOwn(named, name) && Array.isArray(value);
      return {
        settings: Object.fromEntries(entries.filter((entry) => !isList(entry))),
        lists: Object.fromEntries(entries.filter(isList)) as Parts["lists"],
      };
    },
    together: ({ settings, lists }) => ({ ...settings, ...lists }) as Document,
    keyOf: (list, item) => named[list]?.keyOf(item) ?? "",
    labelOf: (list, item) => named[list]?.labelOf(item) ?? "",
  };
}

type Choose = (key: string, setting: string, label: string, base: unknown, mine: unknown, theirs: unknown) => unknown;

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

/**
 * Mine and theirs, both made from base.
 *
 * Args:
 *   choices: of conflicts, by `key/setting`, where theirs is to count.
 */
export function merge<Document>(
  shape: Shape<Document>,
  base: Document,
  mine: Document,
  theirs: Document,
  choices: ReadonlySet<string> = new Set(),
): Merged<Document> {
  const conflicts: Conflict[] = [];
  const chosen: Choose = (key, setting, label, b, m, t) => {
    if (isSame(m, t) || isSame(b, t)) return m;
    if (isSame(b, m)) return t;
    conflicts.push({ key, setting, label, mine: m, theirs: t });
    return choices.has(`${key}/${setting}`) ? t : m;
  };
  const [b, m, t] = [shape.apart(base), shape.apart(mine), shape.apart(theirs)];
  const settings = mergedSettings("", shape.whole, b.settings, m.settings, t.settings, chosen);
  const lists: Record<string, object[]> = {};
  for (const list of new Set([...Object.keys(m.lists), ...Object.keys(t.lists)])) {
    const three = [b, m, t].map((parts) => parts.lists[list] ?? []) as Three;
    // Two things of one name cannot be told apart: nothing of such a list is put together, and nothing is lost.
    lists[list] = three.every((items) => isNamed(shape, list, items))
      ? mergedList(shape, list, three, chosen)
      : (chosen("", list || "fields", shape.whole, ...three) as object[]);
  }
  const document = shape.together({ settings, lists });
  return { document, conflicts, tookTheirs: !isSame(shape.apart(document), m) };
}

function isNamed<Document>(shape: Shape<Document>, list: string, items: readonly object[]): boolean {
  return new Set(items.map((item) => shape.keyOf(list, item))).size === items.length;
}

type Three = [readonly object[], readonly object[], readonly object[]];

function mergedList<Document>(shape: Shape<Document>, list: string, [base, mine, theirs]: Three, chosen: Choose): object[] {
  const byKey = (items: readonly object[]): Map<string, object> => new Map(items.map((item) => [shape.keyOf(list, item), item]));
  const [b, m, t] = [byKey(base), byKey(mine), byKey(theirs)];
  const items = new Map<string, object>();
  for (const key of new Set([...m.keys(), ...t.keys()])) {
    const [old, own, other] = [b.get(key), m.get(key), t.get(key)];
    const place = list ? `${list}/${key}` : key;
    if (own && other) items.set(key, isSame(own, other) ? own : mergedSettings(place, shape.labelOf(list, own), old ?? {}, own, other, chosen));
    else {
      const left = (own ?? other) as object;
      // One has removed it: it stays away, unless the other has changed it meanwhile.
      if (isSame(left, old)) continue;
      const stays = old ? chosen(place, "*", shape.labelOf(list, left), old, own ?? null, other ?? null) : left;
      if (stays) items.set(key, stays as object);
    }
  }
  const order = mergedOrder([...b.keys()], [...m.keys()], [...t.keys()]);
  return order.flatMap((key) => items.get(key) ?? []);
}

function mergedSettings(key: string, label: string, base: object, mine: object, theirs: object, chosen: Choose): Record<string, unknown> {
  const [b, m, t] = [base, mine, theirs] as Record<string, unknown>[];
  const next: Record<string, unknown> = {};
  for (const name of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const value = chosen(key, name, label, own(b, name), own(m, name), own(t, name));
    if (value !== undefined) next[name] = value;
  }
  return next;
}

/** A setting of an object's own: one may be called as something that every object has. */
function own(of: Record<string, unknown> | undefined, name: string): unknown {
  return of && Object.hasOwn(of, name) ? of[name] : undefined;
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

