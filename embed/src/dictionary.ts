/**
 * Objects whose keys people name. A field can be called `constructor` or `__proto__`: what JavaScript gives every object is
 * no value of theirs.
 */

/** What an object itself has at a key; undefined where it has nothing. */
export function valueAt<T>(record: Readonly<Record<string, T>> | null | undefined, key: string): T | undefined {
  return record !== null && record !== undefined && Object.hasOwn(record, key) ? record[key] : undefined;
}

/** An object without a prototype: whatever is read or written by a key is that key's. */
export function dictionary<T>(entries: Iterable<readonly [string, T]> = []): Record<string, T> {
  const made = Object.create(null) as Record<string, T>;
  for (const [key, value] of entries) made[key] = value;
  return made;
}
