/**
 * Ids inside a form. A control has the key of its field; all else has a colon, which no key has: a field can be called
 * `title`, or `phone-problem` beside one called `phone`.
 */

/** Of something that belongs to a field or slot. */
export const idBeside = (key: string, what: string): string => `${key}:${what}`;

/** Of something that belongs to the form as a whole. */
export const idOfForm = (what: string): string => `:${what}`;
