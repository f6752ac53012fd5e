/** Places in a document by JSON pointer (RFC 6901). */

import type { FormDocument } from "../../api/schemas";
import { valueAt } from "../../../../embed/src/dictionary";

/** The document with something else at a place; the same one where there is no such place. */
export function withAt(document: FormDocument, pointer: string, value: unknown): FormDocument {
  const keys = pointer.split("/").slice(1).map((key) => key.replaceAll("~1", "/").replaceAll("~0", "~"));
  return put(document, keys, value) as FormDocument;
}

function put(inside: unknown, keys: readonly string[], value: unknown): unknown {
  const [key, ...rest] = keys;
  if (key === undefined) return value;
  if (Array.isArray(inside)) {
    const at = Number(key);
    return at in inside ? inside.with(at, put(inside[at], rest, value)) : inside;
  }
  const object = (inside ?? {}) as Record<string, unknown>;
  return { ...object, [key]: put(valueAt(object, key), rest, value) };
}

/** Of a place inside a slot's mapping: which rule it is; null for another place. */
export function ruleAt(pointer: string, slot: number): number | null {
  const found = new RegExp(`^/slots/${slot}/mapping/(\\d+)`).exec(pointer);
  return found ? Number(found[1]) : null;
}
